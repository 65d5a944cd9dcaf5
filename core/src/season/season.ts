import { programmeTraits, type Day, type Programme } from '../play';
import { dayAfter } from '../units';
import { growthDays } from './growth';

export const SEASON_KINDS = ['match', 'rest'] as const;
export type SeasonKind = (typeof SEASON_KINDS)[number];
/** Matches or rests of a player, from a day to a day. */
export interface SeasonDate {
  kind: SeasonKind;
  fromDay: string;
  toDay: string;
  /** How it is played there. */
  venue: Day;
}
/** What goes on on a frame. */
export interface SeasonFrame {
  /** What the frame is called. */
  tag: string;
  programme?: {
    name: Programme;
    /** Changes so far. */
    steps: number;
    /** Sessions since the last change. */
    played: number;
    /** What it says now: a step is due, or it goes on once more was played, or it has come to its end. */
    now: 'step' | 'play' | 'last-step' | 'over';
  };
  /** Days after which its strings are due, and when they were put in. */
  strings?: { strungOn: string; lastDays: number };
}
export interface SeasonState {
  today: string;
  dates: readonly SeasonDate[];
  frames: readonly SeasonFrame[];
  /** The arm was sore in the last session: nothing is changed until that is over. */
  sore: boolean;
  sessionsAWeek?: number | undefined;
  /** Days on which somebody asked for a look at the player. */
  looksAskedOn?: readonly string[] | undefined;
  /** Of a growing player: age, and when somebody last looked. */
  growing?: { age: number; lookedOn: string } | undefined;
}

export const SEASON_TASKS = ['step', 'strings', 'for-venue', 'back-to-usual', 'look-again'] as const;
/** What is to be done by a day. */
export interface SeasonTask {
  what: (typeof SEASON_TASKS)[number];
  on: string;
  /** The frame that it is about; none where it is about the player. */
  tag?: string | undefined;
  programme?: Programme | undefined;
  /** Which change of the programme it is. */
  step?: number | undefined;
  /** How it is played where it is for. */
  venue?: Day | undefined;
  /** The match that it is for, by its first day. */
  before?: string | undefined;
  /** The programme ends with it. */
  last?: boolean | undefined;
  /** Its own day is past: it is planned anew from today. */
  late?: boolean | undefined;
}

/** So far ahead is planned, days. */
export const SEASON_AHEAD_DAYS = 182;
/** In the days up to a match nothing is changed: a week with its last day (common practice). */
const MATCH_WEEK_DAYS = 7;
/** New strings go in so many days before a match: they settle, and are still new (common practice). */
const STRINGS_BEFORE_DAYS = 2;
/** Strings that would be due by the match go in before it, and so do those that have less than this share of their days left by then. */
const LEAST_LEFT = 0.2;
/** A frame is made ready for a venue so long before the first match there. */
const VENUE_BEFORE_DAYS = 1;
const DAYS_A_WEEK = 7;
const USUAL_SESSIONS_A_WEEK = 2;

const isIn = (day: string, { fromDay, toDay }: Pick<SeasonDate, 'fromDay' | 'toDay'>): boolean =>
  day >= fromDay && day <= toDay;
/** The week of a match: the days before it and its own. */
const weekOf = ({ fromDay, toDay }: SeasonDate): Pick<SeasonDate, 'fromDay' | 'toDay'> => ({
  fromDay: dayAfter(fromDay, 1 - MATCH_WEEK_DAYS),
  toDay,
});
/** Whether a day lies in the week of a match. @example inMatchWeek('2026-12-10', [match]) // true of a match on the 12th */
export const inMatchWeek = (day: string, dates: readonly SeasonDate[]): boolean =>
  dates.some((date) => date.kind === 'match' && isIn(day, weekOf(date)));
const later = (a: string, b: string): string => (a > b ? a : b);
/** What was to be done by a day that is past is to be done today. */
const onOrLate = (day: string, today: string): Pick<SeasonTask, 'on' | 'late'> =>
  day < today ? { on: today, late: true } : { on: day };

/**
 * What is to be done by when, from today on: steps of a programme between matches, never in the week of one nor on a rest, each with time to be played before the next match and before the
 * next step; strings before matches; frames made ready for where it is hot or cold, and back; a look at who has grown. What was missed moves to the next day that is free. After a sore arm
 * no step is planned.
 * @example seasonPlan({ today: '2026-11-30', dates: [match], frames: [{ tag: 'T-1', strings }], sore: false }) // [{ what: 'strings', on: '2026-12-10', before: '2026-12-12', … }]
 */
export function seasonPlan(state: SeasonState): SeasonTask[] {
  const { today, dates, frames } = state;
  const until = dayAfter(today, SEASON_AHEAD_DAYS);
  const matches = dates
    .filter(({ kind, toDay, fromDay }) => kind === 'match' && toDay >= today && fromDay <= until)
    .toSorted((a, b) => a.fromDay.localeCompare(b.fromDay));
  const rests = dates.filter(({ kind }) => kind === 'rest');
  // Without a programme for it the first frame on which nothing goes on is made ready for a venue.
  const forVenue =
    frames.find(({ programme }) => programme && programmeTraits(programme.name).asksForDay) ??
    frames.find(({ programme }) => !programme);
  const tasks = frames.flatMap((frame) => {
    const strings = stringTasks(state, frame, matches, until);
    const busy = new Set(strings.map(({ on }) => on));
    return [
      ...strings,
      ...stepTasks(state, frame, { matches, rests, busy, until }),
      ...(frame === forVenue ? venueTasks(state, frame, matches) : []),
    ];
  });
  return [...tasks, ...lookTasks(state, until)].toSorted((a, b) => a.on.localeCompare(b.on));
}

/** New strings before each match by which those that are in would be due, and where they are due with no match near. */
function stringTasks(
  { today }: SeasonState,
  { tag, strings }: SeasonFrame,
  matches: readonly SeasonDate[],
  until: string,
): SeasonTask[] {
  if (!strings) return [];
  const tasks: SeasonTask[] = [];
  let { strungOn } = strings;
  const dueOn = (): string => dayAfter(strungOn, Math.ceil(strings.lastDays));
  /** From when on it is worth waiting for the next match no more. */
  const wornOn = (): string => dayAfter(strungOn, Math.ceil((1 - LEAST_LEFT) * strings.lastDays));
  const put = (on: string, more: Partial<SeasonTask>): void => {
    tasks.push({ what: 'strings', tag, ...onOrLate(on, today), ...more });
    strungOn = later(on, today);
  };
  for (const { fromDay } of matches) {
    // What is due long before the match is not left until then.
    const before = dayAfter(fromDay, -STRINGS_BEFORE_DAYS);
    while (dueOn() < dayAfter(before, -MATCH_WEEK_DAYS) && later(dueOn(), today) < before) put(dueOn(), {});
    if (wornOn() <= fromDay && fromDay > today) put(before, { before: fromDay });
  }
  while (dueOn() <= until) put(dueOn(), {});
  return tasks;
}

/** What a step has to keep clear of. */
interface Around {
  matches: readonly SeasonDate[];
  rests: readonly SeasonDate[];
  /** Days on which its strings are changed. */
  busy: ReadonlySet<string>;
  until: string;
}
/** Changes of a programme, one after another: each where it can be played often enough before the week of a match, and before the next. */
function stepTasks(
  { today, sore, sessionsAWeek = USUAL_SESSIONS_A_WEEK }: SeasonState,
  { tag, programme }: SeasonFrame,
  { matches, rests, busy, until }: Around,
): SeasonTask[] {
  if (!programme || sore) return [];
  const traits = programmeTraits(programme.name);
  const { now } = programme;
  if (traits.asksForDay || now === 'over') return [];
  const sessions = traits.sessionsBetween;
  const perDay = Math.max(sessionsAWeek, 1) / DAYS_A_WEEK;
  const isRest = (day: string): boolean => rests.some((rest) => isIn(day, rest));
  /** The first day by which so many sessions can have been played, from the day after one. */
  const playedBy = (from: string, count: number): string => {
    let [day, done] = [from, 0];
    while (done < count - 1e-9 && day <= until) {
      day = dayAfter(day, 1);
      if (!isRest(day)) done += perDay;
    }
    return day;
  };
  const fits = (day: string): boolean => {
    if (isRest(day) || inMatchWeek(day, matches) || busy.has(day)) return false;
    const played = playedBy(day, sessions);
    return !matches.some((match) => {
      const { fromDay } = weekOf(match);
      return day < fromDay && played >= fromDay;
    });
  };
  const tasks: SeasonTask[] = [];
  const missing = now === 'play' ? Math.max(1, sessions - programme.played) : 0;
  let day = playedBy(today, missing);
  for (let step = programme.steps + 1; step <= traits.mostSteps; step++) {
    while (day <= until && !fits(day)) day = dayAfter(day, 1);
    if (day > until) break;
    const last = now === 'last-step';
    tasks.push({ what: 'step', on: day, tag, programme: programme.name, step, ...(last ? { last } : {}) });
    if (last) break;
    day = playedBy(day, sessions);
  }
  return tasks;
}

/** Ready for where it is hot or cold, the day before; and back after the last match there. */
function venueTasks(
  { today }: SeasonState,
  { tag }: SeasonFrame,
  matches: readonly SeasonDate[],
): SeasonTask[] {
  const tasks: SeasonTask[] = [];
  let stands: Day = 'usual';
  for (const { fromDay, venue } of matches) {
    if (venue === stands) continue;
    const on = dayAfter(fromDay, -VENUE_BEFORE_DAYS);
    tasks.push({
      what: venue === 'usual' ? 'back-to-usual' : 'for-venue',
      tag,
      venue,
      before: fromDay,
      ...onOrLate(on, today),
    });
    stands = venue;
  }
  const last = matches.at(-1);
  if (last && stands !== 'usual')
    tasks.push({
      what: 'back-to-usual',
      on: dayAfter(last.toDay, 1),
      tag,
      venue: 'usual',
    });
  return tasks;
}

/** Looks at the player that somebody asked for; and of a growing one, from the last of them on, as often as growth asks for it. */
function lookTasks({ today, looksAskedOn = [], growing }: SeasonState, until: string): SeasonTask[] {
  const look = (day: string): SeasonTask => ({ what: 'look-again', ...onOrLate(day, today) });
  const tasks = looksAskedOn.filter((day) => day <= until).map(look);
  const days = growing && growthDays(growing.age);
  if (!growing || days === undefined) return tasks;
  let due = dayAfter([growing.lookedOn, ...looksAskedOn].toSorted().at(-1) ?? today, days);
  while (due <= until) {
    tasks.push(look(due));
    due = dayAfter(later(due, today), days);
  }
  return tasks;
}
