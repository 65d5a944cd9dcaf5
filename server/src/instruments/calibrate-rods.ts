import { calibrate, type Calibration } from '@kevro/core';
import type { CalibrationRecord } from '@kevro/contract';

/** The calibration by rods that were each read several times. */
export const calibrateRods = (rods: CalibrationRecord['rods']): Calibration =>
  calibrate(
    rods.map(({ trueValue, reads }) => ({
      trueValue,
      read: reads.reduce((sum, v) => sum + v, 0) / reads.length,
    })),
  );
