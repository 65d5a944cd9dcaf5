import { z } from 'zod';
import { SOURCE_KINDS } from '@kevro/core';
import { dress, frameShape, knownSpecs, specKey, sport } from '../shapes';
import { text, yes } from './text';

export const sourceKind = z.enum(SOURCE_KINDS);

export const newSetup = z.strictObject({
  name: text(80).min(1),
  /** What the frame is, as far as it is known. */
  frameName: text(80).default(''),
  sourceKind,
  source: text(200).default(''),
  year: z.int().min(1900).max(2100).nullable().default(null),
  shape: frameShape,
  dress,
  specs: knownSpecs.extend({ axisCm: z.number().min(0).max(30).optional() }),
});
export const setup = newSetup.extend({ id: z.string() });

/** A setup in the library: one that is retired stays, since aims were taken from it. */
export const setupRow = setup.extend({ retired: z.boolean() });

export const setupQuery = z.strictObject({
  search: text(80).optional(),
  sport: sport.optional(),
  kind: sourceKind.optional(),
  ids: z.string().max(4000).optional().describe('only these, separated by commas'),
  sort: z.enum(['name', 'year', 'weight', 'swing']).default('name'),
  retired: yes,
  limit: z.coerce.number().int().min(1).max(500).default(100),
  offset: z.coerce.number().int().min(0).default(0),
});

/** A setup with how far it is from a measured frame, once both are in one dress and about one axis. */
export const nearSetup = z.strictObject({
  setup,
  distanceSteps: z.number(),
  unknown: z.array(specKey).describe('specs that one side lacks: with any, the true distance may be larger'),
});
export type SetupQuery = z.output<typeof setupQuery>;
export type SourceKind = z.output<typeof sourceKind>;
export type NewSetup = z.input<typeof newSetup>;
export type Setup = z.output<typeof setup>;
export type SetupRow = z.output<typeof setupRow>;
