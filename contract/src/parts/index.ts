import type { z } from 'zod';
import type { PartKind } from '@kevro/core';
import { filling } from './filling';
import { baseGrip, overgrip, sleeve } from './grip';
import { dab, dampener, insert } from './piece';
import { stringPart } from './string';
import { tape } from './tape';
import { wrap } from './wrap';

/** The schema of every kind of part; a new one is one file and one entry here. */
export const PART_SCHEMAS = {
  tape,
  filling,
  wrap,
  baseGrip,
  overgrip,
  sleeve,
  dampener,
  string: stringPart,
  insert,
  dab,
} satisfies Record<PartKind, z.ZodObject>;
