import ical from 'ical-generator';
import ICAL from 'ical.js';
import { dayAfter, dayIn, type Day, type SeasonKind } from '@kevro/core';
import { SEASON_KIND_NAMES, SEASON_LIMITS, seasonTaskSentence, type SeasonPage } from '@kevro/contract';
import { ApiProblem } from '../problem';

/** An entry of a calendar file, as a date of a season. */
export interface FileDate {
  uid: string;
  kind: SeasonKind;
  fromDay: string;
  toDay: string;
  title: string;
  venue: Day;
}
export interface ReadCalendar {
  dates: FileDate[];
  /** Entries that are none: without a day, called off, too far away, or what Kevro itself said is to be done. */
  skipped: number;
}

/** What Kevro itself writes into a file: it is no match where the file comes back. */
const TASK = 'kevro-task';
/** Words of a rest; a tie-break and a play-off are none. */
const REST = /(?<![-\w])(rest|break|holidays?|vacation|recovery|(day|days|time) off)\b/i;
const HOT = /\b(hot|heat)\b/i;
const COLD = /\bcold\b/i;

const venueOf = (words: string): Day =>
  HOT.test(words) ? 'hot-fast' : COLD.test(words) ? 'cold-slow' : 'usual';
/** The day of a time: where it is said in world time, the shop's; else that of the place where it is played. */
function dayOf(time: ICAL.Time, timeZone: string): string {
  if (!time.isDate && time.zone.tzid === 'UTC') return dayIn(timeZone, time.toJSDate().toISOString());
  const { year, month, day } = time;
  return [String(year).padStart(4, '0'), String(month).padStart(2, '0'), String(day).padStart(2, '0')].join(
    '-',
  );
}

/** One occurrence of an event as days: its end is no part of it (RFC 5545, 3.6.1). */
function daysOfEvent(
  start: ICAL.Time,
  end: ICAL.Time,
  timeZone: string,
): Pick<FileDate, 'fromDay' | 'toDay'> {
  const fromDay = dayOf(start, timeZone);
  const before = end.clone();
  before.adjust(0, 0, 0, -1);
  const last = end.isDate ? dayAfter(dayOf(end, timeZone), -1) : dayOf(before, timeZone);
  return { fromDay, toDay: last < fromDay ? fromDay : last };
}

/**
 * Matches and rests of a calendar file (RFC 5545): what its words call a rest is one, all else is a match. What recurs is read as far as a season goes.
 * @param timeZone of the shop @throws ApiProblem where it is no calendar file
 */
export function readCalendar(text: string, today: string, timeZone: string): ReadCalendar {
  const [first, last] = [dayAfter(today, -SEASON_LIMITS.backDays), dayAfter(today, SEASON_LIMITS.aheadDays)];
  let events: ICAL.Component[];
  try {
    events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
  } catch {
    throw new ApiProblem('no-calendar');
  }
  const dates: FileDate[] = [];
  let skipped = 0;
  for (const component of events) {
    const event = new ICAL.Event(component);
    const words = [event.summary, event.location, event.description].filter(Boolean).join(' ');
    const categories = component
      .getAllProperties('categories')
      .flatMap((property) => property.getValues() as string[]);
    const isOff = component.getFirstPropertyValue('status') === 'CANCELLED';
    if (!event.startDate || isOff || categories.includes(TASK)) {
      skipped++;
      continue;
    }
    const kind: SeasonKind =
      categories.includes('rest') || (!categories.includes('match') && REST.test(words)) ? 'rest' : 'match';
    const put = (start: ICAL.Time, end: ICAL.Time, nth: string): void => {
      const days = daysOfEvent(start, end, timeZone);
      const long = days.toDay > dayAfter(days.fromDay, SEASON_LIMITS.longestDays - 1);
      if (days.toDay < first || days.fromDay > last || long || dates.length >= SEASON_LIMITS.most) {
        skipped++;
        return;
      }
      dates.push({
        uid: `${event.uid || `${event.summary} ${days.fromDay}`}${nth}`.slice(0, 200),
        kind,
        ...days,
        title: (event.summary ?? '').slice(0, 120),
        venue: kind === 'rest' ? 'usual' : venueOf(`${words} ${categories.join(' ')}`),
      });
    };
    if (!event.isRecurring()) {
      put(event.startDate, event.endDate ?? event.startDate, '');
      continue;
    }
    const each = event.iterator();
    for (let next = each.next(); next && dayOf(next, timeZone) <= last; next = each.next()) {
      const { startDate, endDate } = event.getOccurrenceDetails(next);
      if (dayOf(endDate, timeZone) >= first) put(startDate, endDate, ` ${dayOf(startDate, timeZone)}`);
      if (dates.length >= SEASON_LIMITS.most) break;
    }
  }
  return { dates, skipped };
}

const VENUE_WORDS: Record<Day, string> = { usual: '', 'hot-fast': 'hot', 'cold-slow': 'cold' };

/** A season as a calendar file: its matches and rests, and what is to be done, each as whole days. The same entry has the same id, however often the file is taken. */
export function writeCalendar(shop: string, { player, dates, tasks }: SeasonPage, stamp: string): string {
  const calendar = ical({ name: `${shop}: ${player.name}` });
  const wholeDay = (fromDay: string, toDay: string) => ({
    start: new Date(`${fromDay}T00:00:00Z`),
    // The day after the last one: the end is not part of it.
    end: new Date(`${dayAfter(toDay, 1)}T00:00:00Z`),
    allDay: true,
    timezone: 'UTC',
    stamp: new Date(stamp),
  });
  for (const { id, kind, fromDay, toDay, title, venue } of dates)
    calendar.createEvent({
      ...wholeDay(fromDay, toDay),
      id,
      summary: title || SEASON_KIND_NAMES[kind],
      categories: [
        { name: kind },
        ...(kind === 'match' && VENUE_WORDS[venue] ? [{ name: VENUE_WORDS[venue] }] : []),
      ],
    });
  for (const [place, task] of tasks.entries())
    calendar.createEvent({
      ...wholeDay(task.on, task.on),
      id: `${player.id}-${task.what}-${task.tag ?? ''}-${task.step ?? task.before ?? place}@kevro`,
      summary: seasonTaskSentence(task),
      categories: [{ name: TASK }],
    });
  return calendar.toString();
}
