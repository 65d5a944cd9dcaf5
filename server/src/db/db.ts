/** The one way to the database. The same SQL runs on the embedded PGlite and on a PostgreSQL server. */
export interface Queries {
  query<Row>(sql: string, values?: readonly unknown[]): Promise<Row[]>;
  /** Runs a whole script of statements without values: a migration as its file stands. */
  run(script: string): Promise<void>;
}

export interface Db extends Queries {
  /** Runs `work` in one transaction: all of it is stored, or nothing. */
  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}
