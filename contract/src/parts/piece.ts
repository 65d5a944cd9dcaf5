import { z } from 'zod';
import { grams, partBase } from './base';

const piece = {
  ...partBase,
  massG: grams,
  massUncertaintyG: grams.optional().describe('standard uncertainty of its mass, g'),
};
export const dab = z.strictObject({ kind: z.literal('dab'), ...piece });
export const insert = z.strictObject({ kind: z.literal('insert'), ...piece });
export const dampener = z.strictObject({ kind: z.literal('dampener'), ...piece });
