import type { Router } from 'express';
import QRCode from 'qrcode';
import type { FittingView } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { goBack } from '../fitting/back';
import { entryOf } from '../fitting/begin-with-plan';
import { actOnProgramme, beginProgramme, takeStep } from '../fitting/programme-acts';
import { ApiProblem, badInput, notFoundAt } from '../problem';
import { findFitting, rounds } from '../records/fitting';
import { findFrame } from '../records/frame';
import { newId } from '../records/id';
import { findLink, makeLink, useLink, type Link } from '../records/link';
import { addLookAgain, lookAgainBy, setLookedAgain } from '../records/look-again';
import { findPlayer } from '../records/player';
import { playerPage, sessionsOfFrame } from '../records/player-page';
import { addSession } from '../records/session';
import { theShop } from '../records/shop';
import type { Hub } from '../instruments/hub';
import { answer } from './route';

const DAY_MS = 86_400_000;
/** How a calibration stands that is to be made anew. */
const DUE: ReadonlySet<string> = new Set(['stale', 'never', 'refused']);

/** The day of the shop, where it stands. */
async function shopToday(db: Db, now: Clock): Promise<string> {
  const { timeZone } = await theShop(db);
  return new Intl.DateTimeFormat('sv-SE', { timeZone }).format(new Date(now()));
}

/** Programmes, the way back, players' pages and what the day asks for. */
export function playRoutes(
  router: Router,
  db: Db,
  now: Clock,
  { hub, addresses }: { hub: Hub; addresses: () => readonly string[] },
): void {
  async function fittingOrNone(id: string | undefined, on: Queries = db): Promise<FittingView> {
    const fitting = await findFitting(on, id ?? '', now());
    if (!fitting) throw new ApiProblem('not-found');
    return fitting;
  }
  /** Does something to a fitting as it stands at that moment, whole or not at all. */
  const within = async <B>(
    id: string | undefined,
    body: B,
    work: (tx: Queries, fitting: FittingView, body: B, now: string) => Promise<void>,
  ): Promise<FittingView> => {
    await db.transaction(async (tx) => work(tx, await fittingOrNone(id, tx), body, now()));
    return fittingOrNone(id);
  };

  answer(router, 'beginProgramme', ({ params, body }) => within(params.id, body, beginProgramme));
  answer(router, 'actOnProgramme', ({ params, body }) => within(params.id, body, actOnProgramme));
  answer(router, 'takeStep', ({ params, body }) => within(params.id, body, takeStep));
  answer(router, 'goBack', ({ params, body }) => within(params.id, body, goBack));

  answer(router, 'makeLink', async ({ params, body: { roundId, days } }) => {
    const fitting = await fittingOrNone(params.id);
    const { round } = entryOf(fitting, (entry) => entry.rounds.some(({ id }) => id === roundId), 'roundId');
    const endsAt = new Date(Date.parse(now()) + days * DAY_MS).toISOString();
    const code = await db.transaction((tx) => makeLink(tx, { roundId: round.id, endsAt }, now()));
    const [base] = addresses();
    const address = base === undefined ? null : `${base}/played/${code}`;
    const picture =
      address && (await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }));
    return { code, endsAt, address, picture };
  });

  answer(router, 'playerPage', async ({ params }) => {
    const page = await playerPage(db, params.id ?? '');
    if (!page) throw new ApiProblem('not-found');
    return page;
  });
  answer(router, 'frameSessions', ({ params }) => sessionsOfFrame(db, params.id ?? ''));
  answer(router, 'day', async () => ({
    lookAgain: await lookAgainBy(db, await shopToday(db, now)),
    calibrations: (await hub.all())
      .filter(({ retired, calibrationState }) => !retired && DUE.has(calibrationState))
      .map(({ id, name, calibration }) => ({ id, name, calibratedAt: calibration?.takenAt ?? null })),
  }));
  answer(router, 'addLookAgain', async ({ body }) => {
    if (!(await findPlayer(db, body.playerId))) throw badInput([notFoundAt('playerId')]);
    if (body.fittingId !== null && !(await findFitting(db, body.fittingId, now())))
      throw badInput([notFoundAt('fittingId')]);
    return addLookAgain(db, body, now());
  });
  answer(router, 'doneLookAgain', async ({ params, body }) => {
    const found = await setLookedAgain(db, params.id ?? '', body.done ? now() : null);
    if (!found) throw new ApiProblem('not-found');
    return found;
  });
}

/** What a player may do who comes by a link: note one session. Open to everybody who has the code, and to nothing else. */
export function linkRoutes(router: Router, db: Db, now: Clock): void {
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
    const { frame } = await roundOf(db, link);
    const { maker, model, tag, shape } = frame;
    const { name } = await theShop(db);
    return {
      shop: name,
      frame: { maker, model, tag, sport: shape.sport },
      endsAt: link.endsAt,
      noted: link.sessionId !== null,
    };
  });
  answer(router, 'noteByLink', ({ params, body: { key, ...body } }) =>
    db.transaction(async (tx) => {
      const link = await linkOrNone(tx, params.code);
      const { round } = await roundOf(tx, link);
      const open = await tx.query('select 1 from fitting where id = $1 and closed_at is null', [
        round.fittingId,
      ]);
      if (open.length === 0) throw new ApiProblem('fitting-closed');
      const session = { id: newId(), at: now(), ...body, roundId: round.id };
      if (link.sessionId === null) {
        const stored = await addSession(tx, session, key);
        if (!stored) throw new ApiProblem('key-used');
        await useLink(tx, params.code ?? '', stored.id);
      } else {
        // The answer to the first time may have been lost on the way: the same session is stored once.
        const [same] = await tx.query('select 1 from session where id = $1 and key = $2', [
          link.sessionId,
          key,
        ]);
        if (!same) throw new ApiProblem('link-used');
      }
      return { stored: true as const };
    }),
  );
}
