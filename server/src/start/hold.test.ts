import { cpSync, mkdirSync, mkdtempSync, realpathSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join, relative } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { shopFolder } from './demo-folder';
import { Held, holdShop } from './hold';

const root = mkdtempSync(join(tmpdir(), 'kevro-hold-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** A folder as a shop has it now: the database lies within. */
function shop(name: string): string {
  const folder = join(root, name);
  mkdirSync(join(folder, 'database', 'base'), { recursive: true });
  mkdirSync(join(folder, 'backups'));
  writeFileSync(join(folder, 'database', 'PG_VERSION'), '17');
  return folder;
}
/** As shops had it before: the folder is the database's own. */
function olderShop(name: string): string {
  const folder = join(root, name);
  mkdirSync(join(folder, 'base'), { recursive: true });
  writeFileSync(join(folder, 'PG_VERSION'), '17');
  return folder;
}
const hold = (folder: string, url = 'http://127.0.0.1:1') => holdShop(folder, url, () => shopFolder(folder));

describe('a folder that one server works on', () => {
  let folder: string;
  let older: string;
  beforeAll(() => {
    folder = shop('X');
    older = olderShop('old');
    symlinkSync(folder, join(root, 'link'));
    symlinkSync(join(folder, 'database'), join(root, 'link-inside'));
    symlinkSync(root, join(root, 'around'));
  });

  const ways: [string, () => string][] = [
    ['by its name', () => folder],
    ['by that of its database', () => join(folder, 'database')],
    ['by that of its backups', () => join(folder, 'backups')],
    ['with a stroke at the end', () => `${folder}/`],
    ['with a way round', () => join(folder, '..', basename(folder), '.', 'database') + '/../database'],
    ['from here', () => relative(process.cwd(), join(folder, 'database'))],
    ['by a link', () => join(root, 'link')],
    ['by a link and its database', () => join(root, 'link', 'database')],
    ['by a link into it', () => join(root, 'link-inside')],
    ['by a link that comes round', () => join(root, 'around', 'around', 'X', 'database')],
    ['by its real path', () => realpathSync(join(folder, 'database'))],
  ];
  it.each(ways)('is refused to a second one %s', async (_, way) => {
    const first = await hold(folder);
    await expect(hold(way(), 'http://127.0.0.1:2')).rejects.toThrow(Held);
    await first.release();
    // Given back, it is free.
    const again = await hold(folder);
    await again.release();
  });

  it('is refused to one that comes from outside while the inner one is served', async () => {
    const inner = join(folder, 'database');
    const first = await hold(inner);
    await expect(hold(folder)).rejects.toThrow(Held);
    await first.release();
  });

  it('is refused before there is a database in it, by either name', async () => {
    const fresh = join(root, 'fresh');
    const first = await hold(fresh);
    await expect(hold(fresh)).rejects.toThrow(Held);
    await expect(hold(join(fresh, 'database'))).rejects.toThrow(Held);
    // Made meanwhile, as at a first start, it is held as soon as it is there.
    mkdirSync(join(fresh, 'database'), { recursive: true });
    await first.holdDatabase();
    const elsewhere = join(root, 'moved');
    symlinkSync(join(fresh, 'database'), elsewhere);
    await expect(hold(elsewhere)).rejects.toThrow(Held);
    await first.release();
  });

  it('that is of an older shape is held once, and says by whom', async () => {
    const first = await hold(older, 'http://127.0.0.1:4700');
    expect(first.database).toBe(older);
    await expect(hold(older)).rejects.toThrow(/Another Kevro is at work .*127\.0\.0\.1:4700/);
    await first.release();
  });

  it('leaves nothing held where it is refused half-way', async () => {
    const copy = join(root, 'copy');
    cpSync(folder, copy, { recursive: true });
    writeFileSync(join(copy, 'holiday.png'), 'x');
    await expect(hold(copy)).rejects.toThrow(/holiday/);
    rmSync(join(copy, 'holiday.png'));
    await (await hold(copy)).release();
    expect(dirname(copy)).toBe(root);
  });
});
