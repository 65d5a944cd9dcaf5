import { z } from 'zod';

export const shop = z.strictObject({ name: z.string().max(80), town: z.string().max(80), demo: z.boolean() });
export type Shop = z.output<typeof shop>;
