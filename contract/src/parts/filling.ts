import { z } from 'zod';
import { FILLING_MATERIALS } from '@kevro/core';
import { grams, gramsPerCm, partBase, share } from './base';

export const filling = z.strictObject({
  kind: z.literal('filling'),
  ...partBase,
  material: z.enum(FILLING_MATERIALS),
  gPerCm: gramsPerCm,
  dabG: grams,
  setMinutes: z.number().min(0).max(20_160).optional(),
  massShare: share.optional(),
});
