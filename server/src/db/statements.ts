import { parse, protocol, type PGlite, type messages } from '@electric-sql/pglite';
import { NothingStored } from './db';

const { serialize, Parser } = protocol;

/** What asks for rows or changes some. Any other statement is read each time: a cursor of the same name may be another one by then. */
const IS_KEPT = /^\s*(select|with|insert|update|delete)\b/i;
/** What changes tables, and so perhaps what a statement gives that was read before. */
const CHANGES_TABLES = /\b(create|alter|drop)\b/i;
/** So many that a shop's usual work finds its own again, and so few that search texts of every kind do not fill the memory. */
const MOST_KEPT = 300;

/** A statement as the engine has read it. */
interface Read {
  name: string;
  /** The types of its values, by their numbers in the catalogue. */
  types: number[];
  /** What its rows hold; nothing where it gives none. */
  rows: messages.RowDescriptionMessage | undefined;
}

/**
 * Questions to an engine in this thread, in PostgreSQL's own messages: what was asked once stays read, and one call brings the values and fetches the rows.
 * Each is planned by its own values and the tables as they are then: a plan that was made for an empty table would be kept for a full one.
 * @example new Statements(pg).query('select $1::int as n', [2]) // [{ n: 2 }]
 */
export class Statements {
  private readonly kept = new Map<string, Read>();
  private made = 0;

  constructor(private readonly pg: PGlite) {
    this.run('set plan_cache_mode = force_custom_plan');
  }

  /** @returns its rows @throws what the engine complains of, with its code */
  query<Row>(sql: string, values: readonly unknown[] = []): Row[] {
    const { name, types, rows } = this.read(sql);
    const sent = values.map((value, i) =>
      value === null || value === undefined
        ? null
        : (this.pg.serializers[types[i] as number] ?? String)(value as never),
    );
    const told = this.tell(
      serialize.bind({ statement: name, values: sent }),
      serialize.execute({}),
      serialize.sync(),
    );
    const [result] = parse.parseResults(rows ? [rows, ...told] : told, this.pg.parsers);
    return (result?.rows ?? []) as Row[];
  }

  /** Runs a script of statements without values. @throws where a transaction was to be stored in which a statement had failed: the engine only says that nothing was */
  run(script: string): void {
    const told = this.tell(serialize.query(script));
    if (script === 'commit' && told.some((one) => 'text' in one && one.text === 'ROLLBACK'))
      throw new NothingStored();
    if (CHANGES_TABLES.test(script)) for (const sql of this.kept.keys()) this.forget(sql);
  }

  private read(sql: string): Read {
    const known = this.kept.get(sql);
    this.kept.delete(sql);
    const read = known ?? this.readAnew(sql);
    if (read.name === '') return read;
    // Where it was asked last, it stands last: what has not been asked for the longest goes first.
    this.kept.set(sql, read);
    const [longest] = this.kept.keys();
    if (this.kept.size > MOST_KEPT && longest !== undefined) this.forget(longest);
    return read;
  }

  private readAnew(sql: string): Read {
    const name = IS_KEPT.test(sql) ? `kept_${++this.made}` : '';
    const told = this.tell(
      serialize.parse({ name, text: sql }),
      serialize.describe({ type: 'S', name }),
      serialize.sync(),
    );
    return {
      name,
      types: parse.parseDescribeStatementResults(told),
      rows: told.find((one): one is messages.RowDescriptionMessage => one.name === 'rowDescription'),
    };
  }

  private forget(sql: string): void {
    const read = this.kept.get(sql);
    this.kept.delete(sql);
    if (read) this.tell(serialize.close({ type: 'S', name: read.name }), serialize.sync());
  }

  private tell(...sent: Uint8Array[]): messages.BackendMessage[] {
    const told: messages.BackendMessage[] = [];
    new Parser().parse(this.pg.execProtocolRawSync(Buffer.concat(sent)), (one) => told.push(one));
    const error = told.find((one) => one instanceof Error);
    if (error) throw error;
    return told;
  }
}
