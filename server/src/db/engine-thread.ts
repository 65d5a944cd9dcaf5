import { parentPort, workerData } from 'node:worker_threads';
import { newTables } from './new-database';
import type { Question } from './one-connection';
import { answererOf, openEngine } from './pglite';

/** A question with its number: the answer has the same. */
export type Asked = Question & { id: number };
/** What of an error goes from thread to thread: errors do not keep their class on the way. */
export interface SentError {
  name: string;
  message: string;
  stack: string | undefined;
  fields: Record<string, unknown>;
}
export type Told = { id: number; rows: unknown[] } | { id: number; error: SentError };

const port = parentPort;
if (!port) throw new Error('the engine runs in a thread of its own');

function sent(error: unknown): SentError {
  const { name, message, stack } = error instanceof Error ? error : new Error(String(error));
  const fields = Object.fromEntries(
    Object.entries(error as object).filter(([, value]) => ['string', 'number'].includes(typeof value)),
  );
  return { name, message, stack, fields };
}

const opening = openEngine(workerData as string, newTables).then(answererOf);
opening.then(
  () => port.postMessage({ id: 0, rows: [] } satisfies Told),
  (error: unknown) => port.postMessage({ id: 0, error: sent(error) } satisfies Told),
);
port.on('message', (asked: Asked) => {
  opening
    .then((answer) => answer(asked))
    .then(
      (rows) => port.postMessage({ id: asked.id, rows } satisfies Told),
      (error: unknown) => port.postMessage({ id: asked.id, error: sent(error) } satisfies Told),
    )
    .finally(() => {
      if (asked.kind === 'close') port.close();
    })
    .catch(() => undefined);
});
