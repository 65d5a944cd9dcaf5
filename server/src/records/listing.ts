import { COUNTED, type InAll } from '@kevro/contract';
import type { Queries } from '../db/db';

export interface Listing<Row> extends InAll {
  rows: Row[];
}

/** What holds of a row in which a word is found. @param has what holds where a text in small letters has the word */
export type WordFound = (has: (words: string) => string) => string;
const THREE_LETTERS = /[\p{L}\p{N}]{3}/u;

/** Conditions of a list with their values, each added where it was asked for. */
export class Conditions {
  readonly values: unknown[] = [];
  /** What no index counts was asked for. */
  narrowed = false;
  private readonly parts: string[] = [];

  /** @param sql with `?` where the value goes */
  and(sql: string, value?: unknown): this {
    if (value === undefined) this.parts.push(sql);
    else {
      this.values.push(value);
      this.parts.push(sql.replaceAll('?', `$${this.values.length}`));
    }
    return this;
  }

  /** As `and`, for what an index can find but not count. */
  narrow(sql: string, value: unknown): this {
    this.narrowed = true;
    return this.and(sql, value);
  }

  /** Every word must stand somewhere. @param found what holds of a word that does */
  search(text: string | undefined, found: WordFound): this {
    for (const word of (text ?? '').toLowerCase().split(/\s+/).filter(Boolean)) {
      // An index of parts of words knows parts of three letters. Of a shorter word it is not asked: it would find every row, and be thought to find few.
      const sought = THREE_LETTERS.test(word)
        ? found((words) => `${words} like ?`)
        : found((words) => `(${words} like ?) is true`);
      // As it is written, so that such an index may serve where there is one.
      this.narrow(sought, `%${word.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`);
    }
    return this;
  }

  get where(): string {
    return this.parts.length > 0 ? `where ${this.parts.join(' and ')}` : '';
  }
}

/** How a list is read: the rows are found by `find` and `order`, and only those of the part asked for are read with all `columns`. */
export interface ListSql {
  id: string;
  find: string;
  columns: string;
  from: string;
  order: string;
}

const toLimit = (found: number): InAll =>
  found > COUNTED ? { total: COUNTED, orMore: true } : { total: found };

const countIn = async (db: Queries, from: string, values: readonly unknown[]): Promise<number> =>
  (await db.query<{ n: number }>(`select count(*) as n from ${from}`, values))[0]?.n ?? 0;
/** How many rows there are, to the last. */
export const countAll = (db: Queries, find: string, { where, values }: Conditions): Promise<number> =>
  countIn(db, `${find} ${where}`, values);
/** How many rows there are, as far as anybody looks through them. */
export const countToLimit = async (
  db: Queries,
  find: string,
  { where, values }: Conditions,
): Promise<InAll> =>
  toLimit(await countIn(db, `(select 1 from ${find} ${where} limit ${COUNTED + 1}) as found`, values));

/** One part of a list, and how many rows there are in all. What a search finds is looked for once and sorted by itself, as long as it can be counted; of more than that, an index in the order of the list soon gives a part. */
export async function readListing<Row>(
  db: Queries,
  { id, find, columns, from, order }: ListSql,
  conditions: Conditions,
  { limit, offset }: { limit: number; offset: number },
): Promise<Listing<Row>> {
  const { where, values, narrowed } = conditions;
  /** The rows of the part, in the order of the list. */
  const partOf = async (which: string, of: unknown[]): Promise<Row[]> => {
    const part = await db.query<{ id: string }>(
      `select ${id} from ${find} ${which} order by ${order} limit ${limit} offset ${offset}`,
      of,
    );
    const sql = `select ${columns} from ${from} where ${id} = any($1) order by ${order}`;
    return part.length > 0 ? db.query<Row>(sql, [part.map((row) => row.id)]) : [];
  };
  if (narrowed) {
    const [all] = await db.query<{ ids: string[] }>(
      `select coalesce(json_agg(id), '[]') as ids from (select ${id} from ${find} ${where} limit ${COUNTED + 1}) as found`,
      values,
    );
    const found = all?.ids ?? [];
    const inAll = toLimit(found.length);
    const rows = await (inAll.orMore ? partOf(where, values) : partOf(`where ${id} = any($1)`, [found]));
    return { rows, ...inAll };
  }
  // Of a long list either takes a while: a server does both at once.
  const [total, rows] = await Promise.all([countAll(db, find, conditions), partOf(where, values)]);
  return { rows, total };
}
