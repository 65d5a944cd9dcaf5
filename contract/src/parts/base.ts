import { z } from 'zod';
import { text } from '../records/text';

const positive = (most: number) => z.number().positive().max(most);

/** What every part has beside its kind's own. */
export const partBase = {
  name: text(80).min(1),
  note: text(200).default(''),
  typical: z
    .literal(true)
    .optional()
    .describe('its weight is that of its kind: nobody in the shop weighed it yet'),
};
/** Anything put on is light beside a frame. */
export const grams = positive(100);
export const gramsPerCm = positive(10);
export const cm = positive(100);
export const mm = positive(100);
/** Standard uncertainty of a mass as a share of it. */
export const share = z.number().min(0).max(0.5);
