import type { ErrorRequestHandler, Response } from 'express';
import { Fault } from '@kevro/core';
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
  404: 'Not found',
  409: 'Does not fit what is stored',
  413: 'Too large',
  422: 'Bad input',
  500: 'Server error',
  503: 'Not now',
};

function send(response: Response, problem: ApiProblem): void {
  const status = statusOf(problem.code);
  response
    .status(status)
    .type('application/problem+json')
    .json({
      type: `urn:kevro:problem:${problem.code}`,
      title: TITLES[status] ?? 'Problem',
      status,
      detail: problem.message,
      code: problem.code,
      ...(problem.errors.length > 0 ? { errors: problem.errors } : {}),
      ...(problem.existing === undefined ? {} : { existing: problem.existing }),
    });
}

/** Bad input with each field's sentence. Code and sentence of the whole are the first field's own. */
export function badInput(errors: FieldError[]): ApiProblem {
  const [first] = errors;
  return new ApiProblem(first?.code ?? 'bad-input', errors, {}, first?.message);
}

/** What a field names is not there. */
export const notFoundAt = (path: string): FieldError => ({
  path,
  code: 'not-found',
  message: sentence('not-found'),
});

function asProblem(error: unknown): ApiProblem {
  if (error instanceof ApiProblem) return error;
  if (error instanceof Fault) return badInput(error.problems.map(fieldError));
  const kind = (error as { type?: string }).type;
  if (kind === 'entity.too.large') return new ApiProblem('too-large');
  if (kind?.startsWith('entity.') || kind?.startsWith('charset.') || kind?.startsWith('encoding.')) {
    return new ApiProblem('not-json');
  }
  if (error instanceof URIError) return new ApiProblem('not-found');
  console.error(error);
  return new ApiProblem('internal');
}

export const problemHandler: ErrorRequestHandler = (error, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  send(response, asProblem(error));
};
