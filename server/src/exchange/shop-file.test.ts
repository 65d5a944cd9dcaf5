import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ShopFile } from '@kevro/contract';
import { computeHere } from '../compute/compute';
import type { ApiProblem } from '../problem';
import { startTestServer, type TestServer } from '../test-server';
import { loadShop, readShopFile } from './shop-file';

const NOW = '2026-11-23T09:00:00.000Z';
const shape = { sport: 'padel', lengthCm: 45.5, shape: 'diamond' };
const rods = (slope: number) =>
  [100, 200, 300].map((trueValue) => ({ trueValue, reads: [slope * trueValue] }));
const FILE = {
  kevro: 'shop/3',
  shop: { name: 'Plumb & Loop', town: 'Brackenmouth', demo: true, calibrationHours: 48 },
  players: [
    { id: 'p1', name: 'Wanda Quill', sports: ['padel'], armHistory: 'left shoulder, long ago' },
    { id: 'p2', name: 'Abel Quill', sports: ['tennis', 'padel'], archived: true },
  ],
  frames: [
    {
      id: 'f1',
      tag: 'NW-1',
      maker: 'Norwold',
      model: 'Keel',
      ownerId: 'p1',
      shape,
      onIt: { overgrips: 2 },
      nominal: { specs: { massG: 365 }, tolerance: { massG: 10 }, dress: {} },
      weights: [{ what: 'lead', massG: 3, at: { zone: 'tip' } }],
      measurements: [
        {
          takenAt: '2026-10-01T10:00:00Z',
          dress: { overgrips: 1 },
          specs: { massG: 368, balanceCm: 26, swingWeight: 145 },
          estimated: ['swingWeight'],
          leftRight: { massG: -0.4, uncertainty: 0.2 },
        },
      ],
      stringings: [],
    },
    { id: 'f2', tag: 'NW-2', maker: 'Norwold', model: 'Keel', shape, archived: true, measurements: [] },
  ],
  setups: [],
  instruments: [
    {
      id: 'machine',
      name: 'Machine',
      kind: 'machine',
      sheet: {
        repeatability: 0.4,
        accuracy: 2,
        resolution: 0.1,
        driftPerHour: 0.02,
        warmUpMinutes: 0,
        axisCm: null,
      },
      calibrations: [
        { hoursBefore: 500, rods: rods(1.08) },
        { hoursBefore: 20, rods: rods(1.01) },
      ],
    },
  ],
  parts: [],
  fittings: [{ id: 'x', playerId: 'p1', frameIds: ['f1'], openedAt: '2026-10-01T09:00:00Z' }],
};

describe('a shop file', () => {
  let server: TestServer;
  let file: ShopFile;
  beforeAll(async () => {
    server = await startTestServer(() => NOW);
    file = readShopFile(FILE);
    await loadShop(server.db, file, computeHere, NOW);
  });
  afterAll(() => server.close());
  const get = async (path: string) => (await server.call('GET', path)).body;

  it('brings everything it names', async () => {
    expect(await server.db.query('select 1 from shop')).toHaveLength(1);
    expect(await get('/shop')).toMatchObject(file.shop);
    expect((await get('/players/p1/arm-history')).text).toBe('left shoulder, long ago');
    expect((await get('/players')).rows.map((p: { id: string }) => p.id)).toEqual(['p1']);
    expect((await get('/players?archived=yes')).rows.map((p: { id: string }) => p.id)).toEqual(['p2']);
    const page = await get('/frames/f1');
    expect(page.frame).toMatchObject({
      // What the file says is on it, though it was measured in something else.
      onIt: { overgrips: 2 },
      nominal: { specs: { massG: 365 } },
      weights: [{ what: 'lead', massG: 3, path: 'rim', startCm: 0, endCm: 0, sides: 1, partId: '' }],
    });
    expect(page.measurements[0]).toMatchObject({ estimated: ['swingWeight'], leftRight: { massG: -0.4 } });
    // The second frame of the model is judged by the same statement.
    expect((await get('/frames/f2')).frame).toMatchObject({
      archived: true,
      nominal: { specs: { massG: 365 } },
    });
    expect((await get('/today')).rows[0]).toMatchObject({ id: 'x', frames: [{ tag: 'NW-1', round: 1 }] });
  });

  it('dates calibrations back from when it is read, refused ones too', async () => {
    const calibrations = await server.db.query<{ taken_at: string; refused: string | null }>(
      'select taken_at, refused from calibration order by seq',
    );
    const hours = calibrations.map(({ taken_at }) => (Date.parse(NOW) - Date.parse(taken_at)) / 3_600_000);
    expect(hours).toEqual([500, 20]);
    expect(calibrations.map((c) => c.refused)).toEqual(['slope-off', null]);
  });

  it.each([
    ['an older kind of file', { kevro: 'shop/2' }, 'kevro'],
    ['a player without a sport', { players: [{ id: 'p', name: 'X', sports: [] }] }, 'players.0.sports'],
    ['a frame without a tag', { frames: [{ ...FILE.frames[0], tag: '' }] }, 'frames.0.tag'],
    ['something unknown', { colour: 'red' }, 'colour'],
  ])('is refused with %s, by its field', (_, change, path) => {
    try {
      readShopFile({ ...FILE, ...change });
      expect.unreachable();
    } catch (problem) {
      expect((problem as ApiProblem).errors.map((e) => e.path)).toContain(path);
    }
  });

  it('stores nothing where one row of it cannot be', async () => {
    const before = (await get('/frames')).total;
    const impossible = readShopFile({
      ...FILE,
      players: [{ id: 'p9', name: 'Nine', sports: ['padel'] }],
      instruments: [],
      fittings: [],
      frames: [
        {
          ...FILE.frames[0],
          id: 'f9',
          tag: 'NW-9',
          ownerId: 'p9',
          measurements: [
            {
              takenAt: '2026-10-01T10:00:00Z',
              dress: {},
              specs: { massG: 368, balanceCm: 26, swingWeight: 20 },
            },
          ],
        },
      ],
    });
    await expect(loadShop(server.db, impossible, computeHere, NOW)).rejects.toThrow();
    expect((await get('/frames')).total).toBe(before);
    expect((await server.call('GET', '/players/p9')).status).toBe(404);
  });
});
