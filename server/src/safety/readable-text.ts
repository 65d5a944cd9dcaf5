import type { RequestHandler } from 'express';
import type { FieldError } from '@kevro/contract';
import { ApiProblem, badInput, wrongAt } from '../problem';

/** How many places are named: the first few tell what is wrong. */
const MOST = 20;
const isReadable = (text: string): boolean => !text.includes('\0') && !/\p{Surrogate}/u.test(text);

/** Texts that no database keeps: with a NUL in them, or half a character. */
export function unreadableIn(body: unknown): FieldError[] {
  const found: FieldError[] = [];
  const rest: { path: string; value: unknown }[] = [{ path: '', value: body }];
  const unreadable = (path: string): void => {
    found.push(wrongAt(path, 'unreadable-text'));
  };
  for (let at = rest.pop(); at && found.length < MOST; at = rest.pop()) {
    const { path, value } = at;
    if (typeof value === 'string') {
      if (!isReadable(value)) unreadable(path);
    } else if (value !== null && typeof value === 'object')
      for (const [key, inner] of Object.entries(value)) {
        if (isReadable(key)) rest.push({ path: path === '' ? key : `${path}.${key}`, value: inner });
        else unreadable(path);
      }
  }
  return found;
}

/** Refuses a request whose path, query or body holds such text. It stands before and after the body is read. */
export const onlyReadableText: RequestHandler = (request, _response, next) => {
  let asked: string;
  try {
    asked = decodeURIComponent(request.url.replaceAll('+', ' '));
  } catch {
    throw new ApiProblem('not-found');
  }
  if (!isReadable(asked)) throw new ApiProblem('not-found');
  const found = unreadableIn(request.body);
  if (found.length > 0) throw badInput(found);
  next();
};
