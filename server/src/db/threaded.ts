import { Worker } from 'node:worker_threads';
import type { Db } from './db';
import type { SentError, Told } from './engine-thread';
import { oneConnection, type Question } from './one-connection';

interface Waiting {
  resolve: (rows: unknown[]) => void;
  reject: (error: Error) => void;
}

/** Answers that are handed on in one turn of the main thread. */
const MOST_A_TURN = 16;

function received({ name, message, stack, fields }: SentError): Error {
  const error = Object.assign(new Error(message), fields);
  error.name = name;
  if (stack !== undefined) error.stack = stack;
  return error;
}

/** An engine in a thread of its own: however much there is to do for it, new connections are heard. */
class EngineThread {
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;
  private readonly answers: Told[] = [];
  private ended: Error | undefined;

  constructor(private readonly worker: Worker) {
    worker.on('message', (told: Told) => {
      this.answers.push(told);
      if (this.answers.length === 1) setImmediate(() => this.handOn());
    });
    const end = (error: Error): void => {
      this.ended ??= error;
      // What it answered before it ended is an answer.
      this.handOn(this.answers.length);
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', () => end(new Error('the database has ended')));
  }

  /** Hands a few answers on to those that wait for them, and then lets the server hear whoever has come meanwhile. */
  private handOn(most = MOST_A_TURN): void {
    for (const told of this.answers.splice(0, most)) {
      const { resolve, reject } = this.waiting.get(told.id) ?? {};
      this.waiting.delete(told.id);
      if ('error' in told) reject?.(received(told.error));
      else resolve?.(told.rows);
    }
    if (this.answers.length > 0) setImmediate(() => this.handOn());
  }

  /** Resolves once the engine is open. */
  opened(): Promise<unknown[]> {
    return new Promise((resolve, reject) => this.waiting.set(0, { resolve, reject }));
  }

  send(question: Question): Promise<unknown[]> {
    // A thread that has ended answers nothing any more: nobody is left waiting for it.
    if (this.ended) return Promise.reject(this.ended);
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.worker.postMessage({ id, ...question });
    });
  }
}

/**
 * Opens the engine in a folder, in a thread of its own.
 * @param script the thread's, as it is built @param onEnd told when the engine ends by itself: nothing can be stored then
 */
export async function openThreaded(script: URL, folder: string, onEnd: (error: Error) => void): Promise<Db> {
  const worker = new Worker(script, { workerData: folder });
  const engine = new EngineThread(worker);
  await engine.opened();
  worker.on('error', onEnd);
  return oneConnection(async (question) => {
    const rows = await engine.send(question);
    if (question.kind === 'close') await worker.terminate();
    return rows;
  });
}
