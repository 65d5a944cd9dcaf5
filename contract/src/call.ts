import { z } from 'zod';
import { rowsOf } from './records/text';

/** One call of the API. The server routes by these, the page is typed by them, and the OpenAPI document lists them. */
export interface Call {
  method: 'get' | 'post' | 'put';
  path: string;
  summary: string;
  body?: z.ZodType;
  /** What may stand behind the question mark; every part has a default. */
  query?: z.ZodType;
  answer: z.ZodType;
  /** Media types of a body that is a file. */
  upload?: readonly string[];
  /** Media type of an answer that is a file. */
  download?: string;
}

type Place = Pick<Call, 'method' | 'path'>;

/** A call by where it is and its schemas. */
export const call = <B extends z.ZodType | undefined, A extends z.ZodType>(
  at: Place,
  summary: string,
  answer: A,
  body?: B,
) => ({ ...at, summary, answer, body: body as B, query: undefined });

/** A list that is searched, sorted and read in parts. */
export const listing = <Q extends z.ZodType, R extends z.ZodType>(
  at: Place,
  summary: string,
  row: R,
  query: Q,
) => ({
  ...at,
  summary,
  answer: rowsOf(row),
  body: undefined,
  query,
});

export const retiredBody = z.strictObject({ retired: z.boolean() });
