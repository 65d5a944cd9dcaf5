import type { z } from 'zod';

/** One call of the API. The server routes by these, the page is typed by them, and the OpenAPI document lists them. */
export interface Call {
  method: 'get' | 'post' | 'put';
  path: string;
  summary: string;
  body?: z.ZodType;
  /** What may stand behind the question mark; every part has a default. */
  query?: z.ZodType;
  answer: z.ZodType;
}

/** A call by its method, path and schemas. */
export const call = <B extends z.ZodType | undefined, A extends z.ZodType>(
  method: Call['method'],
  path: string,
  summary: string,
  answer: A,
  body?: B,
) => ({ method, path, summary, answer, body: body as B, query: undefined });
