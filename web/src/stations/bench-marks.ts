import { computed, type ComputedRef } from 'vue';
import {
  guideBands,
  recoilWeight,
  sweetRegion,
  type AxisSpecs,
  type Frame,
  type SpecKey,
  type SweetRegion,
  type Working,
  explainReading,
  explainRecoil,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { LaneMarks } from '../lanes/lane';
import { useFitting } from '../stores/fitting';

/** The marks that every station shows: measured, aim, setups, guide and walls. */
export function useBenchMarks(): ComputedRef<LaneMarks> {
  const fitting = useFitting();
  return computed<LaneMarks>(() => {
    const { view, frame, dress, measurement, near } = fitting;
    if (!view || !frame) return {};
    const { ceilingSwingWeight, guide } = view.player;
    return {
      measured: measurement?.specs,
      measuredUncertainty: measurement?.uncertainty,
      estimated: measurement?.estimated,
      aim: view.aim?.target,
      setups: near.map(({ setup, specs }) => ({
        id: setup.id,
        specs,
        marked: view.references.includes(setup.id),
      })),
      ...(guide && dress ? { guide: guideBands(frame, guide, dress) } : {}),
      ...(ceilingSwingWeight
        ? { walls: { swingWeight: { value: ceilingSwingWeight, name: 'ceiling' } } }
        : {}),
    };
  });
}

/** The sweet region of specs, where their twist weight is known and the numbers can be. */
export function sweetOf(frame: Frame | undefined, specs: AxisSpecs | undefined): SweetRegion | undefined {
  if (!frame || specs?.twistWeight === undefined || !(recoilWeight(specs) > 0)) return undefined;
  return sweetRegion(frame, { ...specs, twistWeight: specs.twistWeight });
}

/** The working of a measured number. */
export function readingWorking(
  what: SpecKey | 'recoil',
  measurement: Measurement | undefined,
  frame: Frame | undefined,
): Working | undefined {
  if (!measurement || !frame) return undefined;
  const { specs, uncertainty, dress } = measurement;
  if (what === 'recoil') return explainRecoil(specs);
  const value = specs[what];
  if (value === undefined) return undefined;
  return explainReading(what, value, uncertainty[what], frame, dress, specs.axisCm);
}
