import { z } from 'zod';
import { SPECS, CALIBRATION_STATES, REFUSALS } from '@kevro/core';
import { DRIVERS, INSTRUMENT_KINDS } from '../instrument-kinds';
import { quantity } from './measurement';
import { text } from './text';

export const instrumentKind = z.enum(INSTRUMENT_KINDS);

/** What an instrument is good for, in its own unit: g, cm or kg·cm². */
export const dataSheet = z.strictObject({
  repeatability: z
    .number()
    .positive()
    .max(20)
    .describe('standard uncertainty of one reading that repeats lessen'),
  accuracy: z
    .number()
    .min(0)
    .max(20)
    .describe('standard uncertainty that stays, until a calibration replaces it'),
  resolution: z.number().positive().max(5),
  driftPerHour: z.number().min(0).max(5),
  warmUpMinutes: z.number().min(0).max(60),
  axisCm: z
    .number()
    .min(0)
    .max(30)
    .nullable()
    .describe('where a machine turns the frame; null: at the sport’s own axis'),
});

export const newInstrument = z.strictObject({
  name: text(60).min(1),
  kind: instrumentKind,
  driver: z.enum(DRIVERS).default('stand-in'),
  sheet: dataSheet,
  note: text(200).default(''),
});

export const rodReads = z.strictObject({
  trueValue: z.number().positive().max(1000),
  reads: z.array(z.number().min(-100).max(2000)).min(1).max(20),
});
export const newCalibration = z.strictObject({
  key: z.string().min(8).max(80),
  rods: z.array(rodReads).min(2).max(6),
});
export const calibration = z.strictObject({
  id: z.string(),
  instrumentId: z.string(),
  takenAt: z.string(),
  rods: z.array(rodReads),
  slope: z.number(),
  offset: z.number(),
  residuals: z.array(z.number()).describe('what is left at each rod after correction'),
  refused: z.enum(REFUSALS).nullable(),
});

/** What lies on a stand-in: a frame of the shop, or a calibration rod. */
export const onStandIn = z.union([
  z.strictObject({ frameId: z.string() }),
  z.strictObject({ rod: z.number().positive().max(1000) }),
]);

/** What an instrument is asked to read. */
export const asked = z.union([
  z.strictObject({
    frameId: z.string(),
    quantity: quantity.describe(`a machine reads a ${SPECS.twistWeight.name} edge-on`),
  }),
  z.strictObject({ rod: z.number().positive().max(1000) }),
]);
export const takeReading = z.strictObject({ key: z.string().min(8).max(80), asked });

/** An instrument as it stands. */
export const instrument = newInstrument.extend({
  id: z.string(),
  retired: z.boolean().describe('reads nothing any more; its calibrations and readings stay'),
  state: z.enum(['ready', 'warming', 'lost']),
  warmInSeconds: z.number(),
  /** The reading under way; it waits where the instrument is lost. */
  reading: z.strictObject({ key: z.string(), asked, swings: z.array(z.number()) }).nullable(),
  on: onStandIn.nullable(),
  plugged: z.boolean(),
  bench: z
    .string()
    .nullable()
    .describe('the bench machine that it is plugged into; null where that is the one that answers'),
  calibration: calibration.nullable(),
  calibrationState: z.enum(CALIBRATION_STATES),
  simulated: z.boolean().describe('whether things can be put on it and its cable pulled'),
});

/** What comes down the instruments' stream, one message an event. */
export const instrumentMessage = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('instruments'), instruments: z.array(instrument) }),
  z.strictObject({
    kind: z.literal('sample'),
    instrumentId: z.string(),
    value: z.number(),
    steady: z.boolean(),
  }),
  z.strictObject({
    kind: z.literal('taken'),
    instrumentId: z.string(),
    key: z.string(),
    asked,
    value: z.number(),
  }),
  z.strictObject({
    kind: z.literal('failed'),
    instrumentId: z.string(),
    key: z.string(),
    asked,
    code: z.string(),
    message: z.string(),
  }),
]);

export type DataSheet = z.output<typeof dataSheet>;
export type NewInstrument = z.input<typeof newInstrument>;
export type Instrument = z.output<typeof instrument>;
export type CalibrationRecord = z.output<typeof calibration>;
export type OnStandIn = z.output<typeof onStandIn>;
export type Asked = z.output<typeof asked>;
export type InstrumentMessage = z.output<typeof instrumentMessage>;
