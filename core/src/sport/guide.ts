import type { SpecKey } from '../spec';
import type { Dress } from './kit';

/** The names of all guides; what each is called in words stands in the page's words. */
export const GUIDES = [
  'junior-26',
  'first-full',
  'average-adult',
  'strong-adult',
  'advanced',
  'very-strong',
  'light',
  'medium',
  'heavy',
  '4u',
  '3u',
  'usual',
  'strong-arm',
] as const;
export type GuideName = (typeof GUIDES)[number];

/** A band of one spec in the dress that it is said for. An open end is left out. */
export interface GuideBand {
  from?: number;
  to?: number;
  dress: Dress;
}

/** Bands of specs that suit a kind of player (common practice; a shop's own judgement comes first). */
export type Guide = Partial<Record<SpecKey, GuideBand>>;

/** A named band of one spec, for saying what a number is. An open end is left out. */
export interface Band {
  name: string;
  from?: number;
  to?: number;
}

/** Unstrung weight that suits a junior below an age, g. */
export interface JuniorClass {
  underAge: number;
  unstrungG: number;
}
