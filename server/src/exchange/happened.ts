import { usualParts } from '@kevro/core';
import type { FittingView, Happened, ShopFile } from '@kevro/contract';
import type { Queries } from '../db/db';
import { actOnProgramme, beginProgramme, takeStep } from '../fitting/programme-acts';
import { storeSignOff } from '../fitting/sign-off';
import { findFitting } from '../records/fitting';
import { newId } from '../records/id';
import { addLookAgain } from '../records/look-again';
import { addMeasurement } from '../records/measurement';
import { addSession } from '../records/session';
import { momentOf, type Moment } from '../records/shop';
import { stepMarks } from '../records/step-mark';

type Entry = FittingView['frames'][number];

/** Marks every step of the plan that stands, checks that it came out as planned, and signs it off. */
async function buildAsPlanned(tx: Queries, { frame, rounds }: Entry, at: string): Promise<void> {
  const round = rounds.at(-1);
  const plan = round?.plans.at(-1);
  const aim = round?.aims.at(-1);
  if (!round || !plan || !aim) throw new Error('there is nothing to build');
  for (const { key } of plan.steps)
    await stepMarks.insert(tx, { planId: plan.id, step: key, mark: 'done', at });
  const start = round.measurements.find(({ id }) => id === plan.startId);
  const check = await addMeasurement(
    tx,
    {
      frameId: frame.id,
      roundId: round.id,
      takenAt: at,
      purpose: 'check',
      dress: start?.dress ?? frame.onIt,
      specs: plan.specs,
      parts: usualParts(plan.uncertainty),
      estimated: [],
      leftRight: null,
      note: '',
      how: {},
    },
    `check ${plan.id}`,
  );
  if (!check) throw new Error('the check was not stored');
  const body = { key: `sign-off ${plan.id}`, planId: plan.id, measurementId: check.id, by: '', note: '' };
  await storeSignOff(tx, { frame, round, plan, aim, check }, body, at);
}

/** Does over again what a file says happened in a fitting, by the same rules as at the bench. */
export async function doOver(tx: Queries, { id, happened }: ShopFile['fittings'][number]): Promise<void> {
  for (const [i, one] of happened.entries()) {
    const moment = await momentOf(tx, one.at);
    const fitting = await findFitting(tx, id, one.at);
    if (!fitting) throw new Error(`the file has no fitting ${id}`);
    await doOne(tx, fitting, one, `${id} happened ${i}`, moment);
  }
}

async function doOne(
  tx: Queries,
  fitting: FittingView,
  one: Happened,
  key: string,
  moment: Moment,
): Promise<void> {
  if (one.do === 'look-again') {
    const { dueOn, why, note, at } = one;
    await addLookAgain(tx, { playerId: fitting.player.id, fittingId: fitting.id, dueOn, why, note }, at);
    return;
  }
  const entry = fitting.frames[one.frame];
  const round = entry?.rounds.at(-1);
  if (!entry || !round) throw new Error(`the fitting ${fitting.id} has no frame ${one.frame}`);
  const programme = entry.programmes.at(-1);
  switch (one.do) {
    case 'programme': {
      const { name, towards, note } = one;
      await beginProgramme(
        tx,
        fitting,
        { key, frameId: entry.frame.id, name, towards, happiest: null, note, by: '' },
        moment,
      );
      return;
    }
    case 'session': {
      const { do: _, frame: __, at, ...felt } = one;
      const session = { id: newId(), roundId: round.id, playedOn: moment.day, at, ...felt };
      await addSession(tx, session, key);
      return;
    }
    case 'step': {
      if (!programme) throw new Error(`nothing goes on in ${fitting.id}`);
      const { id: programmeId, sessions } = programme;
      await takeStep(tx, fitting, { key, programmeId, sessions, note: '', by: '' }, moment);
      const now = await findFitting(tx, fitting.id, one.at);
      const next = now?.frames[one.frame];
      if (one.built && next) await buildAsPlanned(tx, next, one.at);
      return;
    }
    case 'end':
      if (programme)
        await actOnProgramme(
          tx,
          fitting,
          { programmeId: programme.id, act: 'end', note: '', by: '' },
          moment,
        );
  }
}
