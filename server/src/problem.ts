import type { ErrorRequestHandler, Response } from 'express';
import { Fault } from '@kevro/core';
import { isGone } from './db/gone';
import { log } from './safety/log';
import { fieldError, sentence, statusOf, type ErrorCode, type FieldError } from '@kevro/contract';

/** An answer that is not what was asked for: thrown anywhere, told as problem details (RFC 9457). */
export class ApiProblem extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly errors: FieldError[] = [],
    readonly values: Record<string, string | number> = {},
    message = sentence(code, values),
    /** The record that stands in the way, where there is one. */
    readonly existing?: string,
  ) {
    super(message);
    this.name = 'ApiProblem';
  }
}

const TITLES: Record<number, string> = {
  400: 'Not readable',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Does not fit what is stored',
  413: 'Too large',
  415: 'Not readable',
  422: 'Bad input',
  429: 'Not now',
  500: 'Server error',
  503: 'Not now',
  507: 'No room',
};

/** The first few tell what is wrong; all of them could be longer than what was sent. */
const MOST_LISTED = 20;

/** What goes by itself in a moment. */
const SOON = new Set<ErrorCode>(['busy', 'starting', 'database-away']);

function send(response: Response, problem: ApiProblem): void {
  const status = statusOf(problem.code);
  if (SOON.has(problem.code)) response.set('Retry-After', '2');
  response
    .status(status)
    .type('application/problem+json')
    .json({
      type: `urn:kevro:problem:${problem.code}`,
      title: TITLES[status] ?? 'Problem',
      status,
      detail: problem.message,
      code: problem.code,
      ...(problem.errors.length > 0 ? { errors: problem.errors.slice(0, MOST_LISTED) } : {}),
      ...(problem.existing === undefined ? {} : { existing: problem.existing }),
    });
}

/** Bad input with each field's sentence. Code and sentence of the whole are the first field's own. */
export function badInput(errors: FieldError[]): ApiProblem {
  const [first] = errors;
  return new ApiProblem(first?.code ?? 'bad-input', errors, {}, first?.message);
}

/** What is wrong with a field, in its plain sentence. */
export const wrongAt = (path: string, code: ErrorCode): FieldError => ({
  path,
  code,
  message: sentence(code),
});
/** What a field names is not there. */
export const notFoundAt = (path: string): FieldError => wrongAt(path, 'not-found');

/** No space left: said by the system, and by the database. */
const NO_ROOM = ['ENOSPC', 'EDQUOT', '53100'];

function asProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error;
  if (error instanceof Fault) return badInput(error.problems.map(fieldError));
  const kind = (error as { type?: string }).type;
  if (kind === 'entity.too.large') return new ApiProblem('too-large');
  if (kind?.startsWith('entity.') || kind?.startsWith('charset.') || kind?.startsWith('encoding.')) {
    return new ApiProblem('not-json');
  }
  if (error instanceof URIError) return new ApiProblem('not-found');
  const { status, code } = error as { status?: number; code?: string };
  // A body that does not hold what its headers say is the sender's fault, whatever the part that reads it calls it.
  if (status !== undefined && status >= 400 && status < 500) return new ApiProblem('not-json');
  if (code !== undefined && NO_ROOM.includes(code)) return new ApiProblem('disk-full');
  if (isGone(error)) {
    log.warn({ err: error }, 'the database went while it was asked');
    return new ApiProblem('database-away');
  }
  log.error({ err: error }, 'a request failed');
  return new ApiProblem('internal');
}

export const problemHandler: ErrorRequestHandler = (error, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  // Dropped because nobody waits for it any more.
  if ((error as Error).name === 'AbortError' && response.destroyed) return;
  send(response, asProblem(error));
};
