import { ratingsOf } from '../spec';
import { Fault } from '../fault';
import { settleFrame, type Frame, type FrameShape } from '../frame';
import {
  NOTHING,
  add,
  joinParts,
  requireSpecs,
  specProblems,
  withAxis,
  type AxisSpecs,
  type Joined,
  type Outcome,
  type Specs,
} from '../mass';
import { afterParts, type SpecUncertainty, type UncertainPart } from '../measure';
import type { Dress } from '../sport';
import { dressParts, type DressPart } from './components';
import type { TypicalParts } from '../sport';

export interface DressChange {
  takenOff: DressPart[];
  putOn: DressPart[];
}

/** A part of a dress that is put on or, with negative sums, taken off. */
export type UncertainDressPart = DressPart & UncertainPart & { takenOff: boolean };

/** What must come off and what must go on between two dresses; what both have stays. */
export function dressChange(frame: Frame, from: Dress, to: Dress, typical?: TypicalParts): DressChange {
  const before = dressParts(frame, from, typical);
  const after = dressParts(frame, to, typical);
  const has = (parts: DressPart[], key: string): boolean => parts.some((p) => p.key === key);
  return {
    takenOff: before.filter((p) => !has(after, p.key)),
    putOn: after.filter((p) => !has(before, p.key)),
  };
}

/** The change as parts with signed sums: negative comes off. */
export const signedParts = (change: DressChange): UncertainDressPart[] => [
  ...change.takenOff.map((part) => ({ ...part, sums: add(NOTHING, part.sums, -1), takenOff: true })),
  ...change.putOn.map((part) => ({ ...part, takenOff: false })),
];

/** Parts of a dress as things that are put on, for {@link joinParts}. */
export const joinedParts = (parts: readonly UncertainDressPart[]): Joined<UncertainDressPart>[] =>
  parts.map((part) => ({ of: part, sums: part.sums }));

export interface Redressed {
  specs: AxisSpecs;
  /** Standard uncertainty that the change of dress adds to each spec. */
  uncertainty: SpecUncertainty;
  change: DressChange;
  /** The terms that gave the specs. */
  outcome: Outcome<UncertainDressPart>;
}

const EXACT: SpecUncertainty = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };

/**
 * Moves specs from one dress to another: takes off what is only in `from`, puts on what is only in `to`.
 * @param specs g, cm, kg·cm² in the dress `from`
 * @throws Fault for impossible specs, or `removal-too-large` where what is left is impossible
 * @example redress(shape, specs, {}, { strings: true }).specs.massG // specs.massG + 16
 */
export function redress(
  shape: FrameShape,
  specs: Specs,
  from: Dress,
  to: Dress,
  typical?: TypicalParts,
): Redressed {
  const frame = settleFrame(shape);
  const before = requireSpecs(withAxis(specs, frame.sport.axisCm), frame.lengthCm);
  const change = dressChange(frame, from, to, typical);
  const parts = signedParts(change);
  const outcome = joinParts(before, joinedParts(parts), before.axisCm);
  // Nothing was missing before, so nothing is now.
  const after: AxisSpecs = { ...(outcome.specs as AxisSpecs), ...ratingsOf(specs) };
  if (!(after.massG > 0) || specProblems(after, frame.lengthCm).length > 0) {
    throw new Fault({ code: 'removal-too-large', path: 'from' });
  }
  return { specs: after, uncertainty: afterParts(before, EXACT, parts), change, outcome };
}
