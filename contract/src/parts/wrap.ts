import { z } from 'zod';
import { WRAP_MATERIALS } from '@kevro/core';
import { cm, gramsPerCm, mm, partBase, share } from './base';

export const wrap = z.strictObject({
  kind: z.literal('wrap'),
  ...partBase,
  material: z.enum(WRAP_MATERIALS),
  gPerCm: gramsPerCm,
  stepCm: cm,
  thicknessMm: mm.optional(),
  massShare: share.optional(),
});
