import { countedSessions, dayIn, daysOf, ruleOf, seasonPlan, sportData, type SeasonFrame } from '@kevro/core';
import {
  ageIn,
  growingIn,
  type FittingView,
  type FrameRecord,
  type ProgrammeOutlook,
  type SeasonPage,
  type Shop,
  type StringBed,
} from '@kevro/contract';
import type { Queries } from '../db/db';
import { bedsOf } from '../records/bed';
import { findFitting } from '../records/fitting';
import { framesOf } from '../records/frame';
import { lookAgainOf } from '../records/look-again';
import { findPlayer } from '../records/player';
import { datesOf } from '../records/season';
import { theShop, yearOf } from '../records/shop';
import { isStep, wasSoreIn } from './programmes';

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
  const round = rounds.at(-1);
  // What was played before it began is no session of it.
  const before = round?.id === running.roundId ? running.sessionsBefore : 0;
  return {
    programme: {
      name: running.name,
      steps: running.events.filter(({ what }) => what === 'step' || what === 'own-step').length,
      played: countedSessions(round?.sessions.slice(before) ?? []).length,
      now: next?.state === 'go-on' ? (hasStep ? 'step' : 'play') : hasStep ? 'last-step' : 'over',
    },
  };
}

/** When the strings of a frame were put in, and for how long they are good by the rule of the shop; nothing where there are none. */
function stringsIn(
  { shape: { sport } }: FrameRecord,
  bed: StringBed | undefined,
  { sports }: Pick<Shop, 'sports'>,
  sessionsAWeek: number | undefined,
): Pick<SeasonFrame, 'strings'> {
  const own = sportData(sport).stringing;
  if (!bed || !own) return {};
  const lastDays = daysOf(ruleOf(own, sports[sport]?.strings), sessionsAWeek);
  return { strings: { strungOn: bed.stringing.strungOn, lastDays } };
}

/**
 * A player's season: matches and rests, and what is to be done by when: from the calendar, the programmes that go on, the strings that are in, follow-ups and growth. Undefined where there
 * is no such player.
 */
export async function seasonPage(
  db: Queries,
  playerId: string,
  now: string,
  outlooks: Outlooks,
): Promise<SeasonPage | undefined> {
  const player = await findPlayer(db, playerId);
  if (!player) return undefined;
  const shop = await theShop(db);
  const today = dayIn(shop.timeZone, now);
  const [dates, open, owned, looks] = await Promise.all([
    datesOf(db, playerId, today),
    db.query<{ id: string }>(
      'select id from fitting where player_id = $1 and closed_at is null order by seq desc limit 5',
      [playerId],
    ),
    db.query<{ id: string }>('select id from frame where owner_id = $1 and not archived limit 20', [
      playerId,
    ]),
    lookAgainOf(db, playerId),
  ]);
  const fittings = (await Promise.all(open.map(({ id }) => findFitting(db, id, now)))).flatMap(
    (one) => one ?? [],
  );
  const entries = fittings.flatMap((fitting) => fitting.frames.map((entry) => ({ fitting, entry })));
  const ids = [...new Set([...entries.map(({ entry }) => entry.frame.id), ...owned.map(({ id }) => id)])];
  const [frames, beds, programmes] = await Promise.all([
    framesOf(db, ids),
    bedsOf(db, ids, now),
    Promise.all(entries.map(({ fitting, entry }) => programmeOn(fitting, entry, outlooks))),
  ]);
  const entryOf = (frameId: string): number => entries.findIndex(({ entry }) => entry.frame.id === frameId);
  const sessionsAWeek = player.sessionsAWeek ?? undefined;
  const year = yearOf({ now, day: today });
  const age = ageIn(year, player);
  const lookedOn = [
    ...looks.flatMap(({ doneAt }) => (doneAt === null ? [] : dayIn(shop.timeZone, doneAt))),
    ...fittings.map(({ openedAt }) => dayIn(shop.timeZone, openedAt)),
  ].toSorted();
  const tasks = seasonPlan({
    today,
    dates,
    frames: frames.map((frame) => ({
      tag: frame.tag,
      ...programmes[entryOf(frame.id)],
      ...stringsIn(
        frame,
        beds.find(({ frameId }) => frameId === frame.id),
        shop,
        sessionsAWeek,
      ),
    })),
    sore: fittings.some(wasSoreIn),
    sessionsAWeek,
    looksAskedOn: looks.flatMap(({ doneAt, dueOn }) => (doneAt === null ? dueOn : [])),
    ...(age !== undefined && growingIn(year, player)
      ? { growing: { age, lookedOn: lookedOn.at(-1) ?? today } }
      : {}),
  });
  return {
    player: { id: player.id, name: player.name },
    today,
    dates,
    frames: frames.map(({ id, tag }) => ({ id, tag, fittingId: entries[entryOf(id)]?.fitting.id ?? null })),
    tasks,
  };
}
