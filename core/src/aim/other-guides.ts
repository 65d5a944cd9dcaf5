import type { Sport } from '../sport';

/** A named band of one spec (common practice; a shop's own judgement comes first). An open end is left out. */
export interface Band {
  name: string;
  from?: number;
  to?: number;
}

/** Bands by sport: unstrung weight classes of juniors, swing weight of paddles, weight and balance of badminton frames, weight in padel. */
export const BANDS: Record<Sport, Partial<Record<'massG' | 'balanceCm' | 'swingWeight', readonly Band[]>>> = {
  tennis: {},
  pickleball: {
    swingWeight: [
      { name: 'light', to: 115 },
      { name: 'medium', from: 115, to: 120 },
      { name: 'heavy', from: 120 },
    ],
  },
  badminton: {
    massG: [
      { name: '4U', from: 80, to: 85 },
      { name: '3U', from: 85, to: 90 },
    ],
    balanceCm: [
      { name: 'head-light', to: 29 },
      { name: 'even', from: 29, to: 29.5 },
      { name: 'head-heavy', from: 29.5 },
    ],
  },
  padel: {
    massG: [
      { name: 'usual', from: 350, to: 375 },
      { name: 'only for strong arms', from: 375 },
    ],
  },
};

/** The band a value falls in; the lower end belongs to the band, the upper to the next. */
export const bandOf = (bands: readonly Band[], value: number): Band | undefined =>
  bands.find(({ from = -Infinity, to = Infinity }) => value >= from && value < to);

/** Unstrung weight that suits a junior's age, g: to about 11 years 260, 12 to 14 years 280, from 15 years 300 (common practice). */
export const juniorClassG = (age: number): number => (age < 12 ? 260 : age < 15 ? 280 : 300);

const CLASSES_G = [260, 280, 300, 315];

/** How many classes too heavy an unstrung weight is for a junior's age: one is a warning, two a strong one. @example classesOver(13, 300) // 1 */
export function classesOver(age: number, unstrungG: number): number {
  const own = CLASSES_G.indexOf(juniorClassG(age));
  const nearest = CLASSES_G.reduce(
    (best, classG, i) =>
      Math.abs(classG - unstrungG) < Math.abs((CLASSES_G[best] as number) - unstrungG) ? i : best,
    0,
  );
  return Math.max(0, nearest - own);
}
