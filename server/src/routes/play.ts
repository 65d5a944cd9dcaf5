import type { Router } from 'express';
import QRCode from 'qrcode';
import { isTender } from '@kevro/core';
import type { ActBodyOf, FittingView, LookAgain } from '@kevro/contract';
import { lock, type Acts, type ActInput } from '../act';
import type { Clock } from '../clock';
import type { Compute } from '../compute/compute';
import type { Queries } from '../db/db';
import { requireFitting } from '../fitting/bench';
import { goBack } from '../fitting/back';
import { entryOf, type Entry } from '../fitting/begin-with-plan';
import { outlookCase } from '../fitting/outlook';
import { actOnProgramme, answerCase, beginProgramme, takeStep } from '../fitting/programme-acts';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { findFitting, rounds } from '../records/fitting';
import { findFrame } from '../records/frame';
import { newId } from '../records/id';
import { codeOf, findLink, makeLink, useLink, type Link } from '../records/link';
import { addLookAgain, findLookAgain, lookAgainBy, setLookedAgain } from '../records/look-again';
import { findPlayer } from '../records/player';
import { playerPage, sessionsOfFrame } from '../records/player-page';
import { kindOf, playersAlike } from '../records/alike';
import { matchesSoon } from '../records/season';
import { addSession } from '../records/session';
import { looksAtBall, programmes } from '../records/programme';
import { momentOf, theShop, yearOf, type Moment } from '../records/shop';
import type { Hub } from '../instruments/hub';
import { ofShop } from '../shops/of-shop';
import { requirePlayed } from './rounds';
import { answer } from './route';

const DAY_MS = 86_400_000;
/** How a calibration stands that is to be made anew. */
const DUE: ReadonlySet<string> = new Set(['stale', 'never', 'refused']);

async function lookAgainOrNone(q: Queries, id: string): Promise<LookAgain> {
  const found = await findLookAgain(q, id);
  if (!found) throw new ApiProblem('not-found');
  return found;
}

/** Programmes, the way back, players' pages and what the day asks for. */
export function playRoutes(
  router: Router,
  acts: Acts,
  now: Clock,
  {
    hub,
    compute,
    addresses,
    shopCode,
  }: { hub: Hub; compute: Compute; addresses: () => readonly string[]; shopCode?: string | undefined },
): void {
  const { db } = acts;
  const theFitting = (q: Queries, _made: string, { id }: { id: string }): Promise<FittingView> =>
    requireFitting(q, id, now());
  /** Does something to a fitting as it is at that moment. */
  const within =
    <N extends 'beginProgramme' | 'takeStep' | 'goBack' | 'actOnProgramme'>(
      work: (
        tx: Queries,
        fitting: FittingView,
        body: ActBodyOf<N> & { key: string },
        moment: Moment,
      ) => Promise<string | undefined>,
    ) =>
    async ({ tx, id, body, key, now: at }: ActInput<N>): Promise<string> =>
      (await work(tx, await requireFitting(tx, id, at), { ...body, key }, await momentOf(tx, at))) ?? id;

  acts.begin(router, 'beginProgramme', within<'beginProgramme'>(beginProgramme), theFitting);
  acts.begin(router, 'actOnProgramme', within<'actOnProgramme'>(actOnProgramme), theFitting);
  acts.begin(router, 'takeStep', within<'takeStep'>(takeStep), theFitting);
  acts.begin(router, 'goBack', within<'goBack'>(goBack), theFitting);

  answer(router, 'programmeOutlook', async ({ params: { id = '' } }) => {
    const [programme] = await programmes.find(db, 'where id = $1', [id]);
    if (!programme) throw new ApiProblem('not-found');
    const found = await outlookCase(db, await requireFitting(db, programme.fittingId, now()), id);
    if (!found) throw new ApiProblem('not-found');
    return compute('programmeOutlook', found);
  });

  answer(router, 'sessionAnswer', async ({ params: { id = '' } }) => {
    const [round] = await rounds.find(db, 'where id = $1', [id]);
    if (!round) throw new ApiProblem('not-found');
    const fitting = await requireFitting(db, round.fittingId, now());
    const found = await answerCase(db, fitting, round.frameId, await momentOf(db, now()));
    const outlook = found.case
      ? await compute('programmeOutlook', found.case)
      : { next: null, trouble: null };
    return { programme: found.programme, ...outlook };
  });

  acts.begin(
    router,
    'makeLink',
    async ({ tx, id, body: { roundId, days }, key, now: at }) => {
      const fitting = await requireFitting(tx, id, at);
      const ofRound = (entry: Entry): boolean => entry.rounds.some((one) => one.id === roundId);
      const { round } = entryOf(fitting, ofRound, 'roundId');
      const endsAt = new Date(Date.parse(at) + days * DAY_MS).toISOString();
      return makeLink(tx, codeOf(key), { roundId: round.id, endsAt }, at);
    },
    async (q, _made, { key }) => {
      const code = codeOf(key);
      // Made before the server was started anew, or replaced by another link: its code is known to nobody any more.
      const link = await findLink(q, code);
      if (!link) throw new ApiProblem('key-used');
      const [base] = addresses();
      const address = base === undefined ? null : `${base}/played/${code}${ofShop(shopCode)}`;
      const picture =
        address && (await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }));
      return { code, endsAt: link.endsAt, address, picture };
    },
  );

  answer(router, 'playerPage', async ({ params }) => {
    const page = await playerPage(db, params.id ?? '', now());
    if (!page) throw new ApiProblem('not-found');
    return page;
  });
  answer(router, 'learnedOfPlayer', async ({ params: { id = '' }, query: { sport } }) => {
    const player = await findPlayer(db, id);
    if (!player) throw new ApiProblem('not-found');
    const { learnsFromAll } = await theShop(db);
    if (!learnsFromAll) return { on: false, players: 0, sessions: 0, told: [], among: [] };
    const year = yearOf(await momentOf(db, now()));
    const { players, place } = await playersAlike(db, sport, id, year);
    const asking = { kind: kindOf(player, year), isTender: isTender(player.bothers), place };
    return { on: true, ...(await compute('learnedAbout', sport, players, asking)) };
  });
  answer(router, 'frameSessions', ({ params }) => sessionsOfFrame(db, params.id ?? ''));
  answer(router, 'day', async () => {
    const { day } = await momentOf(db, now());
    const [matches, lookAgain, instruments] = await Promise.all([
      matchesSoon(db, day),
      lookAgainBy(db, day),
      hub.all(),
    ]);
    return {
      matches,
      lookAgain,
      calibrations: instruments
        .filter(({ retired, calibrationState }) => !retired && DUE.has(calibrationState))
        .map(({ id, name, calibration }) => ({ id, name, calibratedAt: calibration?.takenAt ?? null })),
    };
  });
  acts.begin(
    router,
    'addLookAgain',
    async ({ tx, body, now: at }) => {
      if (body.fittingId !== null) {
        await lock(tx, 'fitting', body.fittingId);
        if (!(await findFitting(tx, body.fittingId, at))) throw badInput([notFoundAt('fittingId')]);
      }
      if (!(await findPlayer(tx, body.playerId))) throw badInput([notFoundAt('playerId')]);
      return (await addLookAgain(tx, body, at)).id;
    },
    lookAgainOrNone,
  );
  acts.on(router, 'doneLookAgain', async ({ tx, id, body, now: at }) => {
    await setLookedAgain(tx, id, body.done ? at : null);
    return lookAgainOrNone(tx, id);
  });
}

/** What a player may do who comes by a link: note one session. Open to everybody who has the code, and to nothing else. */
export function linkRoutes(router: Router, acts: Acts, now: Clock): void {
  const { db } = acts;
  async function linkOrNone(on: Queries, code: string | undefined): Promise<Link> {
    const link = await findLink(on, code ?? '');
    if (!link) throw new ApiProblem('not-found');
    if (link.sessionId === null && Date.parse(link.endsAt) <= Date.parse(now()))
      throw new ApiProblem('link-ended');
    return link;
  }
  async function roundOf(on: Queries, { roundId }: Link) {
    const [round] = await rounds.find(on, 'where id = $1', [roundId]);
    const frame = round && (await findFrame(on, round.frameId));
    if (!frame) throw new ApiProblem('not-found');
    return { round, frame };
  }

  answer(router, 'linkPage', async ({ params }) => {
    const link = await linkOrNone(db, params.code);
    const { round, frame } = await roundOf(db, link);
    const { maker, model, tag, shape } = frame;
    const { name } = await theShop(db);
    return {
      shop: name,
      frame: { maker, model, tag, sport: shape.sport },
      endsAt: link.endsAt,
      asksOfBall: await looksAtBall(db, round.fittingId, frame.id),
      noted: link.sessionId !== null,
    };
  });
  acts.begin(
    router,
    'noteByLink',
    async ({ tx, body, key, request, now: at }) => {
      const code = String(request.params.code);
      const link = await linkOrNone(tx, code);
      const { round } = await roundOf(tx, link);
      await lock(tx, 'fitting', round.fittingId);
      const open = await tx.query('select 1 from fitting where id = $1 and closed_at is null', [
        round.fittingId,
      ]);
      if (open.length === 0) throw new ApiProblem('fitting-closed');
      if (link.sessionId !== null) throw new ApiProblem('link-used');
      await requirePlayed(tx, body.playedOn, at);
      const id = newId();
      await addSession(tx, { id, at, ...body, roundId: round.id }, key);
      await useLink(tx, code, id);
      return id;
    },
    () => Promise.resolve({ stored: true as const }),
  );
}
