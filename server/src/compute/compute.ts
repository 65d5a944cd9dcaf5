import { Piscina } from 'piscina';
import { Fault, bestFirst, schoolsOf, type Plan, type PlanRequest, type Problem } from '@kevro/core';
import { ApiProblem } from '../problem';
import { callerGone } from './caller';
import { JOBS, type JobName, type Jobs } from './jobs';

/** What a thread answers: errors do not keep their class on the way. */
export type JobAnswer =
  | { result: unknown }
  | { problems: Problem[] }
  | { refused: Pick<ApiProblem, 'code' | 'errors' | 'message'> };

/** Computes somewhere: in this thread or in others. */
export type Compute = <K extends JobName>(
  job: K,
  ...args: Parameters<Jobs[K]>
) => Promise<ReturnType<Jobs[K]>>;

/** In this thread. */
export const computeHere: Compute = async <K extends JobName>(job: K, ...args: Parameters<Jobs[K]>) => {
  const work = JOBS[job] as unknown as (...of: Parameters<Jobs[K]>) => ReturnType<Jobs[K]>;
  return work(...args);
};

/** Threads that compute at once, at the most: a slow one does not hold the others. */
const MOST_THREADS = 4;

/** Jobs that wait for a thread, at the most: who comes later is told to come again, before the wait is longer than anybody has patience. */
const MOST_WAITING = 64;

/** The memory of bytes that nobody else holds: handed over, not copied, since a copy of a long body would hold everybody up. */
const ownMemory = (arg: unknown): ArrayBuffer[] =>
  arg instanceof Uint8Array && arg.buffer instanceof ArrayBuffer && arg.byteLength === arg.buffer.byteLength
    ? [arg.buffer]
    : [];

/** In a small pool of threads, which starts with the first job and ends with the process. */
export function computeInThreads(script: URL, mostWaiting = MOST_WAITING): Compute {
  let pool: Piscina | undefined;
  return async (job, ...args) => {
    pool ??= new Piscina({
      filename: script.href,
      minThreads: 1,
      maxThreads: MOST_THREADS,
      maxQueue: mostWaiting,
      idleTimeout: 60_000,
    });
    const signal = callerGone();
    const options = { transferList: args.flatMap(ownMemory), ...(signal ? { signal } : {}) };
    const answer = (await pool.run({ job, args }, options).catch((error: unknown) => {
      // Piscina says it only in words.
      if (error instanceof Error && /queue is at limit/.test(error.message)) throw new ApiProblem('busy');
      throw error;
    })) as JobAnswer;
    if ('problems' in answer) throw new Fault(...answer.problems);
    if ('refused' in answer) {
      const { code, errors, message } = answer.refused;
      throw new ApiProblem(code, errors, {}, message);
    }
    return answer.result as ReturnType<Jobs[typeof job]>;
  };
}

/** Plans of every school that is asked for, each by itself, so that one that takes long fails or holds no other; best first. */
export async function computePlans(compute: Compute, request: PlanRequest): Promise<Plan[]> {
  const plans = await Promise.all(
    schoolsOf(request).map((school) => compute('makePlans', { ...request, schools: [school] })),
  );
  return bestFirst(plans.flat(), request.margin);
}
