import { Fault, type Problem } from '@kevro/core';

/** What a worker answers: what it worked out, or what of the question is wrong. */
export interface Answered<T> {
  found: T | undefined;
  problems: Problem[];
}

/** @throws whatever is no fault of the question: it arrives at the page as an error */
export function answered<T>(work: () => T): Answered<T> {
  try {
    return { found: work(), problems: [] };
  } catch (error) {
    if (error instanceof Fault) return { found: undefined, problems: error.problems };
    throw error;
  }
}
