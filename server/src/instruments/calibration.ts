import { calibrate, type Calibration } from '@kevro/core';
import type { CalibrationRecord, Instrument, InstrumentKind } from '@kevro/contract';
import type { Queries } from '../db/db';
import { theShop } from '../records/shop';

/** The calibration by rods that were each read several times. */
export const calibrateRods = (rods: CalibrationRecord['rods']): Calibration =>
  calibrate(
    rods.map(({ trueValue, reads }) => ({
      trueValue,
      read: reads.reduce((sum, v) => sum + v, 0) / reads.length,
    })),
  );

const HOUR_MS = 3_600_000;

/** How an instrument's newest calibration stands, by the time that the shop lets one count. */
export async function calibrationState(
  db: Queries,
  kind: InstrumentKind,
  newest: CalibrationRecord | undefined,
  now: string,
): Promise<Instrument['calibrationState']> {
  if (kind !== 'machine') return 'not-needed';
  if (!newest) return 'never';
  if (newest.refused) return 'refused';
  const { calibrationHours } = await theShop(db);
  return Date.parse(now) - Date.parse(newest.takenAt) > calibrationHours * HOUR_MS ? 'stale' : 'fresh';
}
