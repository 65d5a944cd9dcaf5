import { z } from 'zod';
import { BASE_GRIPS, HOOP_PLACES, STRING_CHANGES, STRING_KINDS } from '@kevro/core';
import { text } from './text';

const ofPart = {
  id: z.string().min(1).max(80),
  partId: z.string().max(80).describe('the part it is made of; empty where nobody knows'),
  sides: z.union([z.literal(1), z.literal(2)]).describe('2: half of it on each side of the long axis'),
  layers: z.int().min(1).max(50),
  massG: z.number().positive().max(200).describe('both sides and all layers'),
};
const along = {
  startCm: z.number().min(-100).max(100),
  endCm: z.number().min(-100).max(100),
};
const onRim = z.strictObject({
  path: z.literal('rim'),
  ...ofPart,
  ...along,
  hoop: z.enum(HOOP_PLACES).optional().describe('where on the hoop; the sport’s usual place if left out'),
});
const onThroat = z.strictObject({ path: z.literal('throat'), ...ofPart, ...along });
const inHandle = z.strictObject({ path: z.literal('handle'), ...ofPart, ...along });
const inSlot = z.strictObject({ path: z.literal('slot'), ...ofPart, slot: z.int().min(1).max(12) });

/**
 * Weight along a line of the frame from start to end, cm: on the rim from the tip (negative on the left side), on the throat from the handle, in the handle from
 * the butt; equal for a point. Or in a slot, by its number.
 */
export const placedPart = z.discriminatedUnion('path', [onRim, onThroat, inHandle, inSlot]);

const what = { what: text(60).default('').describe('in words, where no part says it') };
/** What is on a frame, in the same language. */
export const onFrame = z.discriminatedUnion('path', [
  onRim.extend(what),
  onThroat.extend(what),
  inHandle.extend(what),
  inSlot.extend(what),
]);

const tensionKg = z.number().min(1).max(50);
const gaugeMm = z.number().min(0.4).max(2);
/** One change of strings, as a programme proposes it. */
export const stringStep = z.strictObject({
  change: z.enum(STRING_CHANGES),
  byKg: z.number().positive().max(20).optional(),
  to: z.enum(STRING_KINDS).optional(),
});
/** How new strings are to go in, as far as somebody said. */
export const stringingJob = z.strictObject({
  mains: text(80).optional(),
  crosses: text(80).optional(),
  mainsKind: z.enum(STRING_KINDS).optional(),
  crossesKind: z.enum(STRING_KINDS).optional(),
  mainsMm: gaugeMm.optional(),
  crossesMm: gaugeMm.optional(),
  mainsKg: tensionKg.optional(),
  crossesKg: tensionKg.optional(),
  unit: z.enum(['kg', 'lb']).optional().describe('how the tension is said; it is stored in kg'),
  preStretchPercent: z.number().min(0).max(30).optional(),
  step: stringStep
    .optional()
    .describe('what it changes of the strings before, where a programme asked for it'),
});

/** A part of the dress that is changed for another. */
export const swap = z.discriminatedUnion('what', [
  z.strictObject({ what: z.literal('overgrips'), to: z.int().min(0).max(6) }),
  z.strictObject({ what: z.literal('baseGrip'), to: z.enum(BASE_GRIPS) }),
  z.strictObject({ what: z.literal('dampener'), to: z.boolean() }),
  z.strictObject({
    what: z.literal('strings'),
    to: z.union([z.literal(true), z.strictObject({ massG: z.number().positive().max(40) })]),
    job: stringingJob.optional().describe('how they are to go in'),
  }),
]);
/** Weight that comes off, whole or down to what is left. */
export const removal = z.strictObject({ of: placedPart, left: placedPart.optional() });

export type OnFrame = z.output<typeof onFrame>;
