import { z } from 'zod';
import { PART_SCHEMAS } from '../parts';

const { tape, filling, wrap, baseGrip, overgrip, sleeve, dampener, string, insert, dab } = PART_SCHEMAS;

/** Anything that a shop puts on a frame, told apart by its kind. */
export const newPart = z.discriminatedUnion('kind', [
  tape,
  filling,
  wrap,
  baseGrip,
  overgrip,
  sleeve,
  dampener,
  string,
  insert,
  dab,
]);
const stored = { id: z.string() };
/** A part as it is kept, and as a plan keeps the parts that it was made of. */
export const part = z.discriminatedUnion('kind', [
  tape.extend(stored),
  filling.extend(stored),
  wrap.extend(stored),
  baseGrip.extend(stored),
  overgrip.extend(stored),
  sleeve.extend(stored),
  dampener.extend(stored),
  string.extend(stored),
  insert.extend(stored),
  dab.extend(stored),
]);
const sampleG = z.number().positive().max(2000);
/** Common parts to begin a stock with; with what a sample of it weighed, where somebody put one on the scale. */
export const startersPicked = z
  .array(z.strictObject({ starter: z.string().max(60), sampleG: sampleG.optional() }))
  .max(40);
export const addStarters = z.strictObject({ starters: startersPicked.min(1) });
export const weighPart = z.strictObject({
  sampleG: sampleG.describe('what a metre of tape, 10 cm of handle, or one piece weighed, g'),
});

/** A part in the list: one that is retired stays, since builds are made of it. */
export const partRow = z.strictObject({ part, retired: z.boolean() });

export type NewPart = z.input<typeof newPart>;
export type PartRecord = z.output<typeof part>;
export type PartRow = z.output<typeof partRow>;
