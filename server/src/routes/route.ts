import type { Router } from 'express';
import type { ZodType } from 'zod';
import {
  calls,
  fieldErrors,
  type ActBodyOf,
  type ActName,
  type AnswerOf,
  type Call,
  type ReadBodyOf,
  type ReadName,
  type ReadQueryOf,
} from '@kevro/contract';
import { badInput } from '../problem';
import { bodyOf } from './body';

/** What a schema reads. @throws ApiProblem that names each field */
export function readAs<T>(schema: { safeParse: ZodType<T>['safeParse'] }, given: unknown): T {
  const found = schema.safeParse(given, { reportInput: true });
  if (!found.success) throw badInput(fieldErrors(found.error.issues));
  return found.data;
}
const read = (schema: Call['body'], given: unknown): unknown => (schema ? readAs(schema, given) : undefined);

/** The body of an act, and the key of its form apart from it. */
export function readBody<N extends ActName>(
  name: N,
  given: unknown,
): { key: string | undefined; body: ActBodyOf<N> } {
  const found = read((calls[name] as Call).body, given);
  if (typeof found !== 'object' || found === null || Array.isArray(found))
    return { key: undefined, body: found as ActBodyOf<N> };
  const { key, ...body } = found as { key?: string };
  return { key, body: body as ActBodyOf<N> };
}

/** Answers a call that changes nothing: its body and query are validated first, its path parameters come as text. */
export function answer<N extends ReadName>(
  router: Router,
  name: N,
  work: (input: {
    body: ReadBodyOf<N>;
    query: ReadQueryOf<N>;
    params: Record<string, string>;
  }) => Promise<AnswerOf<N>> | AnswerOf<N>,
): void {
  const call: Call = calls[name];
  const { method, path, body, query } = call;
  router[method](path, ...bodyOf(call), async (request, response) => {
    const found = await work({
      body: read(body, request.body) as ReadBodyOf<N>,
      query: read(query, request.query) as ReadQueryOf<N>,
      params: request.params as Record<string, string>,
    });
    response.json(found);
  });
}
