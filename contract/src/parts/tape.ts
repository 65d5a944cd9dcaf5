import { z } from 'zod';
import { TAPE_MATERIALS } from '@kevro/core';
import { cm, gramsPerCm, mm, partBase, share } from './base';

export const tape = z.strictObject({
  kind: z.literal('tape'),
  ...partBase,
  material: z.enum(TAPE_MATERIALS),
  widthMm: mm,
  thicknessMm: mm.optional(),
  gPerCm: gramsPerCm,
  stepCm: cm,
  massShare: share.optional(),
});
