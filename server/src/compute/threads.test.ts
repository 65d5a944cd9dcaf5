import { EventEmitter } from 'node:events';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Response } from 'express';
import { expect, it } from 'vitest';
import { ApiProblem } from '../problem';
import { whileCallerStays } from './caller';
import { computeInThreads } from './compute';

// Left to the system: threads that were ended are made anew in the end, and look for their script.
const folder = mkdtempSync(join(tmpdir(), 'kevro-threads-'));
/** A thread whose every job takes as long as it is told to, without a pause in which anything could be asked of it. */
const script = join(folder, 'slow.mjs');
writeFileSync(
  script,
  'export default ({ args: [ms] }) => { const end = Date.now() + ms; while (Date.now() < end); return { result: ms }; };',
);
const threads = (waiting: number): ((ms: number) => Promise<unknown>) => {
  const compute = computeInThreads(pathToFileURL(script), waiting) as (
    job: string,
    ms: number,
  ) => Promise<unknown>;
  return (ms) => compute('reach', ms);
};

it('takes on what it can, and tells the others to come again', async () => {
  const work = threads(3);
  const all = await Promise.allSettled(Array.from({ length: 20 }, () => work(400)));
  const done = all.filter(({ status }) => status === 'fulfilled');
  const refused = all.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  expect(done.length).toBeGreaterThanOrEqual(3);
  expect(done.length).toBeLessThanOrEqual(7);
  for (const error of refused) {
    expect(error).toBeInstanceOf(ApiProblem);
    expect((error as ApiProblem).code).toBe('busy');
  }
  expect(refused.length + done.length).toBe(20);
});

it('drops what nobody waits for any more, and is free for the next', async () => {
  const work = threads(50);
  await work(1);
  const response = Object.assign(new EventEmitter(), { writableFinished: false });
  const dropped: Promise<unknown>[] = [];
  void whileCallerStays({} as never, response as unknown as Response, () => {
    for (let i = 0; i < 10; i++) dropped.push(work(600_000));
  });
  const ended = Promise.allSettled(dropped);
  setTimeout(() => response.emit('close'), 300);
  // Without an end to them this would wait for a hundred minutes.
  expect((await ended).every(({ status }) => status === 'rejected')).toBe(true);
  expect(await work(2)).toBe(2);
});
