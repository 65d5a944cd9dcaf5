import { z } from 'zod';
import { ALL_SPORTS, PART_UNITS, bySpec } from '@kevro/core';
import { BENCH_TOOLS } from '../instrument-kinds';
import { startersPicked } from './part';
import { text } from './text';

function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const positive = z.number().positive().max(1000);
/** What a shop works to otherwise than a sport ships. */
export const ownNumbers = z.strictObject({
  tolerance: z
    .strictObject(bySpec(() => positive))
    .partial()
    .optional(),
  noticeable: z
    .strictObject({
      massG: positive,
      balanceCm: positive,
      swingWeightShare: z.number().positive().max(0.5),
      twistWeight: positive,
    })
    .partial()
    .optional(),
  strings: z
    .strictObject({
      days: z
        .int()
        .min(1)
        .max(1000)
        .optional()
        .describe('left out: as often a year as somebody plays a week'),
      hours: z.number().positive().max(1000).optional(),
      felt: z.boolean().optional(),
      settleHours: z
        .number()
        .positive()
        .max(168)
        .optional()
        .describe('new strings settle so long before the check'),
      order: text(200).optional().describe('in which order mains and crosses are done, in words'),
    })
    .optional()
    .describe('when strings are due for new ones'),
  smallestPieceG: z
    .number()
    .positive()
    .max(10)
    .optional()
    .describe('no plan and no trim has a smaller piece'),
});

export const editShop = z.strictObject({
  wantedChance: z
    .number()
    .min(0.5)
    .max(0.99)
    .optional()
    .describe('how often a check is to pass at first: so many readings are asked for; left out it stays'),
  partUnit: z.enum(PART_UNITS).optional().describe('what weights of parts are said in; left out it stays'),
  name: z.string().trim().min(1).max(80),
  town: z.string().trim().max(80),
  timeZone: z
    .string()
    .max(60)
    .refine(isTimeZone, { params: { code: 'no-time-zone' } })
    .optional()
    .describe('IANA name: the days of the shop are counted there; left out it stays'),
  backupsKept: z
    .int()
    .min(0)
    .max(365)
    .optional()
    .describe('how many of the daily backups are kept, 0 for none to be made; left out it stays'),
  signedInHours: z
    .int()
    .min(1)
    .max(24 * 31)
    .optional()
    .describe('how long another device stays signed in; left out it stays'),
  sports: z
    .partialRecord(z.enum(ALL_SPORTS), ownNumbers)
    .optional()
    .describe('tolerances and noticeable steps that differ from what ships; left out they stay'),
  calibrationHours: z.int().min(1).max(8760).describe('how long a calibration of a machine counts'),
  learnsFromAll: z
    .boolean()
    .optional()
    .describe('whether sessions of all players advise the next one; left out it stays'),
  fits: z
    .array(z.enum(ALL_SPORTS))
    .optional()
    .describe('the sports whose frames it fits, named first; empty: all of them. Left out it stays'),
  measuresWith: z
    .array(z.enum(BENCH_TOOLS))
    .optional()
    .describe('what it measures with; empty: not said. Left out, it stays as it is'),
});
export const shop = editShop.required().extend({
  demo: z.boolean(),
  begun: z.boolean().describe('whether anything was said or stored yet: a new shop is asked a few things'),
});
/** The few things that a new shop is asked; each may be left out. */
export const beginShop = z.strictObject({
  ...editShop.pick({ partUnit: true, timeZone: true }).shape,
  name: editShop.shape.name.optional(),
  town: editShop.shape.town.default(''),
  fits: editShop.shape.fits.unwrap().default([]),
  measuresWith: editShop.shape.measuresWith.unwrap().default([]),
  starters: startersPicked.default([]),
});
export type Shop = z.output<typeof shop>;

export const backups = z.strictObject({
  folder: z.string().describe('where they lie on the bench machine'),
  rows: z.array(z.strictObject({ name: z.string(), takenAt: z.string(), bytes: z.number() })),
  restores: z.boolean().describe('whether one can be put in the place of this shop while it is served'),
  database: z.enum(['folder', 'server']).describe('where the database of the shop lies'),
});
export const restoreQuery = z.object({
  name: z
    .string()
    .max(100)
    .default('')
    .describe('which of the kept backups; where it is empty, the backup is what is sent'),
});
export const restored = z.strictObject({
  takenAt: z.string().describe('when the backup was taken'),
  before: z.string().describe('the backup of what the shop held until now'),
});
