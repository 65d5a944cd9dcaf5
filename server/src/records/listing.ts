import type { Queries } from '../db/db';

export interface Listing<Row> {
  rows: Row[];
  total: number;
}

/** Conditions of a list with their values, each added where it was asked for. */
export class Conditions {
  readonly values: unknown[] = [];
  searched = false;
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

  /** Every word must stand somewhere. @param found what holds of a word that does, with `?` where the word goes, between two `%` */
  search(text: string | undefined, found: string): this {
    for (const word of (text ?? '').toLowerCase().split(/\s+/).filter(Boolean)) {
      this.searched = true;
      // As it is written, so that an index of parts of words may serve where there is one.
      this.and(found, `%${word.replaceAll(/[\\%_]/g, String.raw`\$&`)}%`);
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

/** As many as are sorted by themselves; of more than that, an index in the order of the list soon gives a part. */
const FEW = 1000;

/** One part of a list, and how many rows there are in all. Of a search that finds few, all that it finds are read once: to walk the list in its order for them would take longer. */
export async function readListing<Row>(
  db: Queries,
  { id, find, columns, from, order }: ListSql,
  { where, values, searched }: Conditions,
  { limit, offset }: { limit: number; offset: number },
): Promise<Listing<Row>> {
  const cut = `limit ${limit} offset ${offset}`;
  const idsOf = async (which: string, of: unknown[], rest: string): Promise<string[]> =>
    (await db.query<{ id: string }>(`select ${id} from ${find} ${which} ${rest}`, of)).map((row) => row.id);
  /** The rows of the part, in the order of the list. */
  const partOf = async (which: string, of: unknown[]): Promise<Row[]> => {
    const ids = await idsOf(which, of, `order by ${order} ${cut}`);
    const sql = `select ${columns} from ${from} where ${id} = any($1) order by ${order}`;
    return ids.length > 0 ? db.query<Row>(sql, [ids]) : [];
  };
  if (searched) {
    const found = await idsOf(where, values, `limit ${FEW + 1}`);
    if (found.length <= FEW)
      return { rows: await partOf(`where ${id} = any($1)`, [found]), total: found.length };
  }
  // Of a long list either takes a while: a server does both at once.
  const [[counted], rows] = await Promise.all([
    db.query<{ n: number }>(`select count(*) as n from ${find} ${where}`, values),
    partOf(where, values),
  ]);
  return { rows, total: counted?.n ?? 0 };
}
