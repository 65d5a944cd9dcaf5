import { measuredIn } from '@kevro/core';
import { SESSIONS_SHOWN, type PlayerPage, type SessionRow } from '@kevro/contract';
import type { Queries } from '../db/db';
import { bedsOf } from './bed';
import { framesOf, stringingsOfFrames } from './frame';
import { lookAgainOf } from './look-again';
import { findMeasurements, measurementsOfRounds } from './measurement';
import { findPlayer } from './player';

interface Row extends Omit<SessionRow, 'specs'> {
  roundId: string;
  startId: string | null;
  data: Partial<SessionRow>;
}

const SESSIONS = `select s.id, r.id as "roundId", r.start_id as "startId", r.fitting_id as "fittingId", r.frame_id as "frameId", f.tag,
    f.shape->>'sport' as sport, r.number as round, s.played_on::text as "playedOn", s.data, s.counts
  from session s join round r on r.id = s.round_id join frame f on f.id = r.frame_id join fitting on fitting.id = r.fitting_id`;

/** Sessions that a condition finds, the newest first, each with what its frame measured in its round. */
async function sessionRows(db: Queries, where: string, id: string): Promise<SessionRow[]> {
  const rows = await db.query<Row>(
    `${SESSIONS} where ${where} order by s.played_on desc, s.seq desc limit ${SESSIONS_SHOWN}`,
    [id],
  );
  const rounds = new Map(rows.map(({ roundId, startId }) => [roundId, startId]));
  const [own, starts] = await Promise.all([
    measurementsOfRounds(db, [...rounds.keys()]),
    findMeasurements(db, [...new Set([...rounds.values()].flatMap((startId) => startId ?? []))]),
  ]);
  const specsOf = new Map(
    [...rounds].map(([roundId, startId]) => {
      const measurements = [
        ...starts.filter((m) => m.id === startId && m.roundId !== roundId),
        ...own.filter((m) => m.roundId === roundId),
      ];
      const { axisCm: _, ...specs } = measuredIn({ measurements, startId })?.specs ?? {};
      return [roundId, specs];
    }),
  );
  return rows.map(({ roundId, startId: _, data, ...row }) => ({
    ...row,
    ...(data as SessionRow),
    specs: specsOf.get(roundId) ?? {},
  }));
}

export const sessionsOfFrame = (db: Queries, frameId: string): Promise<SessionRow[]> =>
  sessionRows(db, 'r.frame_id = $1', frameId);

/** All that a player's page shows; undefined where there is no such player. */
export async function playerPage(db: Queries, id: string, now: string): Promise<PlayerPage | undefined> {
  const player = await findPlayer(db, id);
  if (!player) return undefined;
  const [frameIds, fittings, sessions, counted, advised, lookAgain, notes] = await Promise.all([
    db.query<{ id: string }>(
      `select id from frame where owner_id = $1
       union select ff.frame_id from fitting_frame ff join fitting on fitting.id = ff.fitting_id where player_id = $1`,
      [id],
    ),
    db.query<PlayerPage['fittings'][number]>(
      `select f.id, f.opened_at as "openedAt", f.closed_at as "closedAt",
         (select json_agg(json_build_object('id', fr.id, 'tag', fr.tag, 'round',
            (select max(number) from round r where r.fitting_id = f.id and r.frame_id = fr.id)) order by ff.position)
          from fitting_frame ff join frame fr on fr.id = ff.frame_id where ff.fitting_id = f.id) as frames
       from fitting f where f.player_id = $1 order by f.seq desc limit 200`,
      [id],
    ),
    sessionRows(db, 'fitting.player_id = $1', id),
    db.query<{ n: number }>(
      `select count(*) as n from session s join round r on r.id = s.round_id join fitting f on f.id = r.fitting_id
       where f.player_id = $1`,
      [id],
    ),
    db.query<PlayerPage['advised'][number]>(
      `select * from (
         select a.created_at as at, r.fitting_id as "fittingId", f.tag, r.number as round,
           case when a.way = 'programme' then 'step' else 'aim' end as what, a.way as words, a.note, a.by
         from aim a join round r on r.id = a.round_id join frame f on f.id = r.frame_id join fitting on fitting.id = r.fitting_id
         where fitting.player_id = $1
         union all
         select p.begun_at, p.fitting_id, f.tag, r.number, 'programme', p.name, p.note, p.by
         from programme p join round r on r.id = p.round_id join frame f on f.id = p.frame_id join fitting on fitting.id = p.fitting_id
         where fitting.player_id = $1) advised
       order by at desc limit 200`,
      [id],
    ),
    lookAgainOf(db, id),
    db.query<{ notes: Record<string, { swingWeight: number; uncertainty: number; on: string }> }>(
      'select ceiling_notes as notes from player where id = $1',
      [id],
    ),
  ]);
  const ids = frameIds.map((row) => row.id);
  const [frames, strings, beds] = await Promise.all([
    framesOf(db, ids),
    stringingsOfFrames(db, ids),
    bedsOf(db, ids, now),
  ]);
  const tags = new Map(frames.map((frame) => [frame.id, frame.tag]));
  const told = notes[0]?.notes ?? {};
  const ceilings = Object.entries(player.ceilings).map(([sport, swingWeight]) => {
    // A ceiling that was typed since has no finding behind it.
    const found = told[sport]?.swingWeight === swingWeight ? told[sport] : undefined;
    const { uncertainty = null, on = null } = found ?? {};
    return [sport, { swingWeight, uncertainty, on }];
  });
  return {
    player,
    ceilings: Object.fromEntries(ceilings) as PlayerPage['ceilings'],
    frames,
    fittings,
    sessions,
    sessionCount: counted[0]?.n ?? 0,
    strings: strings.map(({ frameId, stringing }) => ({ frameId, tag: tags.get(frameId) ?? '', stringing })),
    beds: beds.map((bed) => ({ ...bed, tag: tags.get(bed.frameId) ?? '' })),
    advised,
    lookAgain,
  };
}
