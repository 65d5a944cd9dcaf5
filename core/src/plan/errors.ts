import { dressChange, signedParts } from '../dress';
import { directionOnLine, type Frame } from '../frame';
import { NOTHING, SPEC_KEYS, add, swingAbout, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import type { SpecUncertainty } from '../measure';
import {
  DENSITY_SHARE,
  middleOf,
  partNamed,
  partRule,
  placementSums,
  spanCmOf,
  type Part,
  type Placement,
} from '../part';
import { G_CM2_PER_KG_CM2 } from '../units';
import type { Dress } from '../sport';
import { changeOutcome, dressAfter, type Change } from './change';

/** Standard uncertainty of where a piece ends up along its line, cm (physics.md; from memory). */
export const PLACING_CM = 0.4;
/** Standard uncertainty of where it ends up across its line: by the slack of a tape on its rim, cm (from memory). */
export const SLACK_CM = 0.05;
/** Standard uncertainty of a length cut by hand, cm (from memory). */
export const CUTTING_CM = 0.05;

/** What makes a build differ from its plan. */
export const ERROR_KINDS = ['instruments', 'density', 'placing', 'cutting'] as const;
export type ErrorKind = (typeof ERROR_KINDS)[number];

/** How a build is made, as far as it matters to its errors. All are standard uncertainties; the usual ones where left out. */
export interface Care {
  /** Of the mass of what is sold by length or by the tub, as a share. */
  densityShare?: number | undefined;
  /** Along the line, cm. */
  placingCm?: number | undefined;
  cuttingCm?: number | undefined;
  /** Each piece is weighed before it is stuck on: the scale's uncertainty stands for density and cutting, g. */
  weighedG?: number | undefined;
}

/**
 * One independent error of a build: what one standard deviation of it does to the sums of the frame. Errors that pieces share are one source.
 */
export interface ErrorSource {
  what: ErrorKind;
  sums: MassSums;
}

const scaled = (sums: MassSums, by: number): MassSums => add(NOTHING, sums, by);

/** What a slide by dx and dy does to the sums of a piece, to first order. @param yCm of its middle, on its own side */
const slid = (sums: MassSums, yCm: number, dx: number, dy: number): MassSums => ({
  massG: 0,
  firstGCm: sums.massG * dx,
  secondGCm2: 2 * sums.firstGCm * dx,
  twistGCm2: 2 * sums.massG * yCm * dy,
});

/** Errors of one placement that it shares with no other: where its strips end up, and how long they were cut. */
export function ownErrors(
  frame: Frame,
  placement: Placement,
  part: Part | undefined,
  care: Care,
): ErrorSource[] {
  const sums = placementSums(frame, placement, part);
  const { line, alongCm, yCm } = middleOf(frame, placement);
  const found: ErrorSource[] = [];
  // A pair is two strips, each placed and cut on its own: together 1/√2 of what one error for both would do.
  const apart = 1 / Math.sqrt(placement.sides);
  const move = (cm: number, dx: number, dy: number): void => {
    if (cm > 0) found.push({ what: 'placing', sums: scaled(slid(sums, yCm, dx, dy), cm * apart) });
  };
  if (placement.path !== 'slot') {
    const along = directionOnLine(frame, line, alongCm);
    move(care.placingCm ?? PLACING_CM, along.xCm, along.yCm);
    if (line !== 'handle') move(SLACK_CM, -along.yCm, along.xCm);
  }
  const spanCm = spanCmOf(placement);
  const cut = part ? partRule(part).cut : spanCm > 0;
  if (care.weighedG !== undefined) {
    found.push({ what: 'density', sums: scaled(sums, care.weighedG / placement.massG) });
  } else if (cut && spanCm > 0) {
    const pieces = placement.sides * placement.layers;
    const share = (care.cuttingCm ?? CUTTING_CM) / spanCm / Math.sqrt(pieces);
    found.push({ what: 'cutting', sums: scaled(sums, share) });
  }
  return found;
}

/** Errors of mass: one for each roll, shared by all its pieces; one for each piece that is no roll's. */
export function massErrors(
  pieces: readonly { sums: MassSums; massG: number; part: Part | undefined }[],
  care: Care,
): ErrorSource[] {
  if (care.weighedG !== undefined) return [];
  const rolls = new Map<string, MassSums>();
  const found: ErrorSource[] = [];
  for (const { sums, massG, part } of pieces) {
    const rule = part && partRule(part);
    if (part && rule && !rule.shared) {
      found.push({ what: 'density', sums: scaled(sums, rule.massUncertaintyG(part, massG) / massG) });
      continue;
    }
    const share =
      care.densityShare ?? (part && rule ? rule.massUncertaintyG(part, massG) / massG : DENSITY_SHARE);
    const roll = part?.id ?? '';
    rolls.set(roll, add(rolls.get(roll) ?? NOTHING, sums, share));
  }
  for (const sums of rolls.values()) found.push({ what: 'density', sums });
  return found;
}

/**
 * Every independent error of carrying out a change: the density of each roll (one error that its pieces share), cutting, placing along the line (each
 * strip of a pair on its own; across it only by the tape's slack), and the parts of the dress that are changed. JCGM 100:2008, 5.2: what is shared is
 * correlated, so it is one source.
 * @param dress what is on the frame before
 * @returns effects of one standard deviation on the sums of the frame
 * @example errorSources(frame, {}, { ...NO_CHANGE, placements, parts }).length
 */
export function errorSources(frame: Frame, dress: Dress, change: Change, care: Care = {}): ErrorSource[] {
  const partOf = ({ partId }: Placement): Part | undefined => partNamed(change.parts, partId);
  const placed = change.placements.map((p) => ({
    sums: placementSums(frame, p, partOf(p)),
    massG: p.massG,
    part: partOf(p),
  }));
  const removed = change.removals.flatMap(({ of, left }) => {
    const part = partOf(of);
    const there = placementSums(frame, of, part);
    const off = left ? add(there, placementSums(frame, left, part), -1) : there;
    return off.massG > 0 ? massErrors([{ sums: off, massG: off.massG, part }], {}) : [];
  });
  const swapped = signedParts(dressChange(frame, dress, dressAfter(dress, change.swaps))).flatMap(
    ({ sums, massUncertaintyG, placeUncertaintyCm }): ErrorSource[] => [
      { what: 'density', sums: scaled(sums, massUncertaintyG / Math.abs(sums.massG)) },
      { what: 'placing', sums: scaled(slid(sums, 0, 1, 0), placeUncertaintyCm) },
    ],
  );
  return [
    ...massErrors(placed, care),
    ...change.placements.flatMap((p) => ownErrors(frame, p, partOf(p), care)),
    ...removed,
    ...swapped,
  ];
}

/** An independent error as what one standard deviation of it does to each spec. */
export interface SpecError {
  what: ErrorKind;
  of: Record<SpecKey, number>;
}

/**
 * Errors of sums as errors of specs, to first order about the specs after: dB = (dF − B dM)/M; dS = (dS₀ − 2a dF + a² dM)/1000; dT/1000
 * (law of propagation, JCGM 100:2008, eq. 10).
 */
export function specErrors(after: AxisSpecs, sources: readonly ErrorSource[]): SpecError[] {
  const { massG, balanceCm, axisCm } = after;
  return sources.map(({ what, sums }) => ({
    what,
    of: {
      massG: sums.massG,
      balanceCm: (sums.firstGCm - balanceCm * sums.massG) / massG,
      swingWeight: swingAbout(sums, axisCm),
      twistWeight: sums.twistGCm2 / G_CM2_PER_KG_CM2,
    },
  }));
}

/** What instruments read off, each spec by itself. */
export const instrumentErrors = (readings: SpecUncertainty): SpecError[] =>
  SPEC_KEYS.filter((key) => readings[key] > 0).map((key) => ({
    what: 'instruments',
    of: { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0, [key]: readings[key] },
  }));

/** Standard uncertainty of each spec from independent errors. */
export function spreadOf(errors: readonly SpecError[]): SpecUncertainty {
  const spread: SpecUncertainty = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
  for (const { of } of errors) for (const key of SPEC_KEYS) spread[key] += of[key] ** 2;
  for (const key of SPEC_KEYS) spread[key] = Math.sqrt(spread[key]);
  return spread;
}

/**
 * How an error of a spec before a change reaches the specs after it: the weight pulls at the balance, and the balance of a heavier frame moves less; the others
 * stay as they were.
 * @example pullOf(before, after)('massG', 0.3).balanceCm
 */
export function pullOf(
  before: AxisSpecs,
  after: AxisSpecs,
): (key: SpecKey, u: number) => Record<SpecKey, number> {
  const pull = (before.balanceCm - after.balanceCm) / after.massG;
  const share = before.massG / after.massG;
  return (key, u) => {
    const of = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0, [key]: u };
    return { ...of, balanceCm: of.massG * pull + of.balanceCm * share };
  };
}

/**
 * Standard uncertainty of what a change makes of a frame: from the readings before it and every error of the build.
 * @param readings standard uncertainties of the specs before
 * @example changeUncertainty(frame, before, TYPICAL, dress, change).massG
 */
export function changeUncertainty(
  frame: Frame,
  before: AxisSpecs,
  readings: SpecUncertainty,
  dress: Dress,
  change: Change,
  care?: Care,
): SpecUncertainty {
  const after = changeOutcome(frame, before, dress, change).specs;
  const moved = pullOf(before, after);
  return spreadOf([
    ...SPEC_KEYS.map((key): SpecError => ({ what: 'instruments', of: moved(key, readings[key]) })),
    ...specErrors(after, errorSources(frame, dress, change, care)),
  ]);
}
