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
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import yauzl, { type Entry, type Options, type ZipFile as YauzlFile } from 'yauzl';
import { ZipFile } from 'yazl';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FittingView } from '@kevro/contract';
import type { Db } from '../db/db';
import { migrate } from '../db/migrate';
import { dbOf, openEngine, openPglite } from '../db/pglite';
import { emptyShop, startTestServer, type TestServer } from '../test-server';
import { KeptBackups } from './kept';
import { isRowOf } from './read';
import { restore } from './restore';
import { NOW, loadDemo, saveBackup } from './test-backup';
import { writeWhole } from './whole-file';
import type { Manifest } from './write';

const root = mkdtempSync(join(tmpdir(), 'kevro-backup-'));
let server: TestServer;
beforeAll(async () => {
  const db = await emptyShop();
  await loadDemo(db);
  server = await startTestServer(() => NOW, db);
});
afterAll(async () => {
  await server.close();
  rmSync(root, { recursive: true, force: true });
});

const save = (db: Db, name: string) => saveBackup(db, join(root, name));
/** The entries of a zip, as text. */
async function entriesOf(file: string): Promise<Map<string, string>> {
  const zip = await promisify<string, Options, YauzlFile>(yauzl.open)(file, {
    lazyEntries: true,
    autoClose: false,
  });
  const found = new Map<string, string>();
  await new Promise<void>((done, fail) => {
    zip.on('entry', (entry: Entry) => {
      zip.openReadStream(entry, (error, stream) => {
        if (error) {
          fail(error);
          return;
        }
        void text(stream).then((content) => {
          found.set(entry.fileName, content);
          zip.readEntry();
        }, fail);
      });
    });
    zip.once('end', () => done());
    zip.readEntry();
  });
  zip.close();
  return found;
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
    // A frame of nobody's in a fitting: what the database keeps of others by itself is right whatever comes first.
    const [stock] = (await server.call('GET', '/frames?search=ml-011+stock')).body.rows;
    const [player] = (await server.call('GET', '/players?search=maren+quist')).body.rows;
    const fitting = { playerId: player.id, frameIds: [stock.id] };
    expect((await server.call('POST', '/fittings', fitting)).status).toBe(200);
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
    expect((await other.call('GET', '/today?search=maren+ml-011')).body.total).toBe(1);
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

  /** A backup written anew, with something changed in it; its counts and hashes are right. */
  async function rewritten(
    name: string,
    change: (table: string, lines: string[]) => string[] | undefined,
  ): Promise<string> {
    const { file } = await save(server.db, `before ${name}`);
    const found = await entriesOf(file);
    const manifest = JSON.parse(found.get('manifest.json') ?? '') as Manifest;
    const zip = new ZipFile();
    const tables: Manifest['tables'] = [];
    for (const told of manifest.tables) {
      const entry = `tables/${told.name}.jsonl`;
      const lines = (found.get(entry) ?? '').split('\n').filter((line) => line !== '');
      const changed = change(told.name, lines);
      if (!changed) continue;
      const text = changed.map((line) => `${line}\n`).join('');
      zip.addBuffer(Buffer.from(text), entry);
      tables.push({
        name: told.name,
        rows: changed.length,
        sha256: createHash('sha256').update(text).digest('hex'),
      });
    }
    zip.addBuffer(Buffer.from(JSON.stringify({ ...manifest, tables })), 'manifest.json');
    zip.end();
    await pipeline(zip.outputStream as Readable, createWriteStream(join(root, name)));
    return join(root, name);
  }
  const withRow =
    (of: string, change: (row: Record<string, unknown>) => unknown) =>
    (table: string, lines: string[]): string[] =>
      table === of
        ? lines.map((line, i) =>
            i === 0 ? JSON.stringify(change(JSON.parse(line) as Record<string, unknown>)) : line,
          )
        : lines;

  it('is taken where nothing of it was changed', async () => {
    await restore(await rewritten('same.zip', (_, lines) => lines), join(root, 'same'));
  });

  it('is refused where its manifest lacks a table', async () => {
    const file = await rewritten('lacking.zip', (table, lines) => (table === 'session' ? undefined : lines));
    expect(await refused(file, 'lacking')).toMatch(/should hold of “session” is missing/);
  });

  it('is refused where a value is of another kind than its column', async () => {
    const file = await rewritten(
      'kind.zip',
      withRow('player', (row) => ({ ...row, name: 5 })),
    );
    expect(await refused(file, 'kind')).toMatch(/row 1 of “player” is no such row/);
  });

  it.each<[string, unknown]>([
    ['a number where a word is', { name: 5, g: 1, yes: true, data: {} }],
    ['a word where a number is', { name: 'a', g: '1', yes: true, data: {} }],
    ['a word where yes or no is', { name: 'a', g: 1, yes: 'yes', data: {} }],
    ['a list where a word is', { name: ['a'], g: 1, yes: true, data: {} }],
    ['a column that no table has', { name: 'a', g: 1, yes: true, data: {}, nickname: 'x' }],
    ['a column that is missing', { name: 'a', g: 1, yes: true }],
    ['no row at all', [1, 2]],
  ])('has no such row: %s', (_, row) => {
    const kinds = new Map([
      ['name', 'text'],
      ['g', 'float8'],
      ['yes', 'bool'],
      ['data', 'jsonb'],
    ]);
    expect(isRowOf(JSON.stringify(row), kinds)).toBe(false);
    expect(isRowOf(JSON.stringify({ name: null, g: 1.5, yes: false, data: [1] }), kinds)).toBe(true);
    expect(isRowOf('{', kinds)).toBe(false);
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

describe('a backup’s name', () => {
  it('is on no file before it is whole, wherever writing it stops', async () => {
    const folder = mkdtempSync(join(root, 'names-'));
    const file = join(folder, 'kevro-2026-11-23T090000Z.zip');
    async function* cutOff(after: number): AsyncGenerator<Buffer> {
      for (let i = 0; i < after; i++) yield Buffer.alloc(70_000);
      expect(readdirSync(folder)).not.toContain('kevro-2026-11-23T090000Z.zip');
      await Promise.resolve();
      throw new Error('the disk is full');
    }
    for (const after of [0, 1, 5]) {
      await expect(writeWhole(Readable.from(cutOff(after)), file)).rejects.toThrow('the disk is full');
      expect(readdirSync(folder)).toEqual([]);
    }
    await writeWhole(Readable.from([Buffer.from('whole')]), file);
    expect(readdirSync(folder)).toEqual(['kevro-2026-11-23T090000Z.zip']);
    // Another backup is never written over.
    await expect(writeWhole(Readable.from([Buffer.from('other')]), file)).rejects.toThrow(/EEXIST/);
    expect(readFileSync(file, 'utf8')).toBe('whole');
  });
});

describe('backups that are made by themselves', () => {
  it('go on daily after a clock that was ahead once, and the last that was made is kept', async () => {
    const folder = join(root, 'ahead');
    let now = '2026-11-01T10:00:00.000Z';
    const kept = new KeptBackups(server.db, folder, () => now);
    await server.call('PUT', '/shop', { name: 'P', town: '', calibrationHours: 72, backupsKept: 2 });
    const made = async (at: string): Promise<string[]> => {
      now = at;
      await kept.keepUp();
      return kept.list().map(({ name }) => name.slice(6, 16));
    };
    expect(await made('2026-11-01T10:00:00.000Z')).toEqual(['2026-11-01']);
    expect(await made('2031-01-01T10:00:00.000Z')).toEqual(['2031-01-01', '2026-11-01']);
    // The clock is right again: one is made at once, and then one a day.
    expect(await made('2026-11-02T10:00:00.000Z')).toEqual(['2026-11-02', '2026-11-01']);
    expect(await made('2026-11-02T20:00:00.000Z')).toEqual(['2026-11-02', '2026-11-01']);
    expect(await made('2026-11-03T10:00:00.000Z')).toEqual(['2026-11-03', '2026-11-02']);
  });

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
    await expect(kept.keepUp()).rejects.toThrow(/almost full/);
    expect(kept.list()).toHaveLength(3);
    room = Infinity;
    await server.call('PUT', '/shop', { ...shop, backupsKept: 0 });
    await kept.keepUp();
    expect(kept.list()).toHaveLength(3);
  });
});
