import express, { type RequestHandler } from 'express';
import { BODY_MOST_BYTES, type Call } from '@kevro/contract';
import { whileCallerStays } from '../compute/caller';
import { onlyReadableText } from '../safety/readable-text';

const readers = new Map<number, RequestHandler>();
const jsonUpTo = (limit: number): RequestHandler => {
  const reader = readers.get(limit) ?? express.json({ limit, strict: false });
  readers.set(limit, reader);
  return reader;
};

/** Reads the body of a call, counted while it comes in: never more than the call can need. */
export const bodyOf = ({ method, bodyMostBytes = BODY_MOST_BYTES }: Call): RequestHandler[] =>
  method === 'get'
    ? [whileCallerStays]
    : // After the body is read: what reads it forgets on whose behalf.
      [jsonUpTo(bodyMostBytes), onlyReadableText, whileCallerStays];
