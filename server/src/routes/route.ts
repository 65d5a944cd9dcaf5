import type { Router } from 'express';
import type { ZodType } from 'zod';
import {
  calls,
  fieldErrors,
  type AnswerOf,
  type Call,
  type CallName,
  type ReadBodyOf,
  type ReadQueryOf,
} from '@kevro/contract';
import { badInput } from '../problem';

/** What a schema reads. @throws ApiProblem that names each field */
export function readAs<T>(schema: { safeParse: ZodType<T>['safeParse'] }, given: unknown): T {
  const found = schema.safeParse(given, { reportInput: true });
  if (!found.success) throw badInput(fieldErrors(found.error.issues));
  return found.data;
}
const read = (schema: Call['body'], given: unknown): unknown => (schema ? readAs(schema, given) : undefined);

/** What hears of a call that was done, before it is answered. */
export interface Answered {
  changed?: (name: CallName, id: string | null) => Promise<void>;
}
const idOf = (found: unknown): string | null =>
  typeof found === 'object' && found !== null && 'id' in found && typeof found.id === 'string'
    ? found.id
    : null;

/** Answers a call of the contract: its body and query are validated first, its path parameters come as text. */
export function answer<N extends CallName>(
  router: Router,
  name: N,
  work: (input: {
    body: ReadBodyOf<N>;
    query: ReadQueryOf<N>;
    params: Record<string, string>;
  }) => Promise<AnswerOf<N>> | AnswerOf<N>,
): void {
  const { method, path, body, query }: Call = calls[name];
  router[method](path, async (request, response) => {
    const params = request.params as Record<string, string>;
    const found = await work({
      body: read(body, request.body) as ReadBodyOf<N>,
      query: read(query, request.query) as ReadQueryOf<N>,
      params,
    });
    await (response.locals as Answered).changed?.(name, params.id ?? idOf(found));
    response.json(found);
  });
}
