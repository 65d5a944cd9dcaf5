import type { Db, Queries } from './db';

/** What an engine with one connection is asked for. */
export type Question =
  | { kind: 'query'; sql: string; values: readonly unknown[] }
  | { kind: 'run'; sql: string }
  | { kind: 'close' };

/**
 * A database with one connection. Plain questions go to it as they come; a transaction waits for those before it, and those after it wait for it.
 * @param send asks the engine, and gives the rows that it answers
 */
export function oneConnection(send: (question: Question) => Promise<unknown[]>): Db {
  const through = (to: typeof send): Queries => ({
    query: async <Row>(sql: string, values: readonly unknown[] = []) =>
      (await to({ kind: 'query', sql, values })) as Row[],
    run: async (sql) => void (await to({ kind: 'run', sql })),
  });
  const underWay = new Set<Promise<unknown>>();
  /** Resolves when the last transaction that was begun is over. */
  let gate: Promise<void> = Promise.resolve();

  /** Asks beside others, once no transaction is under way. */
  async function beside(question: Question): Promise<unknown[]> {
    await gate;
    const answer = send(question);
    underWay.add(answer);
    try {
      return await answer;
    } finally {
      underWay.delete(answer);
    }
  }

  async function transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T> {
    const before = gate;
    let open: () => void = () => undefined;
    gate = new Promise((resolve) => (open = resolve));
    await before;
    try {
      await Promise.allSettled(underWay);
      const tx = through(send);
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

  const db: Db = {
    ...through(beside),
    ownFiles: true,
    transaction,
    session: (work) => work(db),
    close: async () => {
      await gate;
      await Promise.allSettled(underWay);
      await send({ kind: 'close' });
    },
  };
  return db;
}
