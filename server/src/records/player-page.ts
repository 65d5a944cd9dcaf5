import { SESSIONS_SHOWN, type PlayerPage, type SessionRow } from '@kevro/contract';
import type { Queries } from '../db/db';
import { framesOf, stringingsOfFrames } from './frame';
import { lookAgainOf } from './look-again';
import { findPlayer } from './player';

type Known = SessionRow['specs'];
interface Row extends Omit<SessionRow, 'specs'> {
  data: Partial<SessionRow>;
  specs: { [K in keyof Known]: number | null } | null;
}

/** Sessions with what the frame measured before, in its round: the check of its build, else what the round started from. */
const SESSIONS = `select s.id, r.fitting_id as "fittingId", r.frame_id as "frameId", f.tag, f.shape->>'sport' as sport,
    r.number as round, s.played_on::text as "playedOn", s.data, s.counts,
    (select json_build_object('massG', m.mass_g, 'balanceCm', m.balance_cm, 'swingWeight', m.swing_weight, 'twistWeight', m.twist_weight)
       from measurement m
       where m.counts and (m.id = r.start_id or (m.round_id = r.id and m.purpose = 'check'))
       order by (m.purpose = 'check') desc, m.seq desc limit 1) as specs
  from session s join round r on r.id = s.round_id join frame f on f.id = r.frame_id join fitting on fitting.id = r.fitting_id`;

const rowOf = ({ data, specs, ...row }: Row): SessionRow => ({
  ...row,
  ...(data as SessionRow),
  specs: Object.fromEntries(Object.entries(specs ?? {}).filter(([, value]) => value !== null)) as Known,
});

export const sessionsOfFrame = async (db: Queries, frameId: string): Promise<SessionRow[]> =>
  (
    await db.query<Row>(
      `${SESSIONS} where r.frame_id = $1 order by s.played_on desc, s.seq desc limit ${SESSIONS_SHOWN}`,
      [frameId],
    )
  ).map(rowOf);

/** All that a player's page shows; undefined where there is no such player. */
export async function playerPage(db: Queries, id: string): Promise<PlayerPage | undefined> {
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
    db.query<Row>(
      `${SESSIONS} where fitting.player_id = $1 order by s.played_on desc, s.seq desc limit ${SESSIONS_SHOWN}`,
      [id],
    ),
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
  const [frames, strings] = await Promise.all([framesOf(db, ids), stringingsOfFrames(db, ids)]);
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
    sessions: sessions.map(rowOf),
    sessionCount: counted[0]?.n ?? 0,
    strings: strings.map(({ frameId, stringing }) => ({ frameId, tag: tags.get(frameId) ?? '', stringing })),
    advised,
    lookAgain,
  };
}
