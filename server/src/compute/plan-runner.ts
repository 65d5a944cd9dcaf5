import { Worker } from 'node:worker_threads';
import { Fault, makePlans, type Plan, type PlanRequest, type Problem } from '@kevro/core';

/** Makes plans somewhere: in this thread or in another. */
export type PlanRunner = (request: PlanRequest) => Promise<Plan[]>;

export type PlanMessage = { id: number; request: PlanRequest };
export type PlanReply = { id: number; plans?: Plan[]; problems?: Problem[]; failure?: string };

/** Plans in this thread. */
export const planHere: PlanRunner = async (request) => makePlans(request);

/** Plans in a worker thread, so that the server answers others meanwhile. The thread starts with the first plan and is replaced if it dies. */
export function planInThread(script: URL): PlanRunner {
  const waiting = new Map<number, { resolve: (plans: Plan[]) => void; reject: (error: Error) => void }>();
  let worker: Worker | undefined;
  let last = 0;

  const settle = ({ id, plans, problems, failure }: PlanReply): void => {
    const call = waiting.get(id);
    waiting.delete(id);
    if (plans) call?.resolve(plans);
    else call?.reject(problems ? new Fault(...problems) : new Error(failure));
  };
  const die = (error: Error): void => {
    worker = undefined;
    for (const call of waiting.values()) call.reject(error);
    waiting.clear();
  };
  const start = (): Worker => {
    const started = new Worker(script);
    started.unref();
    started.on('message', settle);
    started.on('error', die);
    return started;
  };

  return (request) =>
    new Promise((resolve, reject) => {
      const id = ++last;
      waiting.set(id, { resolve, reject });
      (worker ??= start()).postMessage({ id, request } satisfies PlanMessage);
    });
}
