import type { Queries } from '../db/db';

export interface Listing<Row> {
  rows: Row[];
  total: number;
}

/** Conditions of a list with their values, each added where it was asked for. */
export class Conditions {
  readonly values: unknown[] = [];
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
      this.and(`strpos(${inSql}, ?) > 0`, word);
    }
    return this;
  }

  get where(): string {
    return this.parts.length > 0 ? `where ${this.parts.join(' and ')}` : '';
  }
}

/** One part of a list, and how many rows there are in all. */
export async function readListing<Row>(
  db: Queries,
  sql: { columns: string; from: string; order: string },
  conditions: Conditions,
  { limit, offset }: { limit: number; offset: number },
): Promise<Listing<Row>> {
  const { where, values } = conditions;
  const rows = await db.query<Row>(
    `select ${sql.columns} from ${sql.from} ${where} order by ${sql.order} limit ${limit} offset ${offset}`,
    values,
  );
  const counted = await db.query<{ n: number }>(`select count(*) as n from ${sql.from} ${where}`, values);
  return { rows, total: counted[0]?.n ?? 0 };
}
