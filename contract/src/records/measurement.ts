import { z } from 'zod';
import { dress, specUncertainty, specs } from '../shapes';

export const newMeasurement = z.strictObject({
  /** Made by the client once a draft: the same key twice stores one measurement. */
  key: z.string().min(8).max(80),
  dress,
  specs,
  uncertainty: specUncertainty.optional().describe('standard uncertainties; typical ones if left out'),
  note: z.string().trim().max(500).default(''),
});
export const measurement = z.strictObject({
  id: z.string(),
  frameId: z.string(),
  takenAt: z.string(),
  dress,
  specs: specs.extend({ axisCm: z.number() }),
  uncertainty: specUncertainty,
  note: z.string(),
});
export type Measurement = z.output<typeof measurement>;
