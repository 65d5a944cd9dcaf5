import type { SeasonKind, SeasonTask } from '@kevro/core';
import { seasonTaskSentence, type SeasonDateRecord, type SeasonPage } from '@kevro/contract';
import { counted } from './counted';
import { dayWords } from './days';

export const SEASON_KIND_WORDS: Record<SeasonKind, string> = { match: 'Matches', rest: 'A rest' };

/** What is done on the frame's own page; all else is done in its fitting. */
export const IS_OF_FRAME: Partial<Record<SeasonTask['what'], true>> = { strings: true };

/** A line of a season: a date of the calendar, or what is to be done. */
export type SeasonLine = { day: string } & ({ date: SeasonDateRecord } | { task: SeasonTask });
/** Dates and tasks in one list, by day: of one day what is to be done stands first. */
export const seasonLines = ({ dates, tasks }: Pick<SeasonPage, 'dates' | 'tasks'>): SeasonLine[] =>
  [
    ...tasks.map((task): SeasonLine => ({ day: task.on, task })),
    ...dates.map((date): SeasonLine => ({ day: date.fromDay, date })),
  ].toSorted((a, b) => a.day.localeCompare(b.day));

/** «T-1: new strings, before the match of 12 Dec» */
export function taskWords(task: SeasonTask): string {
  const before = task.before ? `, before the match of ${dayWords(task.before)}` : '';
  return `${seasonTaskSentence(task)}${before}${task.late ? '; it was due before' : ''}`;
}
/** «12 Dec», «12 to 14 Dec» */
export const spanWords = ({ fromDay, toDay }: Pick<SeasonDateRecord, 'fromDay' | 'toDay'>): string =>
  fromDay === toDay ? dayWords(fromDay) : `${dayWords(fromDay)} to ${dayWords(toDay)}`;
/** What came of reading a calendar file. @example readWords({ added: 3, changed: 0, skipped: 1 }) // '3 dates added. 1 entry left out: no day, called off, or too far away.' */
export function readWords({
  added,
  changed,
  skipped,
}: {
  added: number;
  changed: number;
  skipped: number;
}): string {
  const parts = [added > 0 || changed === 0 ? `${counted(added, 'date', 'dates')} added.` : ''];
  if (changed > 0) parts.push(`${counted(changed, 'date', 'dates')} brought up to date.`);
  if (skipped > 0)
    parts.push(`${counted(skipped, 'entry', 'entries')} left out: no day, called off, or too far away.`);
  return parts.filter(Boolean).join(' ');
}
