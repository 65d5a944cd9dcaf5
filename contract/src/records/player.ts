import { z } from 'zod';
import { GUIDES } from '@kevro/core';
import { sport } from '../shapes';

const text = (most: number) => z.string().trim().max(most);
const name = text(80).min(1);

export const newPlayer = z.strictObject({
  name,
  sport,
  birthYear: z.int().min(1900).max(2100).nullable().default(null),
  level: text(80).default(''),
  style: text(200).default(''),
  bothers: text(200).default(''),
  ceilingSwingWeight: z.number().positive().max(1000).nullable().default(null),
  guide: z.enum(GUIDES).nullable().default(null).describe('the band of specs that suits this player'),
});
export const player = newPlayer.extend({ id: z.string() });
export type NewPlayer = z.input<typeof newPlayer>;
export type Player = z.output<typeof player>;
