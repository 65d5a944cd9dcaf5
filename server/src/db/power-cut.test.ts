import * as nodeFs from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, expect, it, vi } from 'vitest';
import { openShop } from '../start/open-shop';

/**
 * What a disk holds after a power cut, at the least: of each file what was synced last, under the names that its folder had when that was synced last. Everything
 * else is lost, as the worst disk may lose it.
 */
const disk = vi.hoisted(() => ({
  contents: new Map<string, string>(),
  names: new Map<string, Map<string, string>>(),
  store: '',
  synced: undefined as ((file: number) => void) | undefined,
}));
vi.mock('node:fs', async (original) => {
  const fs = await original<typeof nodeFs>();
  const fsyncSync: typeof fs.fsyncSync = (file) => {
    fs.fsyncSync(file);
    disk.synced?.(file);
  };
  return { ...fs, fsyncSync };
});

const root = nodeFs.mkdtempSync(join(tmpdir(), 'kevro-power-'));
afterAll(() => nodeFs.rmSync(root, { recursive: true, force: true }));

const idOf = ({ ino, birthtimeMs }: nodeFs.Stats): string => `${ino}-${birthtimeMs}`;
disk.store = join(root, 'synced');
nodeFs.mkdirSync(disk.store);
let copies = 0;
disk.synced = (file) => {
  const path = nodeFs.readlinkSync(`/proc/self/fd/${file}`);
  const info = nodeFs.fstatSync(file);
  if (info.isDirectory()) {
    const names = nodeFs
      .readdirSync(path)
      .map((name): [string, string] => [name, idOf(nodeFs.lstatSync(join(path, name)))]);
    disk.names.set(idOf(info), new Map(names));
  } else {
    const copy = join(disk.store, String(++copies));
    nodeFs.copyFileSync(path, copy, nodeFs.constants.COPYFILE_FICLONE);
    const before = disk.contents.get(idOf(info));
    if (before) nodeFs.rmSync(before);
    disk.contents.set(idOf(info), copy);
  }
};

/** Writes what the disk holds into a folder, as the machine would find it when the power is back. */
function afterCut(from: string, to: string): void {
  nodeFs.mkdirSync(to);
  const lay = (path: string, at: string): void => {
    const names = disk.names.get(idOf(nodeFs.lstatSync(path))) ?? new Map<string, string>();
    for (const [name, id] of names) {
      const there = join(path, name);
      const content = disk.contents.get(id);
      // A folder is known by the names that were synced for it; it must still be the same one.
      const folder = nodeFs.existsSync(there) && nodeFs.lstatSync(there).isDirectory();
      if (folder) {
        nodeFs.mkdirSync(join(at, name));
        lay(there, join(at, name));
      } else if (content) nodeFs.copyFileSync(content, join(at, name));
      else nodeFs.writeFileSync(join(at, name), '');
    }
  };
  lay(from, to);
}

const CUTS = 10;
const WRITES_EACH = 9;

it('loses nothing that was acknowledged, whenever the power goes, through checkpoints and changes of the log', async () => {
  const folder = join(root, 'shop');
  const db = await openShop(folder);
  const acknowledged: string[] = [];
  const images: { image: string; count: number }[] = [];
  for (let cut = 0; cut < CUTS; cut++) {
    for (let i = 0; i < WRITES_EACH; i++) {
      const key = `w${cut}-${i}`;
      await db.query("insert into setup_shape (key, sport, shape) values ($1, repeat('x', 2000), '{}')", [
        key,
      ]);
      acknowledged.push(key);
    }
    if (cut % 3 === 1) await db.run('checkpoint');
    if (cut % 3 === 2) await db.query('select pg_switch_wal()');
    // In the middle of what is not acknowledged yet, too.
    const under = db.query("insert into setup_shape (key, sport, shape) values ($1, '', '{}')", [
      `under ${cut}`,
    ]);
    const image = join(root, `cut-${cut}`);
    afterCut(folder, image);
    images.push({ image, count: acknowledged.length });
    await under;
  }
  await db.close();
  for (const { image, count } of images) {
    const again = await openShop(image);
    const keys = new Set(
      (await again.query<{ key: string }>('select key from setup_shape')).map(({ key }) => key),
    );
    expect(acknowledged.slice(0, count).filter((key) => !keys.has(key))).toEqual([]);
    await again.close();
  }
  expect(dirname(images[0]?.image ?? '')).toBe(root);
}, 240_000);
