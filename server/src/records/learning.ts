import {
  CHECK_STEP,
  learn,
  readBySame,
  readingAt,
  settleFrame,
  trimChain,
  weightsAfter,
  type FrameShape,
  type Stated,
  type TaughtBuild,
} from '@kevro/core';
import type { Learning, Measurement, PartRecord, PlanRecord, StepMark } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { findMeasurements, measurementsOfRounds } from './measurement';
import { changePart, partsOf } from './part';
import { plans } from './plan';
import { stepMarks } from './step-mark';

interface Roll {
  partId: string;
  begunAt: string | null;
  /** What the part was said to be before a correction was taken. */
  stated: Stated | null;
  applied: number | null;
  appliedAt: string | null;
  appliedBuilds: number | null;
}
const rolls = tableOf<Roll>('roll', {
  partId: 'part_id',
  begunAt: 'begun_at',
  stated: 'stated',
  applied: 'applied',
  appliedAt: 'applied_at',
  appliedBuilds: 'applied_builds',
});

interface BuiltPlan {
  planId: string;
  roundId: string;
  fittingId: string;
  tag: string;
  shape: FrameShape;
  playerName: string;
}

/** Every plan with a reading of its check. A trim teaches with the plan that it corrects. */
const checkedPlans = (db: Queries): Promise<BuiltPlan[]> =>
  db.query<BuiltPlan>(
    `select plan.id as "planId", round.id as "roundId", round.fitting_id as "fittingId", frame.tag, frame.shape,
       player.name as "playerName"
     from plan join round on round.id = plan.round_id join frame on frame.id = round.frame_id
       join fitting on fitting.id = round.fitting_id join player on player.id = fitting.player_id
     where plan.trims is null and exists (select 1 from step_mark m
       where m.plan_id = plan.id and m.step = $1 and m.measurement_id is not null)
     order by plan.id`,
    [CHECK_STEP],
  );

interface Taught {
  build: TaughtBuild;
  about: Learning['builds'][number];
}

async function taughtBuilds(db: Queries, begun: ReadonlyMap<string, string>): Promise<Taught[]> {
  const found = await checkedPlans(db);
  const ids = found.map(({ planId }) => planId);
  const [planned, marks] = await Promise.all([
    plans.find(db, 'where id = any($1)', [ids]),
    stepMarks.find(db, 'where plan_id = any($1) order by seq', [ids]),
  ]);
  const [starts, ofRounds] = await Promise.all([
    findMeasurements(
      db,
      planned.map(({ startId }) => startId),
    ),
    measurementsOfRounds(db, [...new Set(found.map(({ roundId }) => roundId))]),
  ]);
  const plan = new Map<string, PlanRecord>(planned.map((p) => [p.id, p]));
  const start = new Map<string, Measurement>(starts.map((m) => [m.id, m]));
  const inRound = new Map<string, Measurement[]>();
  for (const m of ofRounds) inRound.set(m.roundId ?? '', [...(inRound.get(m.roundId ?? '') ?? []), m]);
  const marksOf = new Map<string, StepMark[]>();
  for (const mark of marks) marksOf.set(mark.planId, [...(marksOf.get(mark.planId) ?? []), mark]);
  return found
    .flatMap(({ planId, roundId, shape, ...about }): Taught[] => {
      const own = plan.get(planId);
      const before = start.get(own?.startId ?? '');
      const round = { plans: own ? [own] : [], marks: marksOf.get(planId) ?? [] };
      const check = readingAt({ ...round, measurements: inRound.get(roundId) ?? [] }, planId, CHECK_STEP);
      if (!own || !check || !before) return [];
      const change = { ...own, placements: weightsAfter([], trimChain(round, own), round) };
      const finished = new Set([...begun].flatMap(([id, at]) => (check.takenAt < at ? [id] : [])));
      const { specs, parts, dress } = before;
      return [
        {
          build: {
            frame: settleFrame(shape),
            before: specs,
            readings: parts,
            dress,
            change,
            check: check.specs,
            checkReadings: check.parts,
            same: readBySame(before.how, check.how),
            finished,
          },
          about: {
            planId,
            ...about,
            checkedAt: check.takenAt,
            massG: { predicted: own.specs.massG, read: check.specs.massG },
            swingWeight: { predicted: own.specs.swingWeight, read: check.specs.swingWeight },
          },
        },
      ];
    })
    .toSorted((a, b) => (a.about.checkedAt < b.about.checkedAt ? 1 : -1));
}

const densityOf = (part: PartRecord | undefined): number | undefined =>
  part && 'gPerCm' in part ? part.gPerCm : undefined;

/** What the shop's builds have taught so far, worked out from all of them. */
export async function findLearning(db: Queries): Promise<Learning> {
  const kept = await rolls.find(db, 'order by part_id');
  const rollOf = new Map(kept.map((roll) => [roll.partId, roll]));
  const begun = new Map(kept.flatMap(({ partId, begunAt }) => (begunAt ? [[partId, begunAt]] : [])));
  const stated = new Map(kept.flatMap(({ partId, stated: said }) => (said ? [[partId, said]] : [])));
  const taught = await taughtBuilds(db, begun);
  const learned = learn(
    taught.map(({ build }) => build),
    stated,
  );
  const parts = await partsOf(
    db,
    learned.rolls.map(({ partId }) => partId),
  );
  return {
    rolls: learned.rolls.flatMap((roll) => {
      const part = parts.find(({ id }) => id === roll.partId);
      const gPerCm = densityOf(part);
      if (!part || gPerCm === undefined) return [];
      const own = rollOf.get(roll.partId);
      const { applied, appliedAt, appliedBuilds } = own ?? {};
      return [
        {
          ...roll,
          name: part.name,
          gPerCm,
          statedGPerCm: own?.stated?.gPerCm ?? gPerCm,
          begunAt: own?.begunAt ?? null,
          applied:
            typeof applied === 'number' && appliedAt
              ? { share: applied, at: appliedAt, builds: appliedBuilds ?? 0 }
              : null,
        },
      ];
    }),
    habit: learned.habit,
    builds: taught.map(({ about }) => about),
  };
}

/** A part with another density, and how sure that is. */
const withDensity = (part: PartRecord, { gPerCm, massShare }: Stated): PartRecord => {
  const { massShare: _, ...rest } = part as PartRecord & { massShare?: number };
  return { ...rest, gPerCm, ...(massShare === undefined ? {} : { massShare }) } as PartRecord;
};

/** Puts a part back to what it was said to be. */
async function restore(db: Queries, part: PartRecord, roll: Roll | undefined): Promise<void> {
  if (roll?.stated) await changePart(db, withDensity(part, roll.stated));
}

/**
 * Takes what was learned of a roll into its part, takes it back, or begins another roll, which is as it is said to be.
 * @returns whether there is such a roll, and something of it to take
 */
export async function actOnRoll(
  tx: Queries,
  partId: string,
  act: 'apply' | 'undo' | 'new-roll',
  now: string,
): Promise<boolean> {
  const [part] = await partsOf(tx, [partId]);
  const gPerCm = densityOf(part);
  if (!part || gPerCm === undefined) return false;
  const [before] = await rolls.find(tx, 'where part_id = $1', [partId]);
  const none = { stated: null, applied: null, appliedAt: null, appliedBuilds: null };
  const set = async (row: Omit<Roll, 'partId'>): Promise<void> => {
    if (before) await rolls.change(tx, row, 'part_id = $1', partId);
    else await rolls.insert(tx, { partId, ...row });
  };
  if (act === 'undo' || act === 'new-roll') {
    await restore(tx, part, before);
    await set({ ...none, begunAt: act === 'new-roll' ? now : (before?.begunAt ?? null) });
    return true;
  }
  const learned = (await findLearning(tx)).rolls.find((roll) => roll.partId === partId);
  if (!learned) return false;
  const massShare = 'massShare' in part ? part.massShare : undefined;
  const stated = before?.stated ?? { gPerCm, ...(massShare === undefined ? {} : { massShare }) };
  const density = Number((stated.gPerCm * (1 + learned.share)).toFixed(5));
  await changePart(tx, withDensity(part, { gPerCm: density, massShare: learned.uncertainty }));
  await set({
    begunAt: before?.begunAt ?? null,
    stated,
    applied: learned.share,
    appliedAt: now,
    appliedBuilds: learned.builds,
  });
  return true;
}
