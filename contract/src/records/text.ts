import { z } from 'zod';

export const text = (most: number) => z.string().trim().max(most);
/** Made by the client when a form opens: sent again, it is the same act. */
export const key = z.string().min(8).max(80).describe('made by the client: sent twice it is stored once');
/** A yes or no in a query string; no when left out. */
export const yes = z
  .enum(['yes', 'no'])
  .default('no')
  .transform((answer) => answer === 'yes');
/** Of what a search finds, so many are counted. Nobody reads on to the last of more, and to count them all would take longer than to find them. */
export const COUNTED = 10_000;
const orMore = z.literal(true).optional().describe(`more than ${COUNTED} were found: no more were counted`);
/** How many there are in all. */
export const inAll = { total: z.number(), orMore };
export type InAll = z.output<z.ZodObject<typeof inAll>>;
/** A list in parts: what was asked for, and how many there are in all. */
export const rowsOf = <T extends z.ZodType>(row: T) => z.strictObject({ rows: z.array(row), ...inAll });
