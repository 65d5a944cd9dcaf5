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

  /** Every word must stand somewhere in the text. */
  search(text: string | undefined, inSql: string): this {
    for (const word of (text ?? '').toLowerCase().split(/\s+/).filter(Boolean)) {
      this.searched = true;
      this.and(`strpos(${inSql}, ?) > 0`, word);
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

/** One part of a list, and how many rows there are in all. A search finds and counts in one scan; without one, an index gives the part at once. */
export async function readListing<Row>(
  db: Queries,
  { id, find, columns, from, order }: ListSql,
  { where, values, searched }: Conditions,
  { limit, offset }: { limit: number; offset: number },
): Promise<Listing<Row>> {
  const count = `select count(*) as n from`;
  const cut = `limit ${limit} offset ${offset}`;
  const part = await db.query<{ id: string; n?: number }>(
    searched
      ? `with found as materialized (select ${id}, row_number() over (order by ${order}) as place from ${find} ${where})
         select id, (${count} found) as n from found order by place ${cut}`
      : `select ${id} from ${find} ${where} order by ${order} ${cut}`,
    values,
  );
  const total = part[0]?.n ?? (await db.query<{ n: number }>(`${count} ${find} ${where}`, values))[0]?.n ?? 0;
  const ids = part.map((row) => row.id);
  const sql = `select ${columns} from ${from} where ${id} = any($1) order by ${order}`;
  return { rows: ids.length > 0 ? await db.query<Row>(sql, [ids]) : [], total };
}
