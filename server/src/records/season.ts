import {
  SEASON_AHEAD_DAYS,
  countedSessions,
  dayAfter,
  dayIn,
  daysOf,
  ruleOf,
  seasonPlan,
  sportData,
  type SeasonFrame,
  type SeasonTask,
} from '@kevro/core';
import {
  ageIn,
  growingIn,
  type FittingView,
  type Player,
  type ProgrammeOutlook,
  type SeasonDateRecord,
  type SeasonPage,
} from '@kevro/contract';
import { isStep } from '../fitting/programmes';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';
import { bedsOf } from './bed';
import { findFitting } from './fitting';
import { framesOf } from './frame';
import { lookAgainOf } from './look-again';
import { findPlayer } from './player';
import { theShop } from './shop';

interface Row extends SeasonDateRecord {
  key: string;
  playerId: string;
  /** Of the calendar file that it came from; empty where somebody typed it. */
  uid: string;
}
const table = tableOf<Row>('season_date', {
  id: 'id',
  key: 'key',
  playerId: 'player_id',
  kind: 'kind',
  fromDay: 'from_day',
  toDay: 'to_day',
  title: 'title',
  venue: 'venue',
  uid: 'uid',
});
export const seasonDates = table;
/** Dates that are past by more than this are kept, and not shown, days. */
const SHOWN_BACK_DAYS = 30;
/** So many of a player are shown at the most. */
const MOST_DATES = 400;

export async function findSeasonDate(db: Queries, id: string): Promise<Row | undefined> {
  return (await table.find(db, 'where id = $1', [id]))[0];
}
const shown = ({ id, kind, fromDay, toDay, title, venue }: Row): SeasonDateRecord => ({
  id,
  kind,
  fromDay,
  toDay,
  title,
  venue,
});

/** Says what a programme says now: worked out as on its own page, so that the two never differ. */
export type Outlooks = (fitting: FittingView, programmeId: string) => Promise<ProgrammeOutlook | undefined>;

/** How a frame of an open fitting stands in the season. */
async function programmeOn(
  fitting: FittingView,
  { rounds, programmes }: FittingView['frames'][number],
  outlooks: Outlooks,
): Promise<Pick<SeasonFrame, 'programme'>> {
  const running = programmes.find(({ state }) => state === 'running');
  if (!running) return {};
  const next = (await outlooks(fitting, running.id))?.next;
  const hasStep = next ? isStep(next) : false;
  const goesOn = next?.state === 'go-on';
  return {
    programme: {
      name: running.name,
      steps: running.events.filter(({ what }) => what === 'step' || what === 'own-step').length,
      played: countedSessions(rounds.at(-1)?.sessions ?? []).length,
      now: goesOn ? (hasStep ? 'step' : 'play') : hasStep ? 'last-step' : 'over',
    },
  };
}

/** What a player's season asks for: from the calendar, the programmes that go on, the strings that are in, and growth. */
async function tasksOf(
  db: Queries,
  player: Player,
  dates: readonly SeasonDateRecord[],
  now: string,
  outlooks: Outlooks,
): Promise<Pick<SeasonPage, 'tasks' | 'frames'>> {
  const [open, owned, looks, { sports, timeZone }] = await Promise.all([
    db.query<{ id: string }>(
      'select id from fitting where player_id = $1 and closed_at is null order by seq desc limit 5',
      [player.id],
    ),
    db.query<{ id: string }>('select id from frame where owner_id = $1 and not archived limit 20', [
      player.id,
    ]),
    lookAgainOf(db, player.id),
    theShop(db),
  ]);
  const today = dayIn(timeZone, now);
  const fittings = (await Promise.all(open.map(({ id }) => findFitting(db, id, now)))).flatMap(
    (one) => one ?? [],
  );
  const inFittings = fittings.flatMap(({ frames: list }) => list.map(({ frame }) => frame.id));
  const ids = [...new Set([...inFittings, ...owned.map(({ id }) => id)])];
  const [frames, beds] = await Promise.all([framesOf(db, ids), bedsOf(db, ids, now)]);
  const sessionsAWeek = player.sessionsAWeek ?? undefined;
  const programmes = new Map(
    await Promise.all(
      fittings.flatMap((fitting) =>
        fitting.frames.map(
          async (entry) => [entry.frame.id, await programmeOn(fitting, entry, outlooks)] as const,
        ),
      ),
    ),
  );
  const seasonFrames = frames.map(({ id, tag, shape }): SeasonFrame => {
    const bed = beds.find(({ frameId }) => frameId === id);
    const own = sportData(shape.sport).stringing;
    return {
      tag,
      ...programmes.get(id),
      ...(bed && own
        ? {
            strings: {
              strungOn: bed.stringing.strungOn,
              lastDays: daysOf(ruleOf(own, sports[shape.sport]?.strings), sessionsAWeek),
            },
          }
        : {}),
    };
  });
  const last = countedSessions(
    fittings.flatMap(({ frames: list }) => list.flatMap(({ rounds }) => rounds.at(-1)?.sessions ?? [])),
  )
    .toSorted((a, b) => a.playedOn.localeCompare(b.playedOn))
    .at(-1);
  const due = looks.filter(({ doneAt }) => doneAt === null);
  const lookedOn = [
    ...looks.map(({ dueOn, doneAt }) => (doneAt === null ? dueOn : dayIn(timeZone, doneAt))),
    ...fittings.map(({ openedAt }) => dayIn(timeZone, openedAt)),
  ].toSorted();
  const year = Number(today.slice(0, 4));
  const age = ageIn(year, player);
  const planned = seasonPlan({
    today,
    dates,
    frames: seasonFrames,
    sore: last?.arm === 'sore',
    sessionsAWeek,
    ...(age !== undefined && growingIn(year, player)
      ? { growing: { age, lookedOn: lookedOn.at(-1) ?? today } }
      : {}),
  });
  const asked = due
    .filter(({ dueOn }) => dueOn <= dayAfter(today, SEASON_AHEAD_DAYS))
    .map(({ dueOn }): SeasonTask => ({
      what: 'look-again',
      on: dueOn < today ? today : dueOn,
      ...(dueOn < today ? { late: true } : {}),
    }));
  const fittingOf = new Map(
    fittings.flatMap(({ id, frames: list }) => list.map(({ frame }) => [frame.id, id] as const)),
  );
  return {
    tasks: [...asked, ...planned].toSorted((a, b) => a.on.localeCompare(b.on)),
    frames: frames.map(({ id, tag }) => ({ id, tag, fittingId: fittingOf.get(id) ?? null })),
  };
}

/** A player's season: matches and rests, and what is to be done by when; undefined where there is no such player. */
export async function seasonPage(
  db: Queries,
  playerId: string,
  now: string,
  outlooks: Outlooks,
): Promise<SeasonPage | undefined> {
  const player = await findPlayer(db, playerId);
  if (!player) return undefined;
  const { timeZone } = await theShop(db);
  const today = dayIn(timeZone, now);
  const rows = await table.find(
    db,
    `where player_id = $1 and to_day >= $2 order by from_day, seq limit ${MOST_DATES}`,
    [playerId, dayAfter(today, -SHOWN_BACK_DAYS)],
  );
  const dates = rows.map(shown);
  return {
    player: { id: player.id, name: player.name },
    today,
    dates,
    ...(await tasksOf(db, player, dates, now, outlooks)),
  };
}

/** So long before its day a match comes up on Today, days; and how many of them. */
const SOON_DAYS = 14;
const SOON_LISTED = 20;
/** Matches that are near, the first first. */
export const matchesSoon = (
  db: Queries,
  today: string,
): Promise<{ playerId: string; playerName: string; fromDay: string; title: string }[]> =>
  db.query(
    `select d.player_id as "playerId", p.name as "playerName", d.from_day::text as "fromDay", d.title
     from season_date d join player p on p.id = d.player_id
     where d.kind = 'match' and d.from_day between $1 and $2 and not p.archived
     order by d.from_day, d.seq limit ${SOON_LISTED}`,
    [today, dayAfter(today, SOON_DAYS)],
  );
