import {
  SPEC_KEYS,
  SPECS,
  kindName,
  kindOfPlayer,
  kindsOf,
  type AxisSpecs,
  type OfPlayer,
  type SessionPlayed,
  type Sport,
} from '@kevro/core';
import { ageIn, type Player, type SessionRow, type Stringing } from '@kevro/contract';
import type { Queries } from '../db/db';
import { together } from './together';

/** The newest sessions of a sport that are looked at: more of them would hardly change what they say. */
const MOST_SESSIONS = 4000;

interface Row extends Pick<Player, 'birthYear' | 'levelScale' | 'style' | 'putsFirst'> {
  playerId: string;
  data: Partial<SessionRow>;
  specs: AxisSpecs | null;
  strings:
    | (Pick<Stringing, 'mains' | 'crosses' | 'mainsKg' | 'crossesKg'> &
        Partial<Pick<Stringing, 'mainsKind' | 'crossesKind'>>)
    | null;
}

const measured = SPEC_KEYS.map((key) => `'${key}', m.${SPECS[key].column}`).join(', ');
/** The sessions of a sport that count, each with what its frame measured in its round and the strings that were in it then. */
const PLAYED = `select f.player_id as "playerId", p.birth_year as "birthYear", p.level_scale as "levelScale", p.style,
    p.puts_first as "putsFirst", s.data, m.specs, st.data as strings
  from session s join round r on r.id = s.round_id join fitting f on f.id = r.fitting_id
    join frame fr on fr.id = r.frame_id join player p on p.id = f.player_id
    left join lateral (
      select json_strip_nulls(json_build_object(${measured})) as specs from measurement m
      where (m.round_id = r.id and m.purpose = 'check' and m.counts) or m.id = r.start_id
      order by (m.round_id = r.id and m.purpose = 'check' and m.counts) desc, m.seq desc limit 1) m on true
    left join lateral (
      select data from stringing where frame_id = r.frame_id and not retired and strung_on <= s.played_on
      order by strung_on desc, seq desc limit 1) st on true
  where s.counts and fr.shape->>'sport' = $1
  order by s.played_on desc, s.seq desc limit ${MOST_SESSIONS}`;

function playedOf({ data, specs, strings }: Row): SessionPlayed {
  const kinds = strings ? kindsOf({ mainsKind: null, crossesKind: null, ...strings }) : undefined;
  return {
    session: data as SessionRow,
    specs: specs ?? {},
    ...(strings ? { tensionKg: (strings.mainsKg + strings.crossesKg) / 2 } : {}),
    ...(kinds?.mains ? { strings: kinds.mains } : {}),
  };
}

export const kindOf = (
  player: Pick<Player, 'birthYear' | 'levelScale' | 'style' | 'putsFirst'>,
  year: number,
): string =>
  kindName(
    kindOfPlayer({
      age: ageIn(year, player),
      level: player.levelScale ?? undefined,
      style: player.style,
      putsFirst: player.putsFirst ?? undefined,
    }),
  );

/** All players of a sport with their sessions, the first played first, without a name. @returns the players, and which of them is the one asked for; −1 where that one played nothing */
export async function playersAlike(
  db: Queries,
  sport: Sport,
  playerId: string,
  year: number,
): Promise<{ players: OfPlayer[]; place: number }> {
  const rows = await together<Row>(db, PLAYED, [sport]);
  const byPlayer = new Map<string, Row[]>();
  for (const row of rows) byPlayer.set(row.playerId, [...(byPlayer.get(row.playerId) ?? []), row]);
  const ids = [...byPlayer.keys()].toSorted();
  const players = ids.map((id): OfPlayer => {
    const own = byPlayer.get(id) ?? [];
    return { kind: kindOf(own[0] as Row, year), played: own.toReversed().map(playedOf) };
  });
  return { players, place: ids.indexOf(playerId) };
}
