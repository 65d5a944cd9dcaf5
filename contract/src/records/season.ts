import { z } from 'zod';
import { DAYS, PROGRAMMES, SEASON_KINDS, SEASON_TASKS } from '@kevro/core';
import { date } from '../shapes';
import { key, text } from './text';

/** How far a calendar goes: what is older or further away is left out of a file, days; and how many dates one may bring. */
export const SEASON_LIMITS = { backDays: 30, aheadDays: 400, longestDays: 120, most: 300 } as const;

const dated = z.strictObject({
  kind: z.enum(SEASON_KINDS),
  fromDay: date,
  toDay: date,
  title: text(120).default(''),
  venue: z.enum(DAYS).default('usual').describe('how it is played there'),
});
const wrongWay = { path: ['toDay'], params: { code: 'ends-before' } };
const isForward = ({ fromDay, toDay }: { fromDay: string; toDay: string }): boolean => toDay >= fromDay;
export const editSeasonDate = dated.refine(isForward, wrongWay);
export const newSeasonDate = dated.extend({ key }).refine(isForward, wrongWay);
export const seasonDate = dated.extend({ id: z.string() });
export type SeasonDateRecord = z.output<typeof seasonDate>;

export const seasonTask = z.strictObject({
  what: z.enum(SEASON_TASKS),
  on: date,
  tag: z.string().optional().describe('the frame; left out where it is about the player'),
  programme: z.enum(PROGRAMMES).optional(),
  step: z.int().optional(),
  venue: z.enum(DAYS).optional(),
  before: date.optional().describe('the first day of the match that it is for'),
  last: z.boolean().optional().describe('the programme ends with it'),
  late: z.boolean().optional().describe('its own day is past: it was moved'),
});
/** A player's season: matches and rests, and what is to be done by when. */
export const seasonPage = z.strictObject({
  player: z.strictObject({ id: z.string(), name: z.string() }),
  today: date,
  dates: z.array(seasonDate).describe('from a month ago on'),
  frames: z
    .array(z.strictObject({ id: z.string(), tag: z.string(), fittingId: z.string().nullable() }))
    .describe('that it is about, with the open fitting that each is in'),
  tasks: z.array(seasonTask).describe('for half a year, the next first'),
});
export type SeasonPage = z.output<typeof seasonPage>;

export const seasonFile = z.strictObject({
  key,
  text: z.string().max(1_000_000).describe('a calendar file (RFC 5545)'),
});
export const seasonRead = seasonPage.extend({
  added: z.int(),
  changed: z.int().describe('dates of the same file that were there already'),
  skipped: z.int().describe('entries without a day, called off, longer than four months or too far away'),
});
