import { Worker } from 'node:worker_threads';
import type { Db, Queries } from './db';
import type { Asked, SentError, Told } from './engine-thread';

type Question = Asked extends infer A ? (A extends Asked ? Omit<A, 'id'> : never) : never;
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

/**
 * A database whose engine runs in a thread of its own: however much there is to do for it, new connections are heard. Plain queries go as they come; a
 * transaction waits for those before it, and those after it wait for it.
 */
class ThreadedDb implements Db {
  private readonly waiting = new Map<number, Waiting>();
  private readonly underWay = new Set<Promise<unknown>>();
  private lastId = 0;
  private readonly answers: Told[] = [];
  private ended: Error | undefined;
  /** Resolves when the last transaction that was begun is over. */
  private gate: Promise<void> = Promise.resolve();

  constructor(private readonly worker: Worker) {
    worker.on('message', (told: Told) => {
      this.answers.push(told);
      if (this.answers.length === 1) setImmediate(() => this.handOn());
    });
    const end = (error: Error): void => {
      this.ended ??= error;
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', () => end(new Error('the database has ended')));
  }

  /** Hands a few answers on to those that wait for them, and then lets the server hear whoever has come meanwhile. */
  private handOn(): void {
    for (const told of this.answers.splice(0, MOST_A_TURN)) {
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

  private send(question: Question): Promise<unknown[]> {
    // A thread that has ended answers nothing any more: nobody is left waiting for it.
    if (this.ended) return Promise.reject(this.ended);
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.worker.postMessage({ id, ...question });
    });
  }

  /** Asks beside others, once no transaction is under way. */
  private async beside(question: Question): Promise<unknown[]> {
    await this.gate;
    const answer = this.send(question);
    this.underWay.add(answer);
    try {
      return await answer;
    } finally {
      this.underWay.delete(answer);
    }
  }

  async query<Row>(sql: string, values: readonly unknown[] = []): Promise<Row[]> {
    return (await this.beside({ kind: 'query', sql, values })) as Row[];
  }
  async run(sql: string): Promise<void> {
    await this.beside({ kind: 'run', sql });
  }

  async transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T> {
    const before = this.gate;
    let open: () => void = () => undefined;
    this.gate = new Promise((resolve) => (open = resolve));
    await before;
    try {
      await Promise.allSettled(this.underWay);
      const tx: Queries = {
        query: async <Row>(sql: string, values: readonly unknown[] = []) =>
          (await this.send({ kind: 'query', sql, values })) as Row[],
        run: async (sql) => void (await this.send({ kind: 'run', sql })),
      };
      await tx.run('begin');
      try {
        const done = await work(tx);
        await tx.run('commit');
        return done;
      } catch (error) {
        await tx.run('rollback').catch(() => undefined);
        throw error;
      }
    } finally {
      open();
    }
  }

  readonly ownFiles = true;
  /** The engine has one connection. */
  session<T>(work: (db: Db) => Promise<T>): Promise<T> {
    return work(this);
  }

  async close(): Promise<void> {
    await this.gate;
    await Promise.allSettled(this.underWay);
    await this.send({ kind: 'close' });
    await this.worker.terminate();
  }
}

/**
 * Opens the engine in a folder, in a thread of its own.
 * @param script the thread's, as it is built @param onEnd told when the engine ends by itself: nothing can be stored then
 */
export async function openThreaded(script: URL, folder: string, onEnd: (error: Error) => void): Promise<Db> {
  const worker = new Worker(script, { workerData: folder });
  const db = new ThreadedDb(worker);
  await db.opened();
  worker.on('error', onEnd);
  return db;
}
