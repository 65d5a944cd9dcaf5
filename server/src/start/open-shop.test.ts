import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openPglite } from '../db/pglite';
import { shopFolder } from './demo-folder';
import { openShop } from './open-shop';

const root = mkdtempSync(join(tmpdir(), 'kevro-open-'));
const whole = join(root, 'whole');
afterAll(() => rmSync(root, { recursive: true, force: true }));
beforeAll(async () => {
  // As the server sets it before it makes anything.
  process.umask(0o077);
  const db = await openShop(whole, async (fresh) => {
    await fresh.query("insert into setup_shape (key, sport, shape) values ('first', '', '{}')");
  });
  await db.close();
});

const keys = async (folder: string): Promise<string[]> => {
  const db = await openShop(folder);
  try {
    return (await db.query<{ key: string }>('select key from setup_shape order by key')).map((r) => r.key);
  } finally {
    await db.close();
  }
};
/** A copy of the shop, to be spoilt. */
function copy(name: string): string {
  const folder = join(root, name);
  mkdirSync(folder);
  for (const path of readdirSync(whole, { recursive: true, withFileTypes: true })) {
    const at = join(path.parentPath.replace(whole, folder), path.name);
    if (path.isDirectory()) mkdirSync(at, { recursive: true });
  }
  for (const path of readdirSync(whole, { recursive: true, withFileTypes: true }))
    if (path.isFile())
      writeFileSync(
        join(path.parentPath.replace(whole, folder), path.name),
        readFileSync(join(path.parentPath, path.name)),
      );
  return folder;
}
/** All that lies in a folder, as one number. */
function contentOf(folder: string): string {
  const hash = createHash('sha256');
  for (const path of readdirSync(folder, { recursive: true, withFileTypes: true }).toSorted((a, b) =>
    join(a.parentPath, a.name) < join(b.parentPath, b.name) ? -1 : 1,
  )) {
    hash.update(`${join(path.parentPath, path.name)}\n`);
    if (path.isFile()) hash.update(readFileSync(join(path.parentPath, path.name)));
  }
  return hash.digest('hex');
}
const refusalOf = (opening: Promise<unknown>): Promise<string> =>
  opening.then(
    () => 'opened',
    (error: Error) => error.message,
  );

describe('a first start', () => {
  it('that was cut off is begun again, with what a new shop begins with', async () => {
    const folder = join(root, 'cut-off');
    const cut = openShop(folder, () => Promise.reject(new Error('the power is gone')));
    await expect(cut).rejects.toThrow('the power is gone');
    expect(existsSync(folder)).toBe(false);
    expect(readdirSync(`${folder}.making`).length).toBeGreaterThan(0);
    const db = await openShop(folder, async (fresh) => {
      await fresh.query("insert into setup_shape (key, sport, shape) values ('again', '', '{}')");
    });
    expect(await db.query('select key from setup_shape')).toEqual([{ key: 'again' }]);
    await db.close();
    expect(existsSync(`${folder}.making`)).toBe(false);
  });

  it('leaves files that are their owner’s only', () => {
    const open = readdirSync(whole, { recursive: true, withFileTypes: true }).filter(
      (path) => (statSync(join(path.parentPath, path.name)).mode & 0o077) !== 0,
    );
    expect(open.map(({ name }) => name)).toEqual([]);
    expect(statSync(whole).mode & 0o777).toBe(0o700);
  });
});

describe('a shop that is opened', () => {
  it('goes on past an empty postmaster.pid, and takes files back from others that may read them', async () => {
    const folder = copy('pid');
    writeFileSync(join(folder, 'postmaster.pid'), '', { mode: 0o666 });
    expect(await keys(folder)).toEqual(['first']);
    expect(statSync(join(folder, 'base')).mode & 0o077).toBe(0);
  });

  it('is refused without its PG_VERSION, and no new one is made over it', async () => {
    const folder = copy('no-version');
    rmSync(join(folder, 'PG_VERSION'));
    const before = contentOf(folder);
    expect(await refusalOf(openShop(folder))).toMatch(/PG_VERSION is missing.*restore a backup/);
    expect(contentOf(folder)).toBe(before);
    // As its folder was named before: right in the folder of the data.
    expect(shopFolder(folder)).toBe(folder);
  });

  it('is refused where its files are damaged, in one sentence', async () => {
    const folder = copy('damaged');
    truncateSync(join(folder, 'global/pg_control'), 100);
    expect(await refusalOf(openShop(folder))).toMatch(
      /^The shop in .* cannot be opened: its files are damaged/,
    );
  });

  it('is refused where a newer Kevro had it, and is left as it is', async () => {
    const folder = copy('newer');
    const db = await openPglite(folder);
    await db.query("insert into migration (number, name) values (9999, '9999_from_the_future.sql')");
    await db.close();
    expect(await refusalOf(openShop(folder))).toMatch(/newer Kevro \(step 9999/);
  });

  it('is not looked for in a folder of something else', () => {
    const folder = join(root, 'photos');
    mkdirSync(folder);
    writeFileSync(join(folder, 'holiday.png'), 'x');
    expect(() => shopFolder(folder)).toThrow(/holds something that is no shop \(holiday\.png\)/);
    expect(readdirSync(folder)).toEqual(['holiday.png']);
  });
});
