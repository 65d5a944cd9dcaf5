import { z } from 'zod';

export const editShop = z.strictObject({
  name: z.string().trim().min(1).max(80),
  town: z.string().trim().max(80),
  calibrationHours: z.int().min(1).max(8760).describe('how long a calibration of a machine counts'),
});
export const shop = editShop.extend({ demo: z.boolean() });
export type Shop = z.output<typeof shop>;
