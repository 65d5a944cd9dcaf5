import type { Queries } from './db';

/** A value as the driver takes it: what the database keeps as JSON goes as text. */
const asSql = (value: unknown): unknown =>
  typeof value === 'object' && value !== null ? JSON.stringify(value) : value;

/**
 * A table by the names that its records use: what is read, stored and changed goes by name, never by place.
 * @param columns the column of each field of a record
 * @example const rounds = tableOf<Round>('round', { id: 'id', begunAt: 'begun_at', … });
 *   await rounds.insert(db, { id, begunAt });
 */
export function tableOf<R extends object>(table: string, columns: { [K in keyof R]-?: string }) {
  const names = Object.keys(columns) as (keyof R & string)[];
  /** What a `select` lists; `of` names the table where several are joined, `without` fields that are left out. */
  const list = (of = '', without: readonly (keyof R)[] = []): string =>
    names
      .filter((name) => !without.includes(name))
      .map((name) => `${of ? `${of}.` : ''}${columns[name]} as "${name}"`)
      .join(', ');
  const given = (row: Partial<R>): (keyof R & string)[] => names.filter((name) => row[name] !== undefined);

  return {
    list,
    /** The rows that a condition finds. @param rest `where … order by …`, with $1, $2 … for the values */
    find: (db: Queries, rest: string, values: readonly unknown[] = []): Promise<R[]> =>
      db.query<R>(`select ${list()} from ${table} ${rest}`, values),
    /** Stores a row. @param conflict what to do where it is there already, such as `on conflict (key, shop_id) do nothing` @returns it, or undefined where nothing was stored */
    async insert(db: Queries, row: Partial<R>, conflict = ''): Promise<R | undefined> {
      const fields = given(row);
      const rows = await db.query<R>(
        `insert into ${table} (${fields.map((f) => columns[f]).join(', ')})
         values (${fields.map((_, i) => `$${i + 1}`).join(', ')}) ${conflict} returning ${list()}`,
        fields.map((f) => asSql(row[f])),
      );
      return rows[0];
    },
    /**
     * Stores a row, or changes the one that is there already to it.
     * @param there which one that is, such as `(key, shop_id)` @param stays fields that it keeps
     */
    async put(db: Queries, row: Partial<R>, there: string, stays: readonly (keyof R)[] = []): Promise<void> {
      const changed = given(row).filter((f) => !stays.includes(f));
      const set = changed.map((f) => `${columns[f]} = excluded.${columns[f]}`).join(', ');
      await this.insert(db, row, `on conflict ${there} do update set ${set}`);
    },
    /** Changes the rows that a condition finds. @param where with $1 for its value */
    async change(db: Queries, row: Partial<R>, where: string, value: unknown): Promise<R | undefined> {
      const fields = given(row);
      const rows = await db.query<R>(
        `update ${table} set ${fields.map((f, i) => `${columns[f]} = $${i + 2}`).join(', ')}
         where ${where} returning ${list()}`,
        [value, ...fields.map((f) => asSql(row[f]))],
      );
      return rows[0];
    },
  };
}
