import { parentPort } from 'node:worker_threads';
import { Fault } from '@kevro/core';
import { planHere, type PlanMessage, type PlanReply } from './plan-runner';

const plan = planHere();

parentPort?.on('message', async ({ id, request }: PlanMessage) => {
  const reply = (rest: Omit<PlanReply, 'id'>): void =>
    parentPort?.postMessage({ id, ...rest } satisfies PlanReply);
  try {
    reply({ plans: await plan(request) });
  } catch (error) {
    if (error instanceof Fault) reply({ problems: error.problems });
    else reply({ failure: String(error) });
  }
});
