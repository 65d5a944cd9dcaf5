import { z } from 'zod';
import { STRING_MATERIALS } from '@kevro/core';
import { partBase } from './base';

export const stringPart = z.strictObject({
  kind: z.literal('string'),
  ...partBase,
  material: z.enum(STRING_MATERIALS),
  gaugeMm: z.number().min(0.4).max(2),
});
