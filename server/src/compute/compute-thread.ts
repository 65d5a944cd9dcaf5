import { Fault } from '@kevro/core';
import { ApiProblem } from '../problem';
import type { JobAnswer } from './compute';
import { JOBS, type JobName } from './jobs';

/** One job in a thread of the pool. */
export default function work({ job, args }: { job: JobName; args: unknown[] }): JobAnswer {
  try {
    return { result: (JOBS[job] as (...of: unknown[]) => unknown)(...args) };
  } catch (error) {
    if (error instanceof Fault) return { problems: error.problems };
    if (error instanceof ApiProblem)
      return { refused: { code: error.code, errors: error.errors, message: error.message } };
    throw error;
  }
}
