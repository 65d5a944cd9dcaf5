import * as nodeFs from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it, vi } from 'vitest';
import { openPglite } from './pglite';

const synced = vi.hoisted(() => ({ count: 0 }));
vi.mock('node:fs', async (original) => {
  const fs = await original<typeof nodeFs>();
  const fsyncSync: typeof fs.fsyncSync = (file) => {
    synced.count++;
    fs.fsyncSync(file);
  };
  return { ...fs, fsyncSync };
});

const folder = nodeFs.mkdtempSync(join(tmpdir(), 'kevro-durable-'));
afterAll(() => nodeFs.rmSync(folder, { recursive: true, force: true }));

it('brings each commit to the disk before it is acknowledged', async () => {
  const db = await openPglite(join(folder, 'shop'));
  const before = synced.count;
  for (let i = 0; i < 20; i++) {
    await db.query("insert into setup_shape (key, sport, shape) values ($1, '', '{}')", [`s${i}`]);
    expect(synced.count).toBeGreaterThan(before + i);
  }
  expect(await db.query('show fsync')).toEqual([{ fsync: 'on' }]);
  await db.close();
});
