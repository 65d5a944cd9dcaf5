import { ruleOf, sportData, stringsDue, type BedUse, type Sport } from '@kevro/core';
import type { StringBed } from '@kevro/contract';
import type { Queries } from '../db/db';
import { stringingsByFrame } from './frame';
import { momentOf, theShop } from './shop';

interface Use {
  frameId: string;
  sport: Sport;
  sessionsAWeek: number | null;
  sessions: number;
  minutes: number;
  felt: BedUse['felt'];
}

/** How beds were played since they were strung: of each frame the sessions that count, and what the last two of them said. */
const usesOf = (db: Queries, frameIds: readonly string[], since: readonly string[]): Promise<Use[]> =>
  db.query<Use>(
    `select f.id as "frameId", f.shape->>'sport' as sport, p.sessions_a_week as "sessionsAWeek",
       count(s.id)::int as sessions, coalesce(sum((s.data->>'minutes')::float8), 0) as minutes,
       coalesce((json_agg(json_build_object('depth', s.data->>'depth', 'spin', s.data->>'spin')
         order by s.played_on desc, s.seq desc) filter (where s.id is not null)), '[]') as felt
     from unnest($1::text[], $2::date[]) as strung(frame_id, since)
       join frame f on f.id = strung.frame_id left join player p on p.id = f.owner_id
       left join round r on r.frame_id = f.id
       left join session s on s.round_id = r.id and s.counts and s.played_on >= strung.since
     group by f.id, f.shape, p.sessions_a_week`,
    [frameIds, since],
  );

const DAY_MS = 86_400_000;
const wholeDays = (from: string, to: string): number =>
  Math.max(0, Math.round((Date.parse(`${to}T12:00Z`) - Date.parse(`${from}T12:00Z`)) / DAY_MS));

/** The strings that are in frames now, with how they were played and whether they are due for new ones, by the rule of the shop. */
export async function bedsOf(db: Queries, frameIds: readonly string[], now: string): Promise<StringBed[]> {
  if (frameIds.length === 0) return [];
  const strung = await stringingsByFrame(db, frameIds);
  if (strung.length === 0) return [];
  const [uses, { sports }, { day }] = await Promise.all([
    usesOf(
      db,
      strung.map(({ frameId }) => frameId),
      strung.map(({ stringing }) => stringing.strungOn),
    ),
    theShop(db),
    momentOf(db, now),
  ]);
  return strung.flatMap(({ frameId, stringing }): StringBed[] => {
    const use = uses.find((one) => one.frameId === frameId);
    const own = use && sportData(use.sport).stringing;
    if (!use || !own) return [];
    const notedHours = use.minutes / 60;
    const hours = Math.max(notedHours, stringing.hoursPlayed ?? 0);
    const days = wholeDays(stringing.strungOn, day);
    const sessionsAWeek = use.sessionsAWeek ?? undefined;
    const felt = use.felt.slice(0, 2);
    const due = stringsDue({ days, hours, felt, sessionsAWeek }, ruleOf(own, sports[use.sport]?.strings));
    return [{ frameId, stringing, days, hours, notedHours, sessions: use.sessions, due }];
  });
}
