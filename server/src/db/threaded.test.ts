import { expect, it } from 'vitest';
import { openThreaded } from './threaded';

/** An engine that answers and, where it is asked to close, is gone the moment after. */
const script = new URL(
  `data:text/javascript,${encodeURIComponent(`
    import { parentPort } from 'node:worker_threads';
    parentPort.postMessage({ id: 0, rows: [] });
    parentPort.on('message', ({ id, kind }) => {
      parentPort.postMessage({ id, rows: [{ kind }] });
      if (kind === 'close') parentPort.close();
    });`)}`,
);
const never = (error: Error): never => {
  throw error;
};

it('an engine that is gone right after its last answer has answered', async () => {
  const db = await openThreaded(script, '', never);
  const last = db.query('select 1');
  const closing = db.close();
  expect(await last).toEqual([{ kind: 'query' }]);
  await new Promise((sent) => setImmediate(sent));
  // So busy that the answer and the end are seen together.
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 500);
  await closing;
  await expect(db.query('select 1')).rejects.toThrow('the database has ended');
});
