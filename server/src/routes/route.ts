import type { Router } from 'express';
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

function read(schema: Call['body'], given: unknown): unknown {
  if (!schema) return undefined;
  const found = schema.safeParse(given, { reportInput: true });
  if (!found.success) throw badInput(fieldErrors(found.error.issues));
  return found.data;
}

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
    response.json(
      await work({
        body: read(body, request.body) as ReadBodyOf<N>,
        query: read(query, request.query) as ReadQueryOf<N>,
        params: request.params as Record<string, string>,
      }),
    );
  });
}
