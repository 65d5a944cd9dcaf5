/** The one way to the database. The same SQL runs on the embedded PGlite and on a PostgreSQL server. */
export interface Queries {
  query<Row>(sql: string, values?: readonly unknown[]): Promise<Row[]>;
  /** Runs a whole script of statements without values: a migration as its file stands. */
  run(script: string): Promise<void>;
}

export interface Db extends Queries {
  /** Whether its files and its log are the shop's alone, so that what was erased is cleared out of them from here; on a server they are the server's. */
  readonly ownFiles: boolean;
  /** Runs `work` in one transaction: all of it is stored, or nothing. Where two met it is run again, so that what it does beside the database must begin anew with it. */
  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T>;
  /** Does `work` on one connection: what it holds on to between two statements, a cursor say, is there until it ends. */
  session<T>(work: (db: Db) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** A transaction ended in which a statement had failed and nobody was told: an engine answers this as if all were well. */
export class NothingStored extends Error {
  constructor() {
    super('nothing was stored: a statement of the transaction had failed before');
  }
}
