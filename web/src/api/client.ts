import { forgetAnswers, isKept, keepAnswer, keptAnswer, serverAnswers } from './kept-answers';
import { tabId } from '../ui/tab';
import {
  DONE_AGO,
  paths,
  sentence,
  type AnswerOf,
  type BodyOf,
  type CallName,
  type ErrorCode,
  type FieldError,
  type QueryOf,
} from '@kevro/contract';

/** What the server refused, with the sentence for each field. */
export class Refused extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly errors: FieldError[] = [],
    /** The record that stands in the way, where there is one. */
    readonly existing?: string,
  ) {
    super(message);
    this.name = 'Refused';
  }

  /** The sentence beside a field, or undefined. */
  at(path: string): string | undefined {
    return this.errors.find((error) => error.path === path || error.path.startsWith(`${path}.`))?.message;
  }
}

type Input<N extends CallName> = (BodyOf<N> extends undefined
  ? { body?: undefined }
  : { body: BodyOf<N> }) & {
  id?: string;
  query?: QueryOf<N>;
  /** How many seconds ago it was done, where it could not be sent at once. */
  ago?: number;
};

const queryText = (query: object | undefined): string => {
  const pairs = Object.entries(query ?? {}).filter(([, value]) => value !== undefined && value !== '');
  return pairs.length > 0 ? `?${new URLSearchParams(pairs as [string, string][]).toString()}` : '';
};

/** Where a call is, for a link: a file that the browser fetches itself. */
export const urlOf = (path: string, query?: object): string => `/api/v1/${path}${queryText(query)}`;

/** Said to the window where the shop does not let this device in any more. */
export const NOT_SIGNED_IN = 'kevro-not-signed-in';

/** Answers that say nothing of what was asked: the server, or what it needs, is not there now. */
const AWAY: ReadonlySet<ErrorCode> = new Set<ErrorCode>([
  'cannot-reach-server',
  'starting',
  'database-away',
  'busy',
  'sign-in',
]);
/** Whether it may be sent again as it is, once the server is back and this device let in. */
export const isAway = (error: unknown): boolean => error instanceof Refused && AWAY.has(error.code);

/** Whether no Kevro answers at all. */
const isUnreachable = (error: unknown): boolean =>
  error instanceof Refused && (error.code === 'cannot-reach-server' || error.code === 'starting');

const offline = (): Refused => new Refused('cannot-reach-server', sentence('cannot-reach-server'));

/** Sends a file to a call of the contract. @param signal by which it is stopped */
export function upload<N extends 'importSetups' | 'restoreBackup' | 'addFilm'>(
  name: N,
  file: Blob | string,
  type: string,
  query: QueryOf<N>,
  signal?: AbortSignal,
  id = '',
): Promise<AnswerOf<N>> {
  const { path } = paths[name];
  return answered(`/api/v1${path.replace(':id', encodeURIComponent(id))}${queryText(query as object)}`, {
    method: 'POST',
    headers: { 'content-type': type },
    body: file,
    ...(signal ? { signal } : {}),
  });
}

/** One call of the contract. Throws {@link Refused}. */
export async function api<N extends CallName>(
  name: N,
  ...[input]: BodyOf<N> extends undefined ? [Input<N>?] : [Input<N>]
): Promise<AnswerOf<N>> {
  const { method, path } = paths[name];
  const url = `/api/v1${path.replace(/:\w+/, encodeURIComponent(input?.id ?? ''))}${queryText(input?.query)}`;
  const answering = answered<AnswerOf<N>>(url, {
    method: method.toUpperCase(),
    ...(input?.body === undefined
      ? {}
      : {
          headers: {
            'content-type': 'application/json',
            'kevro-page': tabId(),
            ...(input.ago === undefined ? {} : { [DONE_AGO]: String(input.ago) }),
          },
          body: JSON.stringify(input.body),
        }),
  });
  if (name === 'erasePlayer' || name === 'signOut') await answering.then(forgetAnswers);
  if (!isKept(name)) return answering;
  try {
    const answer = await answering;
    void keepAnswer(url, answer);
    return answer;
  } catch (error) {
    const kept = isUnreachable(error) ? await keptAnswer(url) : undefined;
    if (kept === undefined) throw error;
    return kept as AnswerOf<N>;
  }
}

async function answered<T>(url: string, request: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(url, request);
  } catch (error) {
    if (request.signal?.aborted) throw error;
    throw offline();
  }
  const answer: unknown = await response.json().catch(() => undefined);
  if (response.ok) {
    serverAnswers();
    return answer as T;
  }
  const problem = answer as
    { code?: ErrorCode; detail?: string; errors?: FieldError[]; existing?: string } | undefined;
  if (!problem?.code) throw offline();
  if (problem.code === 'sign-in') {
    void forgetAnswers();
    window.dispatchEvent(new Event(NOT_SIGNED_IN));
  }
  throw new Refused(problem.code, problem.detail ?? sentence(problem.code), problem.errors, problem.existing);
}
