import { Fault } from '../fault';
import { settleFrame, type Frame, type FrameShape } from '../frame';
import {
  NOTHING,
  add,
  requireSpecs,
  specProblems,
  specsOf,
  sumsOf,
  withAxis,
  type AxisSpecs,
  type Specs,
} from '../mass';
import { afterParts, type SpecUncertainty, type UncertainPart } from '../measure';
import { dressParts, type Dress, type DressPart } from './components';
import type { TypicalParts } from './typical';

export interface DressChange {
  takenOff: DressPart[];
  putOn: DressPart[];
}

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
export const signedParts = (change: DressChange): UncertainPart[] => [
  ...change.takenOff.map((part) => ({ ...part, sums: add(NOTHING, part.sums, -1) })),
  ...change.putOn,
];

export interface Redressed {
  specs: AxisSpecs;
  /** Standard uncertainty that the change of dress adds to each spec. */
  uncertainty: SpecUncertainty;
  change: DressChange;
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
  const sums = parts.reduce((sum, part) => add(sum, part.sums), sumsOf(before));
  if (!(sums.massG > 0)) throw new Fault({ code: 'removal-too-large', path: 'from' });
  const after = specsOf(sums, before.axisCm, before.twistWeight !== undefined);
  if (specProblems(after, frame.lengthCm).length > 0) {
    throw new Fault({ code: 'removal-too-large', path: 'from' });
  }
  return { specs: after, uncertainty: afterParts(before, EXACT, parts), change };
}
