import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Instrument, ToldChange } from '@kevro/contract';
import { Changes } from '../changes';
import { whileNobodyImports } from '../records/setup-batch';
import { startTestServer, type TestServer } from '../test-server';
import { openPostgres } from './postgres';
import { newDatabase, startCluster, type Cluster } from './test-cluster';

// Two processes at one database: what one does the other sees, and neither holds for true what the other changed.

const WITHIN_MS = 2000;
let cluster: Cluster;
let url: string;
const processes: (TestServer & { changes: Changes })[] = [];
const nobody = async (): Promise<void> => undefined;
async function start(bench: string) {
  const db = await openPostgres(url, nobody, (error) => {
    throw error;
  });
  const changes = new Changes(db.wire);
  const one = await startTestServer(() => '2026-11-23T09:00:00.000Z', db, {}, { bench, changes });
  return { ...one, changes };
}
beforeAll(async () => {
  cluster = await startCluster();
  url = await newDatabase(cluster.url('postgres'));
  processes.push(await start('front bench'), await start('back bench'));
});
afterAll(async () => {
  for (const one of processes) await one.close();
  await cluster.stop();
});
const front = () => processes[0] as (typeof processes)[number];
const back = () => processes[1] as (typeof processes)[number];

/** What a process is told from now on. */
function toldAt({ changes }: { changes: Changes }): ToldChange[] {
  const told: ToldChange[] = [];
  changes.listen((change) => told.push(change));
  return told;
}
const SHEET = {
  repeatability: 0.4,
  accuracy: 2,
  resolution: 0.1,
  driftPerHour: 0.02,
  warmUpMinutes: 0,
  axisCm: null,
};
let n = 0;
const addFrame = async (at: TestServer): Promise<string> =>
  (
    await at.call('POST', '/frames', {
      tag: `P-${++n}`,
      maker: 'Oskerra',
      model: 'Tide 98',
      shape: { sport: 'tennis', lengthCm: 68.58 },
      weights: [],
    })
  ).body.id;
const instrumentAt = async (at: TestServer, id: string): Promise<Instrument> =>
  (await at.call('GET', '/instruments')).body.find((one: Instrument) => one.id === id);

describe('what is stored at one process', () => {
  it('is told at the other within two seconds, once each, in its order', async () => {
    const told = toldAt(back());
    const ids: string[] = [];
    for (let i = 0; i < 100; i++) ids.push(await addFrame(front()));
    await expect.poll(() => told.length, { timeout: WITHIN_MS }).toBe(100);
    expect(told.every(({ kind }) => kind === 'frame')).toBe(true);
    expect((await back().call('GET', `/frames/${ids.at(-1)}`)).status).toBe(200);
  });

  it('and told where it was stored, is not told there again', async () => {
    const [here, there] = [toldAt(front()), toldAt(back())];
    await addFrame(front());
    await expect.poll(() => there.length, { timeout: WITHIN_MS }).toBe(1);
    expect(here).toHaveLength(1);
  });

  it('is a setting of the shop that the other works to', async () => {
    const shop = (await front().call('GET', '/shop')).body;
    const { begun: _, demo: __, ...said } = shop;
    expect((await front().call('PUT', '/shop', { ...said, name: 'Lantern Lane' })).status).toBe(200);
    expect((await back().call('GET', '/shop')).body.name).toBe('Lantern Lane');
  });
});

describe('an instrument', () => {
  it('belongs to the process that it is plugged into, says so elsewhere, and can be plugged in there', async () => {
    const added = await front().call('POST', '/instruments', {
      name: 'Front scale',
      kind: 'scale',
      sheet: SHEET,
    });
    expect(added.status).toBe(200);
    const { id } = added.body;
    await expect
      .poll(async () => (await instrumentAt(back(), id))?.bench, { timeout: WITHIN_MS })
      .toBe('front bench');
    expect((await instrumentAt(front(), id)).bench).toBeNull();
    const frameId = await addFrame(front());
    const asked = { frameId, quantity: 'massG' };
    const there = await back().call('POST', `/instruments/${id}/read`, { key: `elsewhere-${++n}`, asked });
    expect([there.status, there.body.code]).toEqual([409, 'instrument-elsewhere']);
    expect(there.body.detail).toContain('front bench');
    // What it reads is told at the other process.
    const told = toldAt(back());
    await front().call('PUT', `/instruments/${id}/stand-in`, { on: { frameId } });
    await front().call('POST', `/instruments/${id}/read`, { key: `here-${++n}-000`, asked });
    await expect
      .poll(() => told.some(({ kind, id: of }) => kind === 'reading' && of === frameId), {
        timeout: WITHIN_MS,
      })
      .toBe(true);
    expect((await back().call('GET', `/frames/${frameId}/capture`)).body.readings).toHaveLength(1);
    expect((await back().call('PUT', `/instruments/${id}/here`, {})).body.bench).toBeNull();
    await expect
      .poll(async () => (await instrumentAt(front(), id)).bench, { timeout: WITHIN_MS })
      .toBe('back bench');
  });
});

describe('who comes in', () => {
  it('by a code of one process comes in at the other, once; wrong tries count at both', async () => {
    expect((await front().call('PUT', '/passphrase', { passphrase: 'lanterns by the court' })).status).toBe(
      200,
    );
    const sign = (at: TestServer, body: object) =>
      fetch(`${at.base}/sign-in`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    // Nobody of the other machine is the bench by an address any more.
    expect((await back().call('GET', '/players')).status).toBe(401);
    const { code } = (await front().call('POST', '/pairings')).body;
    expect((await sign(back(), { code, name: 'a tablet' })).status).toBe(200);
    expect((await sign(front(), { code, name: 'a tablet' })).status).toBe(422);
    for (let wrong = 0; wrong < 5; wrong++)
      await sign(wrong % 2 ? front() : back(), { passphrase: 'not this one' });
    expect((await sign(front(), { passphrase: 'lanterns by the court' })).status).toBe(429);
    expect((await sign(back(), { passphrase: 'lanterns by the court' })).status).toBe(429);
  });
});

it('one list is read in at a time, at whichever process', async () => {
  let end = (): void => undefined;
  const until = new Promise<void>((done) => (end = done));
  let begun = (): void => undefined;
  const isBegun = new Promise<void>((done) => (begun = done));
  const first = whileNobodyImports(front().db, () => (begun(), until));
  await isBegun;
  const read = async (): Promise<string> => 'read';
  let isDone = false;
  expect(await whileNobodyImports(back().db, async () => (isDone = true))).toBeUndefined();
  expect(isDone).toBe(false);
  end();
  await first;
  expect(await whileNobodyImports(back().db, read)).toBe('read');
});
