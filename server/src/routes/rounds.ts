import type { Router } from 'express';
import {
  Fault,
  aimProblems,
  asFinished,
  checkOf,
  guardsOf,
  hasTarget,
  placementProblems,
  settleFrame,
  trimChain,
  unansweredGuards,
  weightsAfter,
  renewedSince,
} from '@kevro/core';
import {
  guardSentence,
  growingIn,
  guardedPlayer,
  type ActBodyOf,
  type ActName,
  type AimRecord,
  type FittingView,
  type FrameRecord,
  type PartRecord,
  type PlanRecord,
} from '@kevro/contract';
import type { Acts, ActInput } from '../act';
import type { Clock } from '../clock';
import type { Queries } from '../db/db';
import { benchOf, benchOfPlan, requireFitting, type Bench } from '../fitting/bench';
import { planRow, settleMinutesOf } from '../fitting/plan-row';
import { storeSignOff } from '../fitting/sign-off';
import type { Hub } from '../instruments/hub';
import { ApiProblem, badInput, notFoundAt, wrongAt } from '../problem';
import { aims } from '../records/aim';
import { beginRound, rounds } from '../records/fitting';
import { newId } from '../records/id';
import { instrumentsNow } from '../records/instrument';
import { findMeasurements } from '../records/measurement';
import { partsOf } from '../records/part';
import { plans } from '../records/plan';
import { addSession, countSession, sessionOrNone } from '../records/session';
import { momentOf, theShop, yearOf } from '../records/shop';
import { signOffs } from '../records/sign-off';
import { stepMarks } from '../records/step-mark';
import { requireSetups } from './fittings';

/** The parts that a plan is made of, as they are now: it keeps them so. */
async function partsOfPlan(
  db: Queries,
  frame: FrameRecord,
  there: ReadonlySet<string>,
  body: ActBodyOf<'choosePlan'>,
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

/** What is done in a round: its start, aim, plan, bench steps, sign-off and sessions. */
export function roundRoutes(router: Router, acts: Acts, now: Clock, hub: Hub): void {
  const theFitting = (q: Queries, _made: string, { id }: { id: string }): Promise<FittingView> =>
    requireFitting(q, id, now());
  const benchOfRound = async <N extends ActName>(
    { tx, id, now: at }: ActInput<N>,
    roundId: string,
  ): Promise<Bench> => benchOf(await requireFitting(tx, id, at), (round) => round.id === roundId, 'roundId');

  acts.begin(
    router,
    'beginRound',
    async ({ tx, id, body, now: at }) => {
      const fitting = await requireFitting(tx, id, at);
      benchOf(fitting, ({ frameId }) => frameId === body.frameId, 'frameId');
      return (await beginRound(tx, { ...body, fittingId: id, begunAt: at })).id;
    },
    theFitting,
  );

  acts.on(router, 'startRound', async (input) => {
    const { tx, id, body, now: at } = input;
    const { round } = await benchOfRound(input, body.roundId);
    const [measurement] = await findMeasurements(tx, [body.measurementId]);
    if (measurement?.frameId !== round.frameId || !measurement.counts)
      throw badInput([notFoundAt('measurementId')]);
    await rounds.change(tx, { startId: measurement.id }, 'id = $1', round.id);
    return requireFitting(tx, id, at);
  });

  async function setAim(input: ActInput<'setAim'>): Promise<string> {
    const { tx, body, now: at } = input;
    const { fitting, frame, settled, start, aim: now } = await benchOfRound(input, body.roundId);
    if (!start) throw new ApiProblem('nothing-measured');
    const { after, ...said } = body;
    if (after !== undefined && after !== (now?.id ?? null)) throw new ApiProblem('aim-outdated');
    if (!hasTarget(body.target)) throw new Fault({ code: 'empty-aim', path: 'target' });
    if (body.finish && start.dress.strings && !body.finish.strings)
      throw new Fault({ code: 'strings-stay', path: 'finish' });
    const own = asFinished(settled, start.specs, start.dress, body.finish);
    const problems = aimProblems(body.target, settled.lengthCm, own.specs, settled.sport);
    if (problems.length > 0) throw new Fault(...problems);
    if (body.setupId !== null) await requireSetups(tx, [body.setupId], () => 'setupId');
    const { shape } = frame;
    const guards = guardsOf({
      shape,
      ...own,
      target: body.target,
      player: guardedPlayer(fitting.player, shape.sport, yearOf(await momentOf(tx, at))),
      own: (await theShop(tx)).sports[shape.sport],
    });
    const notes = Object.fromEntries(body.guards.map(({ code, note }) => [code, note]));
    const unanswered = unansweredGuards(guards, notes);
    if (unanswered.length > 0) {
      const message = unanswered.map((guard) => guardSentence(guard, fitting.player.name)).join(' ');
      throw new ApiProblem('guard-unanswered', [{ path: 'guards', code: 'guard-unanswered', message }]);
    }
    const id = newId();
    await aims.insert(tx, { id, createdAt: at, ...said });
    return id;
  }
  acts.begin(
    router,
    'setAim',
    setAim,
    async (q, made) => (await aims.find(q, 'where id = $1', [made]))[0] as AimRecord,
  );

  async function choosePlan(input: ActInput<'choosePlan'>): Promise<string> {
    const { tx, body, now: at } = input;
    const { fitting, start, aim, round, frame } = await benchOfRound(input, body.roundId);
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
    const parts = await partsOfPlan(tx, frame, new Set(there), body);
    const child = growingIn(yearOf(await momentOf(tx, at)), fitting.player);
    const { wantedChance, sports } = await theShop(tx);
    const row = planRow({
      frame,
      from,
      aim,
      change: { ...body, parts },
      school: body.school,
      byHand: body.byHand,
      trims: body.trims,
      bench: { trim: base !== undefined, child, settleMinutes: settleMinutesOf(sports[frame.shape.sport]) },
      now: at,
      wanted: wantedChance,
      renewed: renewedSince(from.how, await instrumentsNow(tx)),
    });
    await plans.insert(tx, row);
    return row.id;
  }
  acts.begin(
    router,
    'choosePlan',
    choosePlan,
    async (q, made) => (await plans.find(q, 'where id = $1', [made]))[0] as PlanRecord,
  );

  async function markStep({ tx, id, body, now: at, later }: ActInput<'markStep'>): Promise<string> {
    const { plan, round, settled, frame } = benchOfPlan(await requireFitting(tx, id, at), body.planId);
    if (plan.id !== round.state.planId) throw new ApiProblem('nothing-planned');
    if (!plan.steps.some(({ key }) => key === body.step)) throw badInput([notFoundAt('step')]);
    if (body.asBuilt) {
      const parts = await partsOf(
        tx,
        body.asBuilt.map(({ partId }) => partId),
      );
      const problems = placementProblems(settled, body.asBuilt, parts, 'asBuilt');
      if (problems.length > 0) throw new Fault(...problems);
    }
    const measured = round.measurements.some((m) => m.id === body.measurementId);
    if (body.measurementId !== null && !measured) throw badInput([notFoundAt('measurementId')]);
    const { seen, ...mark } = body;
    const stands = round.state.steps[body.step]?.mark ?? 'open';
    if (seen !== undefined && seen !== stands) throw new ApiProblem('marked-meanwhile', [], { mark: stands });
    await stepMarks.insert(tx, { ...mark, at });
    // A frame that lies on a stand-in weighs what it weighs now.
    later(() => hub.redress(frame.id));
    return id;
  }
  acts.begin(router, 'markStep', markStep, theFitting);

  async function signOff({ tx, id, body, key, now: at }: ActInput<'signOff'>): Promise<string> {
    const { plan, round, aim, frame } = benchOfPlan(await requireFitting(tx, id, at), body.planId);
    if (plan.id !== round.state.planId || !aim) throw new ApiProblem('nothing-planned');
    const check = round.measurements.find(
      (m) => m.id === body.measurementId && m.purpose === 'check' && m.counts,
    );
    if (!check) throw badInput([notFoundAt('measurementId')]);
    // Measured again or corrected since: what is signed off is the check that stands.
    const latest = checkOf(round, plan.id);
    if (latest && latest.id !== check.id) throw new ApiProblem('check-outdated');
    return storeSignOff(tx, { frame, round, plan, aim, check }, { ...body, key }, at);
  }
  acts.begin(router, 'signOff', signOff, async (q, made) => {
    const [found] = await signOffs.find(q, 'where id = $1', [made]);
    if (!found) throw new ApiProblem('not-found');
    const { key: _, ...signed } = found;
    return signed;
  });

  acts.on(router, 'countSession', async ({ tx, id, body }) => {
    const session = await countSession(tx, id, body);
    if (!session) throw new ApiProblem('not-found');
    return session;
  });
  acts.begin(
    router,
    'addSession',
    async (input) => {
      const { tx, body, key, now: at } = input;
      const { round } = await benchOfRound(input, body.roundId);
      await requirePlayed(tx, body.playedOn, at);
      const id = newId();
      await addSession(tx, { id, at, ...body, roundId: round.id }, key);
      return id;
    },
    sessionOrNone,
  );
}

/** A session cannot be played tomorrow. @throws ApiProblem where the day has not come in the shop */
export async function requirePlayed(tx: Queries, playedOn: string, now: string): Promise<void> {
  const { day } = await momentOf(tx, now);
  if (playedOn > day) throw badInput([wrongAt('playedOn', 'not-played-yet')]);
}
