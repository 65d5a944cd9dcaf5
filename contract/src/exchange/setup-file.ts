import { z } from 'zod';
import { newSetup } from '../records/setup';
import { text } from '../records/text';
import { errorCode } from '../shapes';
import { setupMapping } from './setup-mapping';

/** A file of setups. */
export const setupFile = z.strictObject({
  kevro: z.literal('setups/1'),
  setups: z.array(newSetup),
});

export const importQuery = z.strictObject({
  mode: z.enum(['check', 'store']).default('check').describe('check only reads; store stores all or nothing'),
  mapping: z
    .string()
    .max(100_000)
    .optional()
    .describe('JSON: what the columns are, and what holds where a row does not say'),
  skipBad: z
    .enum(['true', 'false'])
    .default('false')
    .transform((answer) => answer === 'true')
    .describe('stores the good rows though others are bad'),
  key: text(80).optional().describe('by which its progress can be asked for'),
});

export const importProblem = z.strictObject({
  line: z.number().describe('of the file; in JSON the number of the setup'),
  column: z.string().optional(),
  code: errorCode,
  message: z.string(),
});
export const setupImport = z.strictObject({
  rows: z.number(),
  stored: z.number(),
  skipped: z.number().describe('rows with something wrong'),
  already: z.number().describe('rows that are in the library already, or stand in the file twice'),
  problems: z.array(importProblem).describe('the first thousand'),
  mapping: setupMapping.nullable(),
});
export const importProgress = z.strictObject({ done: z.number(), of: z.number() });

export type ImportProblem = z.output<typeof importProblem>;
export type SetupImport = z.output<typeof setupImport>;
