import { z } from 'zod';
import { SPECS, CALIBRATION_STATES, PRINTED_UNIT_NAMES, REFUSALS, SAYINGS } from '@kevro/core';
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

/** How the lines of a device are read; see `readLine` of the core. */
export const linePattern = z.strictObject({
  decimal: z.enum(['.', ',']),
  numbers: z.number().int().min(1).max(12).describe('how many numbers a line has'),
  counts: z.number().int().min(0).max(11).describe('which of them counts, from 0'),
  unit: z.enum(PRINTED_UNIT_NAMES).nullable().describe('of a number without one behind it'),
  words: z
    .array(
      z.strictObject({
        word: text(20).min(1),
        where: z.enum(['before', 'after']),
        says: z.enum([...SAYINGS, ...PRINTED_UNIT_NAMES]),
      }),
    )
    .max(30),
  width: z.number().int().min(1).max(200).nullable().describe('characters of a line, where it is padded'),
});

export const SPEEDS = [300, 600, 1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200] as const;
export const PARITIES = ['none', 'even', 'odd'] as const;
export const OUTPUTS = ['continuous', 'request', 'key'] as const;
const printable = z.string().regex(/^[ -~]*$/);
/** The port of a device and how it sends. */
export const serialPort = z.strictObject({
  path: text(200).min(1).describe('as the bench machine names it'),
  usb: z
    .strictObject({ vendor: text(40), product: text(40), serial: text(80) })
    .nullable()
    .default(null)
    .describe('by which it is found again under another name'),
  speed: z.literal(SPEEDS).default(9600),
  bits: z.literal([7, 8]).default(8),
  parity: z.enum(PARITIES).default('none'),
  stopBits: z.literal([1, 2]).default(1),
  output: z
    .enum(OUTPUTS)
    .default('continuous')
    .describe('whether it sends all the time, when it is asked, or when its print key is pressed'),
  ask: printable.max(40).default('').describe('what is sent to ask for a value'),
});
/** A device at a port, with how it is understood. */
export const serialLink = z.strictObject({
  ...serialPort.shape,
  ends: printable.max(1).default('').describe('what ends a line; empty for the usual ends'),
  pattern: linePattern,
});
/** A port of the bench machine, and whose it is. */
export const foundPort = z.strictObject({
  path: z.string(),
  usb: serialPort.shape.usb.unwrap(),
  says: z.string().describe('what the device says of itself'),
  instrument: z.string().describe('the instrument that has it; empty where none does'),
});
/** What came from a port since it was opened to look at. */
export const heardLines = z.strictObject({
  lines: z.array(z.string()).describe('the last ones, oldest first'),
  ends: z.string(),
  trouble: z.string().describe('what is wrong, as a sentence; empty where nothing is'),
});

export const newInstrument = z.strictObject({
  name: text(60).min(1),
  kind: instrumentKind,
  driver: z.enum(DRIVERS).default('stand-in'),
  sheet: dataSheet,
  note: text(200).default(''),
  link: serialLink.nullable().default(null).describe('where it is plugged in; of a device at a port only'),
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
  trouble: z.string().describe('what is wrong with its line, as a sentence; empty where nothing is'),
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
    tared: z.boolean(),
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

export type SerialPort = z.output<typeof serialPort>;
export type SerialLink = z.output<typeof serialLink>;
export type FoundPort = z.output<typeof foundPort>;
export type HeardLines = z.output<typeof heardLines>;
export type DataSheet = z.output<typeof dataSheet>;
export type NewInstrument = z.input<typeof newInstrument>;
export type Instrument = z.output<typeof instrument>;
export type CalibrationRecord = z.output<typeof calibration>;
export type OnStandIn = z.output<typeof onStandIn>;
export type Asked = z.output<typeof asked>;
export type InstrumentMessage = z.output<typeof instrumentMessage>;
