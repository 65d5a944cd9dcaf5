import { mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { expect, it } from 'vitest';
import { makeNewDatabase } from './new-database';
import { openEngine } from './pglite';

/** What a database is from its making on, and what cannot be changed in it later. */
const MADE_WITH = `
  select current_setting('server_version') as version, current_setting('server_encoding') as encoding,
    current_setting('data_checksums') as checksums, datcollate, datctype, datlocprovider,
    (select count(*)::int from pg_class) as relations,
    (select count(*)::int from pg_class where relnamespace = 'public'::regnamespace) as own
  from pg_database where datname = current_database()`;

it('a new database that is copied is as one that is made, and has nothing in it', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'kevro-new-'));
  try {
    await makeNewDatabase(folder);
    const file = new Blob([await readFile(join(folder, 'new-database.tar.gz'))], {
      type: 'application/gzip',
    });
    const [copied, made] = [await openEngine(join(folder, 'database'), file), await PGlite.create()];
    const [mine, usual] = [await copied.query(MADE_WITH), await made.query(MADE_WITH)];
    await Promise.all([copied.close(), made.close()]);
    expect(mine.rows).toEqual(usual.rows);
    expect(mine.rows[0]).toMatchObject({ encoding: 'UTF8', own: 0 });
    // Opened again it is that shop, not a copy of the new one once more.
    const again = await openEngine(join(folder, 'database'));
    await again.exec('create table kept (a int)');
    await again.close();
    const later = await openEngine(join(folder, 'database'));
    expect((await later.query('select * from kept')).rows).toEqual([]);
    await later.close();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
