import { targetOf, type Aim } from '../aim';
import type { AxisSpecs } from '../mass';
import { normalBelow } from '../measure';
import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import type { SpecError } from './errors';
import {
  MOST_READINGS,
  everySpec,
  readingErrors,
  withTaken,
  type Instruments,
  type ReadingError,
  type Readings,
} from './instruments';

/** A frame before a build, as planned after it, and the errors of the build: what a check of it goes by. */
export interface ToCheck {
  aim: Aim;
  before: AxisSpecs;
  after: AxisSpecs;
  build: readonly SpecError[];
  instruments: Instruments;
}

/** How often a build passes its check, where the shop says nothing else. */
export const WANTED_CHANCE = 0.9;
/** Where the chance that is wanted cannot be reached, a reading more that raises it by less than this is not worth taking. */
const WORTH = 0.005;
/** Tolerances for so many standard uncertainties, and a quarter more since four specs have to pass together. */
const JUDGED_BY = 1.25 * 2;

/** The specs that a check has to find inside. */
const aimedAt = (aim: Aim): SpecKey[] => SPEC_KEYS.filter((key) => targetOf(aim, key) !== undefined);

/** Variances of what a check reads, spec by spec: what stays, and what so many readings lessen. */
export class CheckVariance {
  private readonly fixed: Record<SpecKey, number>;
  private readonly read: readonly ReadingError[];

  constructor({ before, after, build, instruments }: Omit<ToCheck, 'aim'>) {
    this.fixed = { massG: 0, balanceCm: 0, swingWeight: 0, twistWeight: 0 };
    const all = readingErrors(before, after, instruments);
    for (const { of } of [...build, ...all.filter(({ lessenedBy }) => !lessenedBy)])
      for (const key of SPEC_KEYS) this.fixed[key] += of[key] ** 2;
    this.read = all.filter(({ lessenedBy }) => lessenedBy);
  }

  /** Standard uncertainty of what the check reads of a spec. */
  of(spec: SpecKey, readings: Readings): number {
    let variance = this.fixed[spec];
    for (const { key, lessenedBy, of } of this.read)
      if (lessenedBy) variance += of[spec] ** 2 / readings[key][lessenedBy];
    return Math.sqrt(variance);
  }
}

/** The chance that one spec is read inside its tolerance, off by so much and so uncertain. */
export function passesAlone(tolerance: number, off: number, u: number): number {
  if (u === 0) return Math.abs(off) <= tolerance ? 1 : 0;
  return normalBelow((tolerance - off) / u) - normalBelow((-tolerance - off) / u);
}

/** The product of the chances of each spec by itself: near the chance of all together, and quick. @example chanceByParts(build, everySpec(2)) // 0.9 */
export const chanceByParts = (
  build: ToCheck,
  readings: Readings,
  variance = new CheckVariance(build),
): number =>
  aimedAt(build.aim).reduce((product, key) => {
    const { value, tolerance } = build.aim[key] as { value: number; tolerance: number };
    const off = (build.after[key] ?? Number.NaN) - value;
    return product * passesAlone(tolerance, off, variance.of(key, readings));
  }, 1);

export interface Enough {
  readings: Readings;
  /** Whether the plan passes as often as wanted with them, by the product of its specs. */
  reached: boolean;
}

/**
 * The least readings with which a build passes as often as wanted: from one of each, always the reading more that raises the product of what passes most. Where
 * it cannot be reached, only those that still raise it.
 * @param wanted 0 to 1 @param most readings of one spec at the start or at the check
 * @example enoughReadings({ aim, before, after, build, instruments }, 0.9).readings.twistWeight // { start: 2, check: 2 }
 */
export function enoughReadings(build: ToCheck, wanted = WANTED_CHANCE, most = MOST_READINGS): Enough {
  const { instruments } = build;
  const variance = new CheckVariance(build);
  const passes = (readings: Readings): number => chanceByParts(build, readings, variance);
  // What no readings reach is worth only readings that still raise it.
  const worth = passes(withTaken(instruments, everySpec(most))) >= wanted ? 0 : WORTH;
  let readings = withTaken(instruments, everySpec(1));
  let now = passes(readings);
  while (now < wanted) {
    let best: { readings: Readings; chance: number } | undefined;
    for (const key of SPEC_KEYS)
      for (const when of ['check', 'start'] as const) {
        const times = readings[key][when];
        if (times >= most || (when === 'start' && instruments.taken)) continue;
        const more = { ...readings, [key]: { ...readings[key], [when]: times + 1 } };
        const chance = passes(more);
        if (!best || chance > best.chance + 1e-9) best = { readings: more, chance };
      }
    if (!best || !(best.chance - now > worth)) break;
    ({ readings, chance: now } = best);
  }
  return { readings: withFaceOn(instruments, readings), reached: now >= wanted };
}

/** Edge-on less face-on takes as many of the one as of the other. */
function withFaceOn({ edgeOn, taken }: Instruments, readings: Readings): Readings {
  if (!edgeOn) return readings;
  const { swingWeight: face, twistWeight: edge } = readings;
  const start = taken ? face.start : Math.max(face.start, edge.start);
  return { ...readings, swingWeight: { start, check: Math.max(face.check, edge.check) } };
}

/**
 * The least tolerance of each spec that can be judged with so many readings: 1.25 · 2 standard uncertainties of what the check reads, so that four specs pass
 * together nine times in ten.
 * @example judgeable({ before, after, build, instruments }).swingWeight // 1.1 with five readings at start and check
 */
export function judgeable(
  build: Omit<ToCheck, 'aim'>,
  readings: Readings = everySpec(MOST_READINGS),
): Record<SpecKey, number> {
  const variance = new CheckVariance(build);
  const taken = withTaken(build.instruments, readings);
  return Object.fromEntries(SPEC_KEYS.map((key) => [key, JUDGED_BY * variance.of(key, taken)])) as Record<
    SpecKey,
    number
  >;
}

/** What an aim is, taken as reached: the specs after a plan that comes out as asked. */
export function asAimed(before: AxisSpecs, aim: Aim): AxisSpecs {
  const asked = Object.fromEntries(aimedAt(aim).map((key) => [key, aim[key]?.value])) as KnownSpecs;
  return { ...before, ...asked };
}
