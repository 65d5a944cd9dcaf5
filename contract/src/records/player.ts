import { z } from 'zod';
import { SPECS, BOTHERS } from '@kevro/core';
import { guideName, sport } from '../shapes';
import { text, yes } from './text';

export const BUILDS = ['slight', 'medium', 'strong'] as const;
export const HANDS = ['right', 'left', 'both'] as const;
/** What a player puts first in a frame. */
export const PUTS_FIRST = ['control', 'power', 'comfort', 'stability', 'hand-speed', 'reach'] as const;
export const newPlayer = z.strictObject({
  name: text(80).min(1),
  sports: z.array(sport).min(1).max(4),
  birthYear: z.int().min(1900).max(2100).nullable().default(null),
  heightCm: z.number().min(80).max(240).nullable().default(null),
  build: z.enum(BUILDS).nullable().default(null),
  level: text(80).default('').describe('in plain words'),
  levelScale: z.int().min(1).max(7).nullable().default(null),
  handedness: z.enum(HANDS).nullable().default(null),
  style: text(200).default(''),
  putsFirst: z.enum(PUTS_FIRST).nullable().default(null),
  bothers: z.array(z.enum(BOTHERS)).max(BOTHERS.length).default([]),
  botherNote: text(200).default('').describe('what bothers them, in their own words'),
  ceilings: z
    .partialRecord(sport, z.number().positive().max(1000))
    .default({})
    .describe(`the ${SPECS.swingWeight.name} that the player is known to carry, sport by sport`),
  sessionsAWeek: z.number().min(0).max(21).nullable().default(null),
  guides: z
    .partialRecord(sport, guideName)
    .default({})
    .describe('the band of specs that suits this player, sport by sport'),
  armHistory: text(1000)
    .optional()
    .describe('private: stored, and answered only where it is asked for; left out leaves what is stored'),
});
/** A player without the arm history: only whether there is one. */
export const player = newPlayer
  .omit({ armHistory: true })
  .extend({ id: z.string(), hasArmHistory: z.boolean(), archived: z.boolean() });
export const armHistory = z.strictObject({ text: z.string() });

export const playerQuery = z.strictObject({
  search: text(80).optional(),
  sport: sport.optional(),
  sort: z.enum(['name', 'age', 'level']).default('name'),
  archived: yes,
  limit: z.coerce.number().int().min(1).max(500).default(200),
  offset: z.coerce.number().int().min(0).default(0),
});

export type NewPlayer = z.input<typeof newPlayer>;
export type Player = z.output<typeof player>;
export type PlayerQuery = z.output<typeof playerQuery>;
