import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestServer } from '../test-server';
import { openShop } from '../start/open-shop';
import type { Db } from './db';
import { storeOldDemo } from './fixtures/old-demo';
import { migrate } from './migrate';
import { dbOf, openEngine } from './pglite';
import { CAME_LATER, LAST, VERSIONS, counts, storedBy } from './test-versions';

const root = mkdtempSync(join(tmpdir(), 'kevro-versions-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** Those that are killed amid their upgrade: some of all ages and the last ones. Each one is upgraded on a server too (`postgres.test.ts`). */
const KILLED = VERSIONS.filter((version) => version < LAST && (version % 4 === 2 || version > LAST - 3));
/** A shop of each of them, in a folder; taken while the next step of its upgrade was under way and not yet stored. */
const images = new Map<number, string>();
let before: Record<string, number>;
beforeAll(async () => {
  const folder = join(root, 'shop');
  const db = dbOf(await openEngine(folder));
  await migrate(db, 2);
  await storeOldDemo(db);
  for (const version of VERSIONS) {
    for (const row of CAME_LATER[version] ?? []) await db.query(row);
    if (version === LAST) continue;
    if (!KILLED.includes(version)) {
      await migrate(db, version + 1);
      continue;
    }
    const image = join(root, `killed-after-${version}`);
    const cutOff: Db = {
      ...db,
      transaction: (work) =>
        db.transaction(async (tx) => {
          const done = await work(tx);
          // All of the step is done, nothing of it is stored: here the process is killed.
          cpSync(folder, image, { recursive: true });
          return done;
        }),
    };
    await migrate(cutOff, version + 1);
    images.set(version, image);
  }
  before = await counts(db);
  await db.close();
}, 120_000);

describe.each(KILLED)('a shop of version %i', (version) => {
  it('that was killed in the middle of its upgrade is upgraded whole', async () => {
    const db = await openShop(images.get(version) ?? '');
    const later = Object.entries(CAME_LATER).filter(([number]) => Number(number) > version);
    for (const [, rows] of later) for (const row of rows) await db.query(row);
    expect(await counts(db)).toEqual(before);
    await db.close();
  });
});

it('every record of a shop that went through all versions can be read', async () => {
  const db = dbOf(await openEngine());
  await storedBy(db, LAST);
  const server = await startTestServer(undefined, db);
  await db.query('delete from shop_lock');
  const read = async (path: string) => {
    const { status, body } = await server.call('GET', path);
    expect([path, status]).toEqual([path, 200]);
    return body;
  };
  for (const list of ['/parts', '/instruments', '/guides', '/learning', '/changes', '/day', '/shop'])
    await read(list);
  for (const [list, each] of [
    ['/players', (id: string) => [`/players/${id}/page`, `/players/${id}/data`]],
    ['/frames', (id: string) => [`/frames/${id}`, `/frames/${id}/sessions`, `/frames/${id}/capture`]],
    ['/setups', (id: string) => [`/setups/${id}`]],
    ['/today', (id: string) => [`/fittings/${id}`, `/fittings/${id}/calendar.ics`]],
  ] as const) {
    const { rows } = await read(list);
    expect(rows.length).toBeGreaterThan(0);
    for (const { id } of rows)
      for (const path of each(id)) {
        if (path.endsWith('.ics')) expect([200, 404]).toContain((await fetch(server.base + path)).status);
        else await read(path);
      }
  }
  expect(await db.query('select name from device')).toEqual([{ name: '' }]);
  await server.close();
});
