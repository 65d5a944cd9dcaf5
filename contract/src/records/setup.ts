import { z } from 'zod';
import { ALL_SPEC_KEYS, CONFIDENCES, SOURCE_KINDS, SPECS, capital, type AnySpecKey } from '@kevro/core';
import { SETUP_SORTS } from '../limits';
import { date, dress, frameShape, knownSpecs, specKey, sport } from '../shapes';
import { text, yes } from './text';

export const sourceKind = z.enum(SOURCE_KINDS);
export const confidence = z.enum(CONFIDENCES);

/** What is told of a frame beside its four specs; what is not known is left out. */
export const setupFacts = z.strictObject({
  pattern: text(20).optional(),
  beam: text(30).optional().describe('widths along the beam, mm'),
  gripSize: text(20).optional(),
  leftRightG: z.number().min(-50).max(50).optional().describe('how much heavier the left side is, g'),
  note: text(300).optional(),
});
/** The strings in it, as they were told. */
export const setupStrings = z.strictObject({
  mains: text(80).optional(),
  crosses: text(80).optional(),
  gauge: text(40).optional(),
  tension: text(60).optional(),
});

export const newSetup = z.strictObject({
  name: text(80).min(1),
  frameName: text(80)
    .default('')
    .describe('what the frame is, as far as it is known: what lies under the paint'),
  paint: text(80).default('').describe('what the paint says, where that is not the frame'),
  sourceKind,
  source: text(200).default(''),
  link: text(300).default('').describe('where it can be read, as text'),
  year: z.int().min(1900).max(2100).nullable().default(null),
  reportedOn: date.nullable().default(null),
  confidence: confidence.default('medium'),
  style: text(80).default('').describe('how its player plays'),
  shape: frameShape,
  dress,
  specs: knownSpecs.extend({ axisCm: z.number().min(0).max(30).optional() }),
  asReported: z
    .partialRecord(z.enum(ALL_SPEC_KEYS), text(40))
    .default({})
    .describe('the values as they were told, unit and all'),
  facts: setupFacts.default({}),
  strings: setupStrings.default({}),
});
/** A setup of an older file, where stiffness was a fact beside the specs, as one is written now. @example withRatings({ facts: { stiffness: 62 } }) // { facts: {}, specs: { stiffness: 62 } } */
export function withRatings(given: unknown): unknown {
  const old = z.looseObject({ facts: z.looseObject({ stiffness: z.number() }) }).safeParse(given);
  if (!old.success) return given;
  const { stiffness, ...facts } = old.data.facts;
  const { specs } = old.data;
  return { ...old.data, facts, specs: { stiffness, ...(typeof specs === 'object' ? specs : {}) } };
}
export const setup = newSetup.extend({ id: z.string() });

/** A setup in the library: one that is retired stays, since aims were taken from it. */
export const setupRow = setup.extend({
  retired: z.boolean(),
  standsBack: z.boolean().describe('another report of the same frame was chosen: it is not offered'),
  averaged: z.boolean().describe('worked out of the other reports of its frame'),
});

/** A least and a most in a query string. */
const bound = z.coerce.number().finite().optional();

type Short = (typeof SPECS)[AnySpecKey]['short'];
export type BoundName = `${'min' | 'max'}${Capitalize<Short>}`;
/** What bounds a spec in a query string. @example boundsOf('swingWeight') // ['minSwing', 'maxSwing'] */
export const boundsOf = (key: AnySpecKey): [BoundName, BoundName] => {
  const short = capital(SPECS[key].short);
  return [`min${short}`, `max${short}`];
};
const bounds = Object.fromEntries(
  ALL_SPEC_KEYS.flatMap((key) =>
    boundsOf(key).map((name) => [name, bound.describe(`${SPECS[key].unit}, as published`)]),
  ),
) as Record<BoundName, typeof bound>;

export const setupQuery = z.strictObject({
  search: text(80).optional(),
  sport: sport.optional(),
  kind: sourceKind.optional(),
  style: text(80).optional(),
  ids: z.string().max(20_000).optional().describe('only these, separated by commas'),
  ...bounds,
  sort: z.enum(SETUP_SORTS).default('name'),
  down: yes.describe('largest first; years are newest first as they are'),
  retired: yes,
  limit: z.coerce.number().int().min(1).max(500).default(100),
  offset: z.coerce.number().int().min(0).default(0),
});

/** Which setups a file holds: all that a query finds, however many. */
export const setupFileQuery = setupQuery.omit({ limit: true, offset: true });

/** Every report of the frame that a setup is of. */
export const setupPage = z.strictObject({
  setup: setupRow,
  reports: z.array(setupRow).describe('of the same player and sport, this one among them'),
});

/** What is to stand for several reports of one frame. */
export const settleReports = z.strictObject({ use: z.enum(['one', 'average', 'all']) });

export const tensionsQuery = z.strictObject({ sport });
/** How the tensions of the library spread, of as many setups as say one; null of too few. */
export const setupTensions = z
  .strictObject({ count: z.int(), lowKg: z.number(), middleKg: z.number(), highKg: z.number() })
  .describe('a quarter lies below the low, a quarter above the high')
  .nullable();

/** A setup with how far it is from a measured frame, once both are in one dress and about one axis. */
export const nearSetup = z.strictObject({
  setup,
  distanceSteps: z.number(),
  unknown: z.array(specKey).describe('specs that one side lacks: with any, the true distance may be larger'),
});

/** Many setups in the dress and about the axis of a measured frame, column by column: for maps and for reach over the whole library. */
export const broughtSetups = z.strictObject({
  ids: z.array(z.string()),
  massG: z.array(z.number().nullable()),
  balanceCm: z.array(z.number().nullable()),
  swingWeight: z.array(z.number().nullable()),
  twistWeight: z.array(z.number().nullable()),
  distanceSteps: z.array(z.number().nullable()),
  total: z.number(),
  next: z.string().nullable().describe('what to ask for after; null at the end'),
});

export type SetupQuery = z.output<typeof setupQuery>;
export type SetupFileQuery = z.output<typeof setupFileQuery>;
export type SourceKind = z.output<typeof sourceKind>;
export type Setup = z.output<typeof setup>;
export type SetupRow = z.output<typeof setupRow>;
export type SetupPage = z.output<typeof setupPage>;
export type BroughtSetups = z.output<typeof broughtSetups>;
