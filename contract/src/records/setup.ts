import { z } from 'zod';
import { dress, frameShape, knownSpecs } from '../shapes';

const text = (most: number) => z.string().trim().max(most);

export const sourceKind = z.enum(['measured', 'published', 'maker', 'hearsay']);

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
export type SourceKind = z.output<typeof sourceKind>;
export type NewSetup = z.input<typeof newSetup>;
export type Setup = z.output<typeof setup>;
