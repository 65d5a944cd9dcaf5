import { z } from 'zod';

export const text = (most: number) => z.string().trim().max(most);
/** Made by the client when a form opens: sent again, it is the same act. */
export const key = z.string().min(8).max(80).describe('made by the client: sent twice it is stored once');
/** A yes or no in a query string; no when left out. */
export const yes = z
  .enum(['yes', 'no'])
  .default('no')
  .transform((answer) => answer === 'yes');
/** A list in parts: what was asked for, and how many there are in all. */
export const rowsOf = <T extends z.ZodType>(row: T) =>
  z.strictObject({ rows: z.array(row), total: z.number() });
