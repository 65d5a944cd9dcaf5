import type { Router } from 'express';
import { calls, fieldErrors, type AnswerOf, type CallName, type ReadBodyOf } from '@kevro/contract';
import { badInput } from '../problem';

/** Answers a call of the contract: its body is validated first, its path parameters come as text. */
export function answer<N extends CallName>(
  router: Router,
  name: N,
  work: (input: {
    body: ReadBodyOf<N>;
    params: Record<string, string>;
  }) => Promise<AnswerOf<N>> | AnswerOf<N>,
): void {
  const { method, path, body: schema } = calls[name];
  router[method](path, async (request, response) => {
    let body: unknown;
    if (schema) {
      const read = schema.safeParse(request.body, { reportInput: true });
      if (!read.success) throw badInput(fieldErrors(read.error.issues));
      body = read.data;
    }
    response.json(
      await work({ body: body as ReadBodyOf<N>, params: request.params as Record<string, string> }),
    );
  });
}
