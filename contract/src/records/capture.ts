import { SPECS } from '@kevro/core';
import { z } from 'zod';
import { dress } from '../shapes';
import { means, quantity, takenFor } from './measurement';

const positive = z.number().positive();
const swings = z.int().min(1).max(500);
export const pendulumSetting = z.strictObject({
  pivotCm: z.number().min(0).max(100),
  swings,
  seconds: positive.max(3600),
  amplitudeDeg: z.number().min(0).max(90),
  endAmplitudeDeg: z.number().min(0).max(90).optional().describe('at the end of the timing'),
});
export const threadsSetting = z.strictObject({
  threadCm: positive.max(1000),
  separationCm: positive.max(200),
  swings,
  seconds: positive.max(3600),
  amplitudeDeg: z.number().min(0).max(90).optional(),
  endAmplitudeDeg: z.number().min(0).max(90).optional(),
});

/** How uncertain the seconds of a film are, standard uncertainties. */
export const filmTiming = z.strictObject({
  random: positive.max(60).describe('s, which another film does not share'),
  common: positive.max(60).describe('s, which another film shares'),
});

/** The readings that the page shows: where others stand by now, nothing is added to those. */
export const ofCapture = { captureId: z.string().optional() };

/** A reading that no instrument sends: typed, timed, or an estimate. The server adds what it is uncertain by. */
export const newReading = z.discriminatedUnion('means', [
  z.strictObject({
    means: z.enum(['typed', 'edge-on']),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity,
    value: z.number().min(-100).max(5000),
    axisCm: z
      .number()
      .min(0)
      .max(30)
      .optional()
      .describe(`what a ${SPECS.swingWeight.name} was read about; the sport’s own axis if left out`),
  }),
  z.strictObject({
    means: z.literal('pendulum'),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity: z.literal('swingWeight'),
    timing: pendulumSetting,
  }),
  z.strictObject({
    means: z.literal('threads'),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity: z.literal('twistWeight'),
    timing: threadsSetting,
  }),
  z.strictObject({
    means: z.literal('filmed-swing'),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity: z.literal('swingWeight'),
    timing: pendulumSetting,
    film: filmTiming,
  }),
  z.strictObject({
    means: z.literal('filmed-twist'),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity: z.literal('twistWeight'),
    timing: threadsSetting,
    film: filmTiming,
  }),
  z.strictObject({
    means: z.literal('estimate'),
    ...ofCapture,
    key: z.string().min(8).max(80),
    quantity: z.enum(['swingWeight', 'twistWeight']),
  }),
]);

/** A reading as it is kept: as the core's own, with where it came from. */
export const reading = z.strictObject({
  id: z.string(),
  takenAt: z.string(),
  quantity,
  means,
  value: z.number().optional(),
  raw: z.number().optional().describe('as the instrument sent it, before correction'),
  axisCm: z.number().optional(),
  random: z.number(),
  common: z.number(),
  scale: z.number().optional(),
  source: z.string(),
  timing: z.union([pendulumSetting, threadsSetting]).optional(),
  instrumentId: z.string().nullable(),
  calibrationId: z.string().nullable(),
  setAside: z.boolean(),
});

/** The readings of a frame that are not stored as a measurement yet. */
export const capture = z.strictObject({
  id: z.string(),
  frameId: z.string(),
  openedAt: z.string(),
  dress,
  dressSaid: z.boolean().describe('whether the fitter has said what is on the frame'),
  readings: z.array(reading),
});

export const setAside = z.strictObject({ readingId: z.string(), setAside: z.boolean() });
export const storeCapture = z.strictObject({
  captureId: z.string(),
  note: z.string().trim().max(500).default(''),
  ...takenFor,
});

export type CaptureRecord = z.output<typeof capture>;
export type ReadingRecord = z.output<typeof reading>;
export type NewReading = z.output<typeof newReading>;
