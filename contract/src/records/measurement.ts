import { z } from 'zod';
import { MEANS, PURPOSES, QUANTITIES } from '@kevro/core';
import { dress, specParted, specUncertainty, specs, standardUncertainty } from '../shapes';

export const quantity = z.enum(QUANTITIES);
export const means = z.enum(MEANS);

/** What a measurement is for, and the round of a fitting that it belongs to. */
export const takenFor = {
  purpose: z.enum(PURPOSES).default('found').describe('`found` with a round makes it the round’s start'),
  roundId: z.string().nullable().default(null),
  step: z
    .string()
    .max(120)
    .nullable()
    .default(null)
    .describe(
      'the bench step that it was taken at, which is done with it; of a trial and a check their own step',
    ),
};

export const newMeasurement = z.strictObject({
  /** Made by the client once a draft: the same key twice stores one measurement. */
  key: z.string().min(8).max(80),
  dress,
  specs,
  uncertainty: z
    .union([specUncertainty, specParted])
    .optional()
    .describe(
      'standard uncertainties, in their parts or whole; what is whole is split as is usual, and typical ones are taken if left out',
    ),
  estimated: z.array(quantity).default([]).describe('what was not measured but estimated'),
  leftRight: z
    .strictObject({ massG: z.number(), uncertainty: standardUncertainty })
    .nullable()
    .default(null)
    .describe('grams at the widest part of the head by which its right side is heavier'),
  note: z.string().trim().max(500).default(''),
  ...takenFor,
});

/** How a quantity of a measurement was found. */
export const howFound = z.strictObject({
  means: z.array(means),
  count: z.number(),
  instruments: z.array(z.string()),
  calibrations: z.array(z.string()),
});

/** A measurement put right: a new one takes its place, and the first stays beside it with the reason. */
export const correction = newMeasurement
  .omit({ purpose: true, roundId: true, step: true })
  .extend({ reason: z.string().trim().min(1).max(500) });
/** Marks a measurement as wrong, or takes the mark away. */
export const counting = z.strictObject({
  counts: z.boolean(),
  reason: z.string().trim().min(1).max(500),
});

export const measurement = z.strictObject({
  id: z.string(),
  frameId: z.string(),
  takenAt: z.string(),
  purpose: z.enum(PURPOSES),
  roundId: z.string().nullable(),
  dress,
  specs: specs.extend({ axisCm: z.number() }),
  uncertainty: specUncertainty,
  parts: specParted.describe('of the values as they are, after their repeats'),
  estimated: z.array(quantity),
  leftRight: newMeasurement.shape.leftRight.unwrap(),
  how: z.partialRecord(quantity, howFound).describe('empty where the measurement came in whole'),
  note: z.string(),
  counts: z.boolean().describe('false where it was marked as wrong, or another took its place'),
  why: z.string().describe('why it does not count, or why it took the place of another'),
  supersedes: z.string().nullable(),
  supersededBy: z.string().nullable(),
});
export type Measurement = z.output<typeof measurement>;
