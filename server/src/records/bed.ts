import { dayIn, daysBetween, ruleOf, sportData, stringsDue, type BedUse, type Sport } from '@kevro/core';
import type { StringBed } from '@kevro/contract';
import type { Queries } from '../db/db';
import { stringingsByFrame } from './frame';
import { theShop } from './shop';
import { together } from './together';

interface Use {
  stringingId: string;
  sport: Sport;
  sessionsAWeek: number | null;
  sessions: number;
  minutes: number;
  felt: BedUse['felt'];
}

/** How strings were played since they were put in: the sessions that count, and what the last two of them said. */
const usesOf = (db: Queries, stringingIds: readonly string[]): Promise<Use[]> =>
  together<Use>(
    db,
    `select s.id as "stringingId", f.shape->>'sport' as sport, p.sessions_a_week as "sessionsAWeek", u.sessions, u.minutes,
       coalesce(to_json(u.felt), '[]') as felt
     from stringing s join frame f on f.id = s.frame_id left join player p on p.id = f.owner_id,
       lateral (
         select count(*)::int as sessions, coalesce(sum((x.data->>'minutes')::float8), 0) as minutes,
           (array_agg(json_build_object('depth', x.data->>'depth', 'spin', x.data->>'spin')
             order by x.played_on desc, x.seq desc))[1:2] as felt
         from round r join session x on x.round_id = r.id
         where r.frame_id = s.frame_id and x.counts and x.played_on >= s.strung_on) u
     where s.id = any($1)`,
    [stringingIds],
  );

/** The strings that are in frames now, with how they were played and whether they are due for new ones, by the rule of the shop. */
export async function bedsOf(db: Queries, frameIds: readonly string[], now: string): Promise<StringBed[]> {
  if (frameIds.length === 0) return [];
  const strung = await stringingsByFrame(db, frameIds);
  if (strung.length === 0) return [];
  const [uses, { sports, timeZone }] = await Promise.all([
    usesOf(
      db,
      strung.map(({ stringing }) => stringing.id),
    ),
    theShop(db),
  ]);
  const day = dayIn(timeZone, now);
  const byId = new Map(uses.map((use) => [use.stringingId, use]));
  return strung.flatMap(({ frameId, stringing }): StringBed[] => {
    const use = byId.get(stringing.id);
    const own = use && sportData(use.sport).stringing;
    if (!use || !own) return [];
    const notedHours = use.minutes / 60;
    const hours = Math.max(notedHours, stringing.hoursPlayed ?? 0);
    const days = Math.max(0, daysBetween(stringing.strungOn, day));
    const sessionsAWeek = use.sessionsAWeek ?? undefined;
    const felt = use.felt.slice(0, 2);
    const due = stringsDue({ days, hours, felt, sessionsAWeek }, ruleOf(own, sports[use.sport]?.strings));
    return [{ frameId, stringing, days, hours, notedHours, sessions: use.sessions, due }];
  });
}
