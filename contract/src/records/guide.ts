import { z } from 'zod';
import { bySpec } from '@kevro/core';
import { dress, guideName, sport } from '../shapes';

/** A band of one spec in the dress that it is said for. An open end is left out. */
export const guideBand = z.strictObject({ from: z.number().optional(), to: z.number().optional(), dress });
export const guideBandsOf = z.strictObject(bySpec(() => guideBand.optional()));
export const guideRow = z.strictObject({
  sport,
  name: guideName,
  bands: guideBandsOf,
  edited: z.boolean().describe('the shop has changed it'),
});
export type GuideRow = z.output<typeof guideRow>;
