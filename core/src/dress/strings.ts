import { Fault, type Problem } from '../fault';
import { halfWidthAt, lengthAt, settleFrame, type Frame, type Outline } from '../frame';
import { NOTHING, add, segmentStrip, type MassSums } from '../mass';
import type { StringKind } from '../part';
import type { TypicalPart } from '../sport';

/** Density of string materials, g/cm³ (physics of the trade; from memory). */
export const STRING_DENSITY: Record<StringKind, number> = { polyester: 1.38, nylon: 1.14, gut: 1.3 };

export interface StringJob {
  mains: number;
  crosses: number;
  gaugeMm: number;
  material: StringKind;
  /** Of the crosses, where they are of another string. */
  crossGaugeMm?: number;
  crossMaterial?: StringKind;
}

/** How much of the bed's width the mains take up from the first to the last, and of its length the crosses (from memory). */
const MAINS_SHARE = 0.8;
const CROSSES_SHARE = 0.84;
/** String in a knot with its tail, cm; two pieces of string have four of them (from memory). */
const KNOT_CM = 4;
const KNOTS = 4;
/** How far pattern, stretch and trimming put the mass off, as a share: one standard uncertainty (from memory). */
const MASS_SHARE = 0.05;

/** Where strings lie across a width, evenly from the first to the last. */
const spread = (count: number, halfCm: number, share: number): number[] =>
  Array.from({ length: count }, (_, i) => (count === 1 ? 0 : share * halfCm * ((2 * i) / (count - 1) - 1)));

export interface StringLengths {
  /** String in mains and crosses, with weave and what runs along the hoop, cm. */
  mainsCm: number;
  crossesCm: number;
}

/** Chords of the bed: a main at each y, a cross at each x, with half its length. */
function chords({ bed }: Frame, { mains, crosses }: Pick<StringJob, 'mains' | 'crosses'>) {
  return {
    mains: spread(mains, bed.acrossCm, MAINS_SHARE).map((yCm) => {
      const { from, to } = lengthAt(bed, yCm);
      return { yCm, from, to, half: (to - from) / 2 };
    }),
    crosses: spread(crosses, bed.alongCm, CROSSES_SHARE).map((off) => {
      const xCm = bed.centreXCm + off;
      return { xCm, half: halfWidthAt(bed, xCm) };
    }),
  };
}

/** From the end of one string along the hoop to the end of the next, once a turn: at one end of each pair of neighbours. */
function turns(ends: readonly { at: number; half: number }[]): number {
  return ends.reduce((sum, { at, half }, i) => {
    const next = ends[i + 1];
    return next ? sum + Math.hypot(next.at - at, next.half - half) : sum;
  }, 0);
}

/**
 * String in a frame, cm: the chords of the bed where mains and crosses lie, longer by the weave (a string passes over and under the others, one gauge up and
 * down: √(s² + d²) from crossing to crossing), what goes through the hoop at both ends, the turns from each string to its neighbour along the hoop, and the knots.
 * @example stringLengths(frame, { mains: 16, crosses: 19, gaugeMm: 1.25 }) // about 10 m together on 100 in²
 */
export function stringLengths(
  frame: Frame,
  job: Pick<StringJob, 'mains' | 'crosses' | 'gaugeMm' | 'crossGaugeMm'>,
): StringLengths {
  const { mains, crosses } = chords(frame, job);
  const { gaugeMm, crossGaugeMm = gaugeMm } = job;
  // A string weaves as far as both gauges are thick, half of it each way.
  const weaveCm = (gaugeMm + crossGaugeMm) / 20;
  const woven = (half: number, crossed: number): number => {
    const spacing = (2 * half) / Math.max(1, crossed);
    return crossed * Math.hypot(spacing, weaveCm);
  };
  const sum = (all: readonly { half: number }[], crossed: number): number =>
    all.reduce((total, { half }) => total + woven(half, crossed), 0);
  const knots = (KNOTS / 2) * KNOT_CM;
  const through = 2 * frame.hoopCm;
  return {
    mainsCm:
      sum(mains, job.crosses) +
      turns(mains.map(({ yCm, half }) => ({ at: yCm, half }))) +
      job.mains * through +
      knots,
    crossesCm:
      sum(crosses, job.mains) +
      turns(crosses.map(({ xCm, half }) => ({ at: xCm, half }))) +
      job.crosses * through +
      knots,
  };
}

/** String in a frame all together, cm. @example stringLength(frame, { mains: 16, crosses: 19, gaugeMm: 1.25 }) // about 1000 */
export function stringLength(frame: Frame, job: Parameters<typeof stringLengths>[1]): number {
  const { mainsCm, crossesCm } = stringLengths(frame, job);
  return mainsCm + crossesCm;
}

const gramsPerCm = (gaugeMm: number, material: StringKind): number =>
  ((Math.PI * (gaugeMm / 10) ** 2) / 4) * STRING_DENSITY[material];

function masses(frame: Frame, job: StringJob): { mainsG: number; crossesG: number } {
  const { gaugeMm, material, crossGaugeMm = gaugeMm, crossMaterial = material } = job;
  const { mainsCm, crossesCm } = stringLengths(frame, job);
  return {
    mainsG: mainsCm * gramsPerCm(gaugeMm, material),
    crossesG: crossesCm * gramsPerCm(crossGaugeMm, crossMaterial),
  };
}

/**
 * Mass of strings from pattern, bed, gauge and material: length · π d²/4 · density, mains and crosses each with their own.
 * @throws Fault `not-positive`
 * @example stringMass(frame, { mains: 16, crosses: 19, gaugeMm: 1.25, material: 'polyester' }).massG // about 17
 */
export function stringMass(frame: Frame, job: StringJob): TypicalPart {
  const keys = ['mains', 'crosses', 'gaugeMm'] as const;
  const problems = keys
    .filter((key) => !(job[key] > 0))
    .map((path): Problem => ({ code: 'not-positive', path }));
  if (problems.length > 0) throw new Fault(...problems);
  const { mainsG, crossesG } = masses(frame, job);
  const massG = mainsG + crossesG;
  return { massG, massUncertaintyG: MASS_SHARE * massG };
}

/**
 * What strings add where each of them lies: uniform rods along the chords of the bed (handbook), so that the even sheet that stands for weighed strings can be checked.
 * @example stringSums(frame, job).massG // stringMass(frame, job).massG
 */
export function stringSums(frame: Frame, job: StringJob): MassSums {
  const { mains, crosses } = chords(frame, job);
  const { mainsG, crossesG } = masses(frame, job);
  const along = mains.reduce((sum, { half }) => sum + half, 0);
  const across = crosses.reduce((sum, { half }) => sum + half, 0);
  const rods = [
    ...mains.map(({ yCm, from, to, half }) =>
      segmentStrip((mainsG * half) / along, { xCm: from, yCm }, { xCm: to, yCm }),
    ),
    ...crosses.map(({ xCm, half }) =>
      segmentStrip((crossesG * half) / across, { xCm, yCm: -half }, { xCm, yCm: half }),
    ),
  ];
  return rods.reduce((sum, rod) => add(sum, rod), NOTHING);
}

/** A pattern to compare beds by: how much string they take hardly depends on it. */
const ANY_PATTERN = { mains: 16, crosses: 19, gaugeMm: 1.25 };
const taken = new WeakMap<Outline, number>();

/** How much more string a bed takes than that of the sport's usual frame. @example bedShare(settleFrame({ sport: 'tennis', lengthCm: 68.58 })) // 1 */
export function bedShare(frame: Frame): number {
  const length = (of: Frame): number => {
    let known = taken.get(of.bed);
    if (known === undefined) taken.set(of.bed, (known = stringLength(of, ANY_PATTERN)));
    return known;
  };
  const { sport, lengthCm } = frame.sport;
  return length(frame) / length(settleFrame({ sport, lengthCm }));
}

/** Mains and crosses of a pattern as it is written: «16×19». Undefined where it is none. @example patternOf('18x20') // { mains: 18, crosses: 20 } */
export function patternOf(text: string | undefined): { mains: number; crosses: number } | undefined {
  const found = /^\s*(\d{2})\s*[x×/]\s*(\d{2})\s*$/i.exec(text ?? '');
  return found ? { mains: Number(found[1]), crosses: Number(found[2]) } : undefined;
}
