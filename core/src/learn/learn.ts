import { directionOnLine, type Frame } from '../frame';
import { NOTHING, add, swingAbout, type AxisSpecs, type MassSums, type SpecKey } from '../mass';
import { usualDrift, type SpecParted } from '../measure';
import {
  DENSITY_SHARE,
  middleOf,
  partNamed,
  partRule,
  placementSums,
  type Part,
  type Placement,
} from '../part';
import { changeOutcome, errorSources, type Change } from '../plan';
import type { Dress } from '../sport';
import { updated, type Observed } from './normal-update';

/** A build that was checked: what it started from, what was put on, what was read. */
export interface TaughtBuild {
  frame: Frame;
  before: AxisSpecs;
  /** Standard uncertainties of the measurement before, in their parts. */
  readings: SpecParted;
  dress: Dress;
  /** As built. */
  change: Change;
  check: AxisSpecs;
  checkReadings: SpecParted;
  /** Whether both were read with the same instrument and calibration: what they share says nothing of the roll then. */
  same: Record<SpecKey, boolean>;
  /** Parts of which another roll was begun since: this build says nothing of the new one. */
  finished?: ReadonlySet<string>;
}

/** What a roll is said to be, before anything was learned of it. */
export interface Stated {
  gPerCm: number;
  massShare?: number | undefined;
}

/** How far a roll's grams per cm lie from what they are said to be, as a share, with its standard uncertainty. */
export interface RollLearned {
  partId: string;
  share: number;
  uncertainty: number;
  /** In how many checked builds it was used, and how many grams of it. */
  builds: number;
  massG: number;
}
/** How much further along its line a piece ends up than it was measured, cm: from the tip on the hoop, from the butt in the handle. */
export interface HabitLearned {
  alongCm: number;
  uncertainty: number;
  builds: number;
}
export interface Learned {
  rolls: RollLearned[];
  habit: HabitLearned;
}

/** What a shop's habit is before anything is known: pieces end up right, give or take so much, cm (from memory). */
export const HABIT_PRIOR_CM = 0.2;
const FINISHED = '(finished)';
const OBSERVED = ['massG', 'swingWeight'] as const;

/** A roll whose stated density builds can teach: its pieces share one error. */
const isRoll = (part: Part | undefined): part is Part & { gPerCm: number } =>
  part !== undefined && partRule(part).shared && 'gPerCm' in part;

/**
 * Variance of the difference that the readings before and after show of a spec: both scatter; what an instrument shares cancels where it read both, but for its drift.
 */
function readNoise({ readings, checkReadings, same }: TaughtBuild, key: SpecKey): number {
  const [start, check] = [readings[key], checkReadings[key]];
  const scatter = start.random ** 2 + check.random ** 2;
  if (same[key]) return scatter + usualDrift(checkReadings)[key] ** 2;
  return scatter + start.common ** 2 + check.common ** 2;
}

/** What a cm further along its line does to the sums of a placement. */
function slide(frame: Frame, placement: Placement, part: Part | undefined): MassSums {
  if (placement.path === 'slot') return NOTHING;
  const { line, alongCm, yCm } = middleOf(frame, placement);
  const along = directionOnLine(frame, line, alongCm);
  const sums = placementSums(frame, placement, part);
  return {
    massG: 0,
    firstGCm: sums.massG * along.xCm,
    secondGCm2: 2 * sums.firstGCm * along.xCm,
    twistGCm2: 2 * sums.massG * yCm * along.yCm,
  };
}

/**
 * What checked builds teach of a shop: the true grams per cm of each roll, and how far along pieces end up, by a Bayesian update (see {@link updated}). Before
 * any build a roll is as heavy as it says, give or take its own share (4 % where it says none); placing is right, give or take 2 mm. Weight and swing weight are
 * observed, each build with the noise of both measurements, of placing and of cutting.
 * @param stated the grams per cm that each roll is said to have: what it was planned with may be corrected already
 * @param builds in any order
 * @returns rolls that were used, most grams first @example learn(builds, new Map()).rolls[0] // { share: 0.031, uncertainty: 0.006, … }
 */
export function learn(builds: readonly TaughtBuild[], stated: ReadonlyMap<string, Stated>): Learned {
  /** Which roll of a part a build was made of: a finished one has an error of its own. */
  const rollOf = (part: Part, { finished }: TaughtBuild): string =>
    finished?.has(part.id) ? `${part.id} ${FINISHED}` : part.id;
  const parts = new Map<string, Part>();
  for (const build of builds)
    for (const p of build.change.placements) {
      const part = partNamed(build.change.parts, p.partId);
      if (isRoll(part)) parts.set(rollOf(part, build), part);
    }
  const ids = [...parts.keys()];
  const used = new Map<string, { builds: number; massG: number }>();
  const observed = builds.map((build): Observed => {
    const { frame, before, dress, change, check } = build;
    const { specs } = changeOutcome(frame, before, dress, change);
    const { axisCm } = specs;
    const of = (sums: MassSums): Record<(typeof OBSERVED)[number], number> => ({
      massG: sums.massG,
      swingWeight: swingAbout(sums, axisCm),
    });
    const columns = ids.map((): MassSums => NOTHING);
    let habit = NOTHING;
    let shift = NOTHING;
    for (const p of change.placements) {
      const part = partNamed(change.parts, p.partId);
      habit = add(habit, slide(frame, p, part));
      if (!isRoll(part)) continue;
      // By the density that the roll is said to have; what it was planned with may differ.
      const ratio = (stated.get(part.id)?.gPerCm ?? part.gPerCm) / part.gPerCm;
      const sums = placementSums(frame, p, part);
      const roll = rollOf(part, build);
      const k = ids.indexOf(roll);
      columns[k] = add(columns[k] ?? NOTHING, sums, ratio);
      shift = add(shift, sums, ratio - 1);
      const u = used.get(roll) ?? { builds: 0, massG: 0 };
      used.set(roll, { builds: u.builds, massG: u.massG + p.massG });
    }
    columns.forEach((sums, k) => {
      const id = ids[k] ?? '';
      const u = used.get(id);
      if (u && sums.massG > 0) u.builds++;
    });
    // The rest of the build's errors is its own.
    const own = errorSources(frame, dress, change).filter(({ what }) => what !== 'density');
    const noise = OBSERVED.map((a) =>
      OBSERVED.map(
        (b) =>
          own.reduce((sum, { sums }) => sum + of(sums)[a] * of(sums)[b], 0) +
          (a === b ? readNoise(build, a) : 0),
      ),
    );
    return {
      values: OBSERVED.map((key) => check[key] - specs[key] - of(shift)[key]),
      design: OBSERVED.map((key) => [...columns.map((sums) => of(sums)[key]), of(habit)[key]]),
      noise,
    };
  });
  const priors = ids.map((id) => {
    const part = parts.get(id);
    const own = part && 'massShare' in part ? part.massShare : undefined;
    return stated.get(part?.id ?? '')?.massShare ?? own ?? DENSITY_SHARE;
  });
  const { mean, covariance } = updated([...priors, HABIT_PRIOR_CM], observed);
  const rolls = ids.map((partId, k): RollLearned => ({
    partId,
    share: mean[k] ?? 0,
    uncertainty: Math.sqrt(covariance[k]?.[k] ?? 0),
    ...(used.get(partId) ?? { builds: 0, massG: 0 }),
  }));
  const last = ids.length;
  return {
    rolls: rolls.filter(({ partId }) => !partId.endsWith(FINISHED)).toSorted((a, b) => b.massG - a.massG),
    habit: {
      alongCm: mean[last] ?? 0,
      uncertainty: Math.sqrt(covariance[last]?.[last] ?? 0),
      builds: builds.length,
    },
  };
}
