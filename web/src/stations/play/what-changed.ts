import {
  SPEC_KEYS,
  dressParts,
  zoneChanges,
  type Frame,
  type KnownSpecs,
  type SpecKey,
  type ZoneChange,
} from '@kevro/core';
import type { Carried } from '@kevro/contract';

/** Grams of each zone between two things that a frame carried. */
export const changedZones = (frame: Frame, from: Carried, to: Carried): ZoneChange[] =>
  zoneChanges(frame, { placements: to.weights, removals: from.weights.map((of) => ({ of })) }).filter(
    ({ massG }) => Math.abs(massG) > 0.005,
  );

/** Parts of the dress that came and went. */
export function changedDress(frame: Frame, from: Carried, to: Carried): { came: string[]; went: string[] } {
  const names = ({ dress }: Carried): string[] => dressParts(frame, dress).map(({ name }) => name);
  const [before, after] = [names(from), names(to)];
  return {
    came: after.filter((name) => !before.includes(name)),
    went: before.filter((name) => !after.includes(name)),
  };
}

/** Differences of specs that both sides know, second less first. */
export const changedSpecs = (from: KnownSpecs, to: KnownSpecs): { spec: SpecKey; by: number }[] =>
  SPEC_KEYS.flatMap((spec) => {
    const [a, b] = [from[spec], to[spec]];
    return a === undefined || b === undefined ? [] : [{ spec, by: b - a }];
  });
