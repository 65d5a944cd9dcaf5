import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type { Db } from '../db/db';
import { openShop } from '../start/open-shop';
import { startTestServer } from '../test-server';
import { RESERVE, roomIn } from './room';

const MB = 2 ** 20;
const disk = mkdtempSync(join(tmpdir(), 'kevro-disk-'));
/** A small disk of its own; only the system's owner may make one. */
const mounted = ((): boolean => {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=320m', 'tmpfs', disk], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
})();
afterAll(() => {
  if (mounted) execFileSync('umount', ['-l', disk]);
  rmSync(disk, { recursive: true, force: true });
});

const player = { name: 'Wanda Quell', sports: ['tennis'] };

describe('a disk that is nearly full', () => {
  it('takes nothing new, answers what is asked, and takes it again once there is room', async () => {
    let free = Infinity;
    const server = await startTestServer(undefined, undefined, { room: () => free });
    expect((await server.call('POST', '/players', player)).status).toBe(200);
    free = RESERVE - 1;
    const refused = await server.call('POST', '/players', player);
    expect([refused.status, refused.body.code]).toEqual([507, 'disk-full']);
    expect((await server.call('PUT', '/shop', { name: 'A', town: '', calibrationHours: 9 })).status).toBe(
      507,
    );
    expect((await server.call('GET', '/players')).body.total).toBe(1);
    const pendulum = await server.call('POST', '/compute/predict', {});
    expect(pendulum.status).not.toBe(507);
    free = Infinity;
    expect((await server.call('POST', '/players', player)).status).toBe(200);
    await server.close();
  });

  it.runIf(mounted)(
    'never stops the database, in its tables or where its log goes on in a new file',
    async () => {
      let db: Db | undefined = await openShop(join(disk, 'shop'));
      const room = roomIn(disk);
      const server = await startTestServer(undefined, db, { room });
      // Somebody else fills the disk to just above what is kept for the database.
      const filler = join(disk, 'filler');
      writeFileSync(filler, Buffer.alloc(Math.max(0, room() - RESERVE - 12 * MB)));
      const note = 'x'.repeat(900);
      let stored = 0;
      let status = 200;
      while (status === 200 && stored < 20_000) {
        const answer = await server.call('POST', '/players', {
          ...player,
          name: `W ${stored}`,
          armHistory: note,
        });
        status = answer.status;
        if (status === 200) stored++;
        // The log goes on in a new file, again and again.
        if (stored % 400 === 399) await db.query('select pg_switch_wal()');
      }
      expect(status).toBe(507);
      expect(stored).toBeGreaterThan(50);
      await db.query('select pg_switch_wal()');
      await db.run('checkpoint');
      expect((await server.call('GET', '/players')).body.total).toBe(stored);
      rmSync(filler);
      expect((await server.call('POST', '/players', player)).status).toBe(200);
      await server.close();
      db = await openShop(join(disk, 'shop'));
      expect(await db.query('select count(*)::int as n from player')).toEqual([{ n: stored + 1 }]);
      await db.close();
    },
  );
});
