import {
  createWriteStream,
  existsSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FittingView } from '@kevro/contract';
import { computeHere } from '../compute/compute';
import type { Db } from '../db/db';
import { migrate } from '../db/migrate';
import { dbOf, openEngine, openPglite } from '../db/pglite';
import { loadShop, readShopFile } from '../exchange/shop-file';
import { emptyShop, startTestServer, type TestServer } from '../test-server';
import { KeptBackups } from './kept';
import { restore } from './restore';
import { backupOf, type Manifest } from './write';

const NOW = '2026-11-23T09:00:00.000Z';
const root = mkdtempSync(join(tmpdir(), 'kevro-backup-'));
let server: TestServer;
beforeAll(async () => {
  const db = await emptyShop();
  const demo = join(import.meta.dirname, '../../../demo/shop.json');
  await loadShop(db, readShopFile(JSON.parse(readFileSync(demo, 'utf8'))), computeHere, NOW);
  server = await startTestServer(() => NOW, db);
});
afterAll(async () => {
  await server.close();
  rmSync(root, { recursive: true, force: true });
});

async function save(db: Db, name: string): Promise<{ file: string; manifest: Manifest }> {
  const file = join(root, name);
  const { zip, done } = await backupOf(db, () => NOW);
  await pipeline(zip, createWriteStream(file));
  return { file, manifest: await done };
}
async function opened<T>(folder: string, look: (db: Db) => Promise<T>): Promise<T> {
  const db = await openPglite(folder);
  try {
    return await look(db);
  } finally {
    await db.close();
  }
}

describe('a backup', () => {
  it('restores into an empty folder with the same content, by count and hash, and the shop goes on from there', async () => {
    const before = await server.call('GET', '/fittings/f-odo');
    const { file, manifest } = await save(server.db, 'whole.zip');
    const rows = manifest.tables.reduce((sum, table) => sum + table.rows, 0);
    expect(rows).toBeGreaterThan(100);
    const folder = join(root, 'restored');
    await restore(file, folder);
    const db = await openPglite(folder);
    expect((await save(db, 'again.zip')).manifest.tables).toEqual(manifest.tables);
    const other = await startTestServer(() => NOW, db);
    const after = await other.call('GET', '/fittings/f-odo');
    expect(after.body).toEqual(before.body);
    // New rows are counted on from the old ones.
    const [frame] = (after.body as FittingView).frames;
    const session = {
      key: 'after the restore',
      roundId: frame?.rounds.at(-1)?.id,
      playedOn: '2026-11-22',
      energyLeft: 'enough',
      arm: 'fine',
    };
    expect((await other.call('POST', '/fittings/f-odo/sessions', session)).status).toBe(200);
    await other.close();
  });

  it('is of one moment while work goes on, and holds that work up for no longer than its copy takes', async () => {
    let writing = true;
    let pairs = 0;
    // Each pair is stored at once: a player, and the frame that names the player.
    const work = (async () => {
      while (writing) {
        // As between two requests.
        await new Promise((next) => setImmediate(next));
        const id = `pair-${++pairs}`;
        await server.db.transaction(async (tx) => {
          await tx.query(
            "insert into player (id, name, sports, level, style, bothers) values ($1, $1, '[]', '', '', '[]')",
            [id],
          );
          await tx.query(
            "insert into frame (id, tag, maker, model, shape, pattern, grip_size, note, owner_id) values ($1, $1, '', '', '{}', '', '', '', $1)",
            [id],
          );
        });
      }
    })();
    while (pairs < 20) await new Promise((later) => setTimeout(later, 5));
    const { file, manifest } = await save(server.db, 'busy.zip');
    const during = pairs;
    writing = false;
    await work;
    const folder = join(root, 'from-busy');
    await restore(file, folder);
    const { players, frames } = await opened(folder, async (db) => ({
      players: await db.query("select id from player where id like 'pair-%'"),
      frames: await db.query("select owner_id as id from frame where id like 'pair-%'"),
    }));
    expect(players.length).toBeGreaterThanOrEqual(20);
    expect(players.length).toBeLessThan(during);
    expect(frames).toHaveLength(players.length);
    expect(manifest.tables.find(({ name }) => name === 'player')?.rows).toBeGreaterThan(players.length);
    await server.db.query("delete from frame where id like 'pair-%'");
    await server.db.query("delete from player where id like 'pair-%'");
  });

  it('of an earlier Kevro is brought up to date by the steps that bring a shop up to date', async () => {
    const old = dbOf(await openEngine());
    await migrate(old, 10);
    await old.query(
      "insert into player (id, name, sports, level, style, bothers, arm_history) values ('p', 'Ada', '[]', '', '', '[]', 'sore')",
    );
    await old.query(
      "insert into shop (name, town, demo, calibration_hours) values ('Old shop', '', false, 48)",
    );
    const { file, manifest } = await save(old, 'old.zip');
    await old.close();
    expect(manifest.version).toBe(10);
    const folder = join(root, 'from-old');
    await restore(file, folder);
    const found = await opened(folder, (db) =>
      db.query('select p.arm_history, s.name, s.calibration_hours, s.backups_kept from player p, shop s'),
    );
    expect(found).toEqual([
      { arm_history: 'sore', name: 'Old shop', calibration_hours: 48, backups_kept: 14 },
    ]);
  });

  it('holds no passphrase and no device that is signed in', async () => {
    await server.db.query("insert into shop_lock (salt, hash, set_at) values ('salt', 'hash', now())");
    const { manifest } = await save(server.db, 'locked.zip');
    const names = manifest.tables.map(({ name }) => name);
    expect(names).not.toContain('shop_lock');
    expect(names).not.toContain('device');
    await server.db.query('delete from shop_lock');
  });
});

describe('a file that is no backup', () => {
  const refused = async (file: string, name: string): Promise<string> => {
    const folder = join(root, name);
    const said = await restore(file, folder).then(
      () => 'restored',
      (error: Error) => error.message,
    );
    expect(existsSync(folder)).toBe(false);
    expect(readdirSync(root)).not.toContain(`${name}.making`);
    return said;
  };

  it('is refused with a sentence, whatever it is, and nothing is there afterwards', async () => {
    const { file } = await save(server.db, 'sound.zip');
    const bytes = readFileSync(file);
    const spoilt = (name: string, change: (copy: Buffer) => Buffer): string => {
      writeFileSync(join(root, name), change(Buffer.from(bytes)));
      return join(root, name);
    };
    expect(await refused(join(root, 'nothing.zip'), 'a')).toMatch(
      /cannot be read as a backup.*Nothing was changed/,
    );
    const text = spoilt('text.zip', () => Buffer.from('name,weight\n'));
    expect(await refused(text, 'b')).toMatch(/cannot be read as a backup/);
    expect(
      await refused(
        spoilt('half.zip', (b) => b.subarray(0, b.length / 2)),
        'c',
      ),
    ).toMatch(/cannot be read as a backup/);
    // One byte in the middle of what was packed.
    const entry = 'tables/measurement.jsonl';
    const at = bytes.indexOf(entry) + entry.length + 200;
    const flipped = spoilt('flipped.zip', (b) => (b.writeUInt8(b.readUInt8(at) ^ 0xff, at), b));
    expect(await refused(flipped, 'd')).toMatch(/damaged/);
  });

  it('is refused over a shop that is there', async () => {
    const { file } = await save(server.db, 'over.zip');
    const folder = join(root, 'there');
    await restore(file, folder);
    const before = readdirSync(folder);
    await expect(restore(file, folder)).rejects.toThrow(/a shop in .* already/);
    expect(readdirSync(folder)).toEqual(before);
  });
});

describe('backups that are made by themselves', () => {
  it('are one a day, of which the chosen number is kept; a disk without room gets none', async () => {
    const folder = join(root, 'kept');
    let now = Date.parse('2026-11-01T10:00:00.000Z');
    let room = Infinity;
    const kept = new KeptBackups(
      server.db,
      folder,
      () => new Date(now).toISOString(),
      () => room,
    );
    const shop = { name: 'Plumb & Loop', town: '', calibrationHours: 72 };
    await server.call('PUT', '/shop', { ...shop, backupsKept: 3 });
    const HOUR = 3_600_000;
    for (let hour = 0; hour < 24 * 5; hour += 6) {
      await kept.keepUp();
      now += 6 * HOUR;
    }
    expect(kept.list().map(({ name }) => name)).toEqual([
      'kevro-2026-11-05T100000Z.zip',
      'kevro-2026-11-04T100000Z.zip',
      'kevro-2026-11-03T100000Z.zip',
    ]);
    expect(kept.list()[0]?.takenAt).toBe('2026-11-05T10:00:00.000Z');
    expect(
      (await restore(join(folder, kept.list()[0]?.name ?? ''), join(root, 'from-kept'))).version,
    ).toBeGreaterThan(0);
    now += 24 * HOUR;
    room = 10;
    await expect(kept.keepUp()).rejects.toThrow(/nearly full/);
    expect(kept.list()).toHaveLength(3);
    room = Infinity;
    await server.call('PUT', '/shop', { ...shop, backupsKept: 0 });
    await kept.keepUp();
    expect(kept.list()).toHaveLength(3);
  });
});
