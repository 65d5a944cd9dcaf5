import type { Router } from 'express';
import {
  Fault,
  aimProblems,
  guardsOf,
  placementProblems,
  settleFrame,
  trimChain,
  unansweredGuards,
  weightsAfter,
  type Frame,
} from '@kevro/core';
import {
  guardSentence,
  growingIn,
  guardedPlayer,
  sentence,
  type AimRecord,
  type FittingView,
  type FrameRecord,
  type Measurement,
  type PartRecord,
  type PlanRecord,
  type ReadBodyOf,
  type RoundView,
} from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { planRow } from '../fitting/plan-row';
import { storeSignOff } from '../fitting/sign-off';
import { aims } from '../records/aim';
import {
  beginRound,
  changeFitting,
  findFitting,
  fittings,
  openFitting,
  openFittingsOf,
  removeFitting,
  rounds,
  setBeside,
  setReferences,
} from '../records/fitting';
import { framesOf } from '../records/frame';
import { newId } from '../records/id';
import { findMeasurements } from '../records/measurement';
import { partsOf } from '../records/part';
import { plans } from '../records/plan';
import { findPlayer } from '../records/player';
import { addSession, countSession } from '../records/session';
import { knownSetups } from '../records/setup';
import { theShop } from '../records/shop';
import { stepMarks } from '../records/step-mark';
import { listFittings } from '../records/today';
import { answer } from './route';

async function requireSetups(
  db: Queries,
  ids: readonly string[],
  pathOf: (i: number) => string,
): Promise<void> {
  const known = await knownSetups(db, ids);
  const missing = ids.flatMap((id, i) => (known.has(id) ? [] : [notFoundAt(pathOf(i))]));
  if (missing.length > 0) throw badInput(missing);
}

/** A round of an open fitting, with its frame: what is worked on. */
interface Bench {
  fitting: FittingView;
  round: RoundView;
  frame: FrameRecord;
  settled: Frame;
  start: Measurement | undefined;
  aim: AimRecord | undefined;
}

function benchOf(fitting: FittingView, found: (round: RoundView) => boolean, path: string): Bench {
  if (fitting.closed) throw new ApiProblem('fitting-closed');
  for (const { frame, rounds: list } of fitting.frames) {
    const round = list.find(found);
    if (!round) continue;
    return {
      fitting,
      round,
      frame,
      settled: settleFrame(frame.shape),
      start: round.measurements.find(({ id }) => id === round.startId),
      aim: round.aims.find(({ id }) => id === round.state.aimId),
    };
  }
  throw badInput([notFoundAt(path)]);
}

/** The parts that a plan is made of, as they are now: it keeps them so. */
async function partsOfPlan(
  db: Queries,
  frame: FrameRecord,
  there: ReadonlySet<string>,
  body: ReadBodyOf<'choosePlan'>,
): Promise<PartRecord[]> {
  const ids = [...body.placements, ...body.removals.map(({ of }) => of)].map(({ partId }) => partId);
  const parts = await partsOf(db, [...new Set(ids)]);
  const problems = [
    ...placementProblems(settleFrame(frame.shape), body.placements, parts),
    ...body.removals.flatMap(({ of }, i) =>
      there.has(of.id) ? [] : [{ code: 'not-found' as const, path: `removals.${i}.of` }],
    ),
  ];
  const faults = problems.filter((p) => p.code !== 'not-found');
  if (faults.length > 0) throw new Fault(...(faults as ConstructorParameters<typeof Fault>));
  const missing = problems.filter((p) => p.code === 'not-found');
  if (missing.length > 0) throw badInput(missing.map(({ path }) => notFoundAt(path)));
  return parts;
}

export function fittingRoutes(router: Router, db: Db, now: Clock): void {
  async function fittingOrNone(id: string | undefined, on: Queries = db): Promise<FittingView> {
    const fitting = await findFitting(on, id ?? '', now());
    if (!fitting) throw new ApiProblem('not-found');
    return fitting;
  }
  const benchOfRound = async (id: string | undefined, roundId: string): Promise<Bench> =>
    benchOf(await fittingOrNone(id), (round) => round.id === roundId, 'roundId');
  const benchOfPlan = async (
    id: string | undefined,
    planId: string,
  ): Promise<Bench & { plan: PlanRecord }> => {
    const bench = benchOf(
      await fittingOrNone(id),
      (round) => round.plans.some((plan) => plan.id === planId),
      'planId',
    );
    return { ...bench, plan: bench.round.plans.find((plan) => plan.id === planId) as PlanRecord };
  };

  answer(router, 'today', ({ query }) => listFittings(db, query, now()));
  answer(router, 'fitting', ({ params }) => fittingOrNone(params.id));

  /** The frames of a request, each once. @throws ApiProblem where a frame or the player is not known */
  async function requirePair(
    body: Pick<ReadBodyOf<'openFitting'>, 'playerId' | 'frameIds'>,
  ): Promise<string[]> {
    const frameIds = [...new Set(body.frameIds)];
    const known = new Set((await framesOf(db, frameIds)).map(({ id }) => id));
    const missing = frameIds.flatMap((id, i) => (known.has(id) ? [] : [notFoundAt(`frameIds.${i}`)]));
    if (!(await findPlayer(db, body.playerId))) missing.unshift(notFoundAt('playerId'));
    if (missing.length > 0) throw badInput(missing);
    return frameIds;
  }
  /** Whether anything was stored in a round of it. */
  const hasWork = ({ rounds: list }: FittingView['frames'][number]): boolean =>
    list.some(
      (round) =>
        round.number > 1 ||
        round.aims.length + round.plans.length + round.sessions.length > 0 ||
        round.measurements.some(({ roundId }) => roundId === round.id),
    );

  answer(router, 'openFitting', async ({ body }) => {
    const frameIds = await requirePair(body);
    const [open] = body.evenIfOpen ? [] : await openFittingsOf(db, body.playerId, frameIds);
    if (open) {
      throw new ApiProblem(
        'fitting-exists',
        [],
        { player: open.player, frame: open.frame },
        undefined,
        open.id,
      );
    }
    const id = newId();
    await db.transaction((tx) => openFitting(tx, { playerId: body.playerId, frameIds }, now(), id));
    return fittingOrNone(id);
  });

  answer(router, 'editFitting', async ({ params, body }) => {
    const fitting = await fittingOrNone(params.id);
    if (fitting.closed) throw new ApiProblem('fitting-closed');
    const frameIds = await requirePair(body);
    const stays = fitting.frames.find((entry) => !frameIds.includes(entry.frame.id) && hasWork(entry));
    if (stays) {
      const values = { frame: stays.frame.tag };
      const message = sentence('frame-has-work', values);
      throw new ApiProblem('frame-has-work', [{ path: 'frameIds', code: 'frame-has-work', message }], values);
    }
    await db.transaction((tx) => changeFitting(tx, fitting, { ...body, frameIds }, now()));
    return fittingOrNone(fitting.id);
  });

  answer(router, 'removeFitting', async ({ params }) => {
    const fitting = await fittingOrNone(params.id);
    if (fitting.frames.some(hasWork)) throw new ApiProblem('fitting-not-empty');
    await db.transaction((tx) => removeFitting(tx, fitting.id));
    return { removed: true as const };
  });

  answer(router, 'closeFitting', async ({ params, body }) => {
    const { id, closed } = await fittingOrNone(params.id);
    if (closed) throw new ApiProblem('fitting-closed');
    const row = { closedAt: now(), closedHow: body.how, closedNote: body.note };
    await fittings.change(db, row, 'id = $1', id);
    return fittingOrNone(id);
  });

  answer(router, 'reopenFitting', async ({ params }) => {
    const { id, closed, frames } = await fittingOrNone(params.id);
    if (!closed) throw new ApiProblem('fitting-open');
    await db.transaction(async (tx) => {
      await fittings.change(tx, { closedAt: null, closedHow: null, closedNote: '' }, 'id = $1', id);
      for (const { frame } of frames) {
        const note = `closed on ${closed.at.slice(0, 10)}: ${closed.how}${closed.note ? `, ${closed.note}` : ''}`;
        await beginRound(tx, { fittingId: id, frameId: frame.id, why: 'reopened', note, begunAt: now() });
      }
    });
    return fittingOrNone(id);
  });

  answer(router, 'beginRound', async ({ params, body }) => {
    const { fitting } = benchOf(
      await fittingOrNone(params.id),
      ({ frameId }) => frameId === body.frameId,
      'frameId',
    );
    await db.transaction((tx) => beginRound(tx, { ...body, fittingId: fitting.id, begunAt: now() }));
    return fittingOrNone(fitting.id);
  });

  answer(router, 'startRound', async ({ params, body }) => {
    const { fitting, round } = await benchOfRound(params.id, body.roundId);
    const [measurement] = await findMeasurements(db, [body.measurementId]);
    if (measurement?.frameId !== round.frameId || !measurement.counts)
      throw badInput([notFoundAt('measurementId')]);
    await rounds.change(db, { startId: measurement.id }, 'id = $1', round.id);
    return fittingOrNone(fitting.id);
  });

  answer(router, 'setReferences', async ({ params, body }) => {
    const { id } = await fittingOrNone(params.id);
    const setupIds = [...new Set(body)];
    await requireSetups(db, setupIds, (i) => `${i}`);
    await db.transaction((tx) => setReferences(tx, id, setupIds));
    return fittingOrNone(id);
  });

  answer(router, 'setBeside', async ({ params, body }) => {
    const { id } = await fittingOrNone(params.id);
    const asked = body.flatMap((one) => (one.kind === 'measured' ? [one.measurementId] : []));
    const known = new Set((await findMeasurements(db, asked)).map((m) => m.id));
    const missing = body.flatMap((one, i) =>
      one.kind === 'measured' && !known.has(one.measurementId) ? [notFoundAt(`${i}.measurementId`)] : [],
    );
    if (missing.length > 0) throw badInput(missing);
    await db.transaction((tx) => setBeside(tx, id, body));
    return fittingOrNone(id);
  });

  answer(router, 'setAim', async ({ params, body }) => {
    const { fitting, frame, settled, start } = await benchOfRound(params.id, body.roundId);
    if (!start) throw new ApiProblem('nothing-measured');
    const problems = aimProblems(body.target, settled.lengthCm, start.specs);
    if (problems.length > 0) throw new Fault(...problems);
    if (body.setupId !== null) await requireSetups(db, [body.setupId], () => 'setupId');
    const { shape } = frame;
    const guards = guardsOf({
      shape,
      specs: start.specs,
      dress: start.dress,
      target: body.target,
      player: guardedPlayer(fitting.player, shape.sport, Number(now().slice(0, 4))),
      own: (await theShop(db)).sports[shape.sport],
    });
    const notes = Object.fromEntries(body.guards.map(({ code, note }) => [code, note]));
    const unanswered = unansweredGuards(guards, notes);
    if (unanswered.length > 0) {
      const message = unanswered.map((guard) => guardSentence(guard, fitting.player.name)).join(' ');
      throw new ApiProblem('guard-unanswered', [{ path: 'guards', code: 'guard-unanswered', message }]);
    }
    return (await aims.insert(db, { id: newId(), createdAt: now(), ...body })) as AimRecord;
  });

  answer(router, 'choosePlan', async ({ params, body }) => {
    const { fitting, start, aim, round, frame } = await benchOfRound(params.id, body.roundId);
    if (!start) throw new ApiProblem('nothing-measured');
    if (!aim) throw new ApiProblem('nothing-aimed');
    if (body.aimId !== aim.id) throw badInput([notFoundAt('aimId')]);
    // A trim starts from a check of this round; everything else from the round's start.
    const from = round.measurements.find(
      ({ id, purpose, counts }) =>
        id === body.startId && (id === start.id || (purpose === 'check' && counts)),
    );
    if (!from) throw badInput([notFoundAt('startId')]);
    const base = body.trims === null ? undefined : round.plans.find(({ id }) => id === body.trims);
    if (body.trims !== null && (!base || from.purpose !== 'check')) throw badInput([notFoundAt('trims')]);
    const there = weightsAfter(frame.weights, base ? trimChain(round, base) : [], round).map(({ id }) => id);
    const parts = await partsOfPlan(db, frame, new Set(there), body);
    const row = planRow({
      frame,
      from,
      aim,
      change: { ...body, parts },
      school: body.school,
      byHand: body.byHand,
      trims: body.trims,
      bench: { trim: base !== undefined, child: growingIn(Number(now().slice(0, 4)), fitting.player) },
      now: now(),
    });
    return (await plans.insert(db, row)) as PlanRecord;
  });

  answer(router, 'markStep', async ({ params, body }) => {
    const { fitting, plan, round, settled } = await benchOfPlan(params.id, body.planId);
    if (plan.id !== round.state.planId) throw new ApiProblem('nothing-planned');
    if (!plan.steps.some(({ key }) => key === body.step)) throw badInput([notFoundAt('step')]);
    if (body.asBuilt) {
      const parts = await partsOf(
        db,
        body.asBuilt.map(({ partId }) => partId),
      );
      const problems = placementProblems(settled, body.asBuilt, parts, 'asBuilt');
      if (problems.length > 0) throw new Fault(...problems);
    }
    const measured = round.measurements.some(({ id }) => id === body.measurementId);
    if (body.measurementId !== null && !measured) throw badInput([notFoundAt('measurementId')]);
    await stepMarks.insert(db, { ...body, at: now() });
    return fittingOrNone(fitting.id);
  });

  answer(router, 'signOff', async ({ params, body }) => {
    const { plan, round, aim, frame } = await benchOfPlan(params.id, body.planId);
    if (plan.id !== round.state.planId || !aim) throw new ApiProblem('nothing-planned');
    const check = round.measurements.find(
      ({ id, purpose, counts }) => id === body.measurementId && purpose === 'check' && counts,
    );
    if (!check) throw badInput([notFoundAt('measurementId')]);
    return db.transaction((tx) => storeSignOff(tx, { frame, round, plan, aim, check }, body, now()));
  });

  answer(router, 'countSession', async ({ params, body }) => {
    const session = await countSession(db, params.id ?? '', body);
    if (!session) throw new ApiProblem('not-found');
    return session;
  });
  answer(router, 'addSession', async ({ params, body: { key, ...body } }) => {
    const { round } = await benchOfRound(params.id, body.roundId);
    const session = await addSession(db, { id: newId(), at: now(), ...body, roundId: round.id }, key);
    if (!session) throw new ApiProblem('key-used');
    return session;
  });
}
