import { parentPort } from 'node:worker_threads';
import { Fault, makePlans } from '@kevro/core';
import type { PlanMessage, PlanReply } from './plan-runner';

parentPort?.on('message', ({ id, request }: PlanMessage) => {
  const reply = (rest: Omit<PlanReply, 'id'>): void =>
    parentPort?.postMessage({ id, ...rest } satisfies PlanReply);
  try {
    reply({ plans: makePlans(request) });
  } catch (error) {
    if (error instanceof Fault) reply({ problems: error.problems });
    else reply({ failure: String(error) });
  }
});
