import { computed, type ComputedRef } from 'vue';
import {
  dressParts,
  explainDerived,
  explainOutcome,
  explainReading,
  guideBands,
  isSpec,
  type ChangeOutcome,
  type KnownSpecs,
  type Frame,
  type NumberKey,
  type Working,
} from '@kevro/core';
import type { Measurement } from '@kevro/contract';
import type { LaneMarks } from '../lanes/lane';
import { changeWords } from '../words/change';
import { useBeside } from '../stores/beside';
import { useFitting } from '../stores/fitting';
import { useGuides } from '../stores/guides';
import { useLibrary } from '../stores/library';

/** What the maker states of a frame and nobody here measured. */
const statedOf = (specs: KnownSpecs, frame: { stiffness: number | null } | undefined): KnownSpecs =>
  frame && frame.stiffness !== null && specs.stiffness === undefined ? { stiffness: frame.stiffness } : {};

/** The marks that every station shows: measured, aim, setups, and what the player's own sport knows of them: guide and ceiling. */
export function useBenchMarks(): ComputedRef<LaneMarks> {
  const fitting = useFitting();
  const library = useLibrary();
  const others = useBeside();
  const guides = useGuides();
  return computed<LaneMarks>(() => {
    const { view, frame, dress, measurement, aim, references } = fitting;
    if (!view || !frame) return {};
    const { sport } = frame.sport;
    const ceiling = view.player.ceilings[sport];
    const guide = view.player.guides[sport];
    const stated = measurement ? statedOf(measurement.specs, fitting.record) : {};
    return {
      measured: measurement && { ...measurement.specs, ...stated },
      stated: Object.keys(stated),
      measuredUncertainty: measurement?.uncertainty,
      estimated: measurement?.estimated,
      aim: aim?.target,
      setups: [
        ...others.all.map(({ id, specs }) => ({ id, specs, marked: true })),
        ...library.atHand.map(({ id, specs }) => ({ id, specs, marked: references.includes(id) })),
      ],
      ...(guide && dress ? { guide: guideBands(frame, guide, dress, guides.edited) } : {}),
      ...(ceiling ? { walls: { swingWeight: { value: ceiling, name: 'ceiling' } } } : {}),
    };
  });
}

/** The working of a measured number: how it was really found, or what it follows from. */
export function readingWorking(
  what: NumberKey,
  measurement: Measurement | undefined,
  frame: Frame | undefined,
): Working | undefined {
  if (!measurement || !frame) return undefined;
  if (!isSpec(what)) return explainDerived(what, measurement.specs, frame.lengthCm, 'as measured');
  const parts = dressParts(frame, measurement.dress).map((part) => part.name);
  const assumes = parts.length > 0 ? `on the frame: ${parts.join(', ')}` : 'nothing on the frame';
  return explainReading(what, measurement, measurement.how[what], assumes);
}

/** The working of a planned number: the terms that gave it. */
export function planWorking(what: NumberKey, outcome: ChangeOutcome, frame: Frame): Working | undefined {
  if (!isSpec(what)) return explainDerived(what, outcome.specs, frame.lengthCm, 'planned');
  return explainOutcome(what, outcome, {
    before: 'measured',
    after: 'planned',
    nameOf: (term) => changeWords(term, frame),
    assumes: 'each strip is even along its length; places are right to ±4 mm, parts to their own tolerance',
  });
}
