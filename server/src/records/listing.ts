import { COUNTED, type InAll } from '@kevro/contract';
import type { Queries } from '../db/db';

export interface Listing<Row> extends InAll {
  rows: Row[];
}

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
  narrow(sql: string, value?: unknown): this {
    this.narrowed = true;
    return this.and(sql, value);
  }

  /** Every word must stand somewhere. @param found what holds of a word that does, with `?` where the word goes, between two `%` */
  search(text: string | undefined, found: string): this {
    for (const word of (text ?? '').toLowerCase().split(/\s+/).filter(Boolean))
      // As it is written, so that an index of parts of words may serve where there is one.
      this.narrow(found, `%${word.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`);
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

/** As many as are sorted by themselves; of more than that, an index in the order of the list soon gives a part. */
const FEW = 1000;

/** How many rows there are in all: of what no index counts, as many as anybody looks through. */
export async function countOf(
  db: Queries,
  find: string,
  { where, values, narrowed }: Conditions,
): Promise<InAll> {
  const counted = narrowed
    ? `(select 1 from ${find} ${where} limit ${COUNTED + 1}) as found`
    : `${find} ${where}`;
  const [row] = await db.query<{ n: number }>(`select count(*) as n from ${counted}`, values);
  const total = row?.n ?? 0;
  return narrowed && total > COUNTED ? { total: COUNTED, orMore: true } : { total };
}

/** One part of a list, and how many rows there are in all. Of a search that finds few, all that it finds are read once: to walk the list in its order for them would take longer. */
export async function readListing<Row>(
  db: Queries,
  { id, find, columns, from, order }: ListSql,
  conditions: Conditions,
  { limit, offset }: { limit: number; offset: number },
): Promise<Listing<Row>> {
  const { where, values, narrowed } = conditions;
  const cut = `limit ${limit} offset ${offset}`;
  const idsOf = async (which: string, of: unknown[], rest: string): Promise<string[]> =>
    (await db.query<{ id: string }>(`select ${id} from ${find} ${which} ${rest}`, of)).map((row) => row.id);
  /** The rows of the part, in the order of the list. */
  const partOf = async (which: string, of: unknown[]): Promise<Row[]> => {
    const ids = await idsOf(which, of, `order by ${order} ${cut}`);
    const sql = `select ${columns} from ${from} where ${id} = any($1) order by ${order}`;
    return ids.length > 0 ? db.query<Row>(sql, [ids]) : [];
  };
  if (narrowed) {
    const found = await idsOf(where, values, `limit ${FEW + 1}`);
    if (found.length <= FEW)
      return { rows: await partOf(`where ${id} = any($1)`, [found]), total: found.length };
  }
  // Of a long list either takes a while: a server does both at once.
  const [inAll, rows] = await Promise.all([countOf(db, find, conditions), partOf(where, values)]);
  return { rows, ...inAll };
}
