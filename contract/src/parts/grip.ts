import { BASE_GRIPS } from '@kevro/core';
import { z } from 'zod';
import { grams, mm, partBase } from './base';

const grip = {
  ...partBase,
  massG: grams,
  massUncertaintyG: grams.optional().describe('standard uncertainty of its mass, g'),
  thicknessMm: mm.optional(),
  sizes: z.number().min(0).max(8).optional(),
};
export const baseGrip = z.strictObject({
  kind: z.literal('baseGrip'),
  ...grip,
  material: z.enum(BASE_GRIPS).exclude(['none']),
});
export const overgrip = z.strictObject({ kind: z.literal('overgrip'), ...grip });
export const sleeve = z.strictObject({ kind: z.literal('sleeve'), ...grip });
