import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calls, type Call } from '@kevro/contract';
import type { Db } from '../db/db';
import { NO_SHOP, dbOfPool, openPostgres, poolAt, type SharedDb } from '../db/postgres';
import { databaseForShops, newDatabase, startCluster, type Cluster } from '../db/test-cluster';
import { startTestServer, type TestServer } from '../test-server';
import { addShop, listShops, renameShop, standWalls } from './list';

// Two shops in one database: nobody of one sees, names or changes anything of the other.

let cluster: Cluster;
let url: string;
let database: SharedDb;
let behindSecond: Db;
const servers: TestServer[] = [];
const superuser = (): string => url.replace('//shopkeeper@', '//kevro@');
const nobody = async (): Promise<void> => undefined;
const never = (error: Error): never => {
  throw error;
};
beforeAll(async () => {
  cluster = await startCluster();
  url = await databaseForShops(cluster.url('postgres'));
  database = await openPostgres(url, nobody, never);
  await renameShop(database, 'one', 'lantern-lane');
  const harbour = await addShop(database, 'harbour');
  const [lantern] = (await listShops(database)).filter(({ code }) => code === 'lantern-lane');
  for (const shop of [lantern, harbour])
    servers.push(await startTestServer(undefined, database.ofShop(shop?.id ?? '')));
  // Without the path of a shop's connections a query finds the tables themselves.
  behindSecond = dbOfPool(poolAt(url), harbour.id);
  servers.push(await startTestServer(undefined, behindSecond));
});
afterAll(async () => {
  for (const server of servers) {
    server.hub.stop();
    await new Promise((done) => setTimeout(done, 0));
  }
  await behindSecond.close();
  await database.close();
  await cluster.stop();
});
const lantern = () => servers[0] as TestServer;
const harbour = () => servers[1] as TestServer;
/** Does something with the second shop as its people come to it, and behind either wall alone. */
async function behindEitherWall(work: (at: TestServer, wall: string) => Promise<void>): Promise<void> {
  await work(harbour(), 'both walls');
  await work(servers[2] as TestServer, 'the second wall');
  const tables = await tablesOfShops();
  await database.run(tables.map((name) => `alter table "${name}" no force row level security;`).join(''));
  try {
    await work(harbour(), 'the first wall');
  } finally {
    await standWalls(database);
  }
}
const tablesOfShops = async (): Promise<string[]> => {
  const rows = await database.query<{ name: string }>(
    `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'shop_id' and table_name <> 'shop_list'`,
  );
  return rows.map(({ name }) => name);
};

/** A shop with one of everything; its ids, by what they are of. */
async function fill(at: TestServer, name: string): Promise<Record<string, string>> {
  const post = async (path: string, body: unknown = {}) => {
    const answer = await at.call('POST', path, body);
    expect([path, answer.status, answer.body.detail]).toEqual([path, 200, undefined]);
    return answer.body;
  };
  const player = (await post('/players', { name: `${name} Pellam`, sports: ['tennis'] })).id;
  const shape = { sport: 'tennis', lengthCm: 68.58 };
  const frame = (
    await post('/frames', { tag: 'T-1', maker: 'Oskerra', model: 'Tide 98', shape, ownerId: player })
  ).id;
  const specs = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6 };
  const measurement = (await post(`/frames/${frame}/measurements`, { key: 'the-same-key', dress: {}, specs }))
    .id;
  const fitting = await post('/fittings', { playerId: player, frameIds: [frame] });
  const round = fitting.frames[0].rounds[0].id;
  const part = (
    await post('/parts', { kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 })
  ).id;
  const setup = (
    await post('/setups', {
      name: `${name} setup`,
      specs,
      shape,
      dress: {},
      sourceKind: 'published',
      source: 'page 1',
      key: 'a-setup-key',
    })
  ).id;
  const session = (
    await post(`/fittings/${fitting.id}/sessions`, {
      key: 'a-session-key',
      roundId: round,
      playedOn: '2026-11-20',
      energyLeft: 'enough',
      arm: 'fine',
    })
  ).id;
  return {
    players: player,
    frames: frame,
    measurements: measurement,
    fittings: fitting.id,
    rounds: round,
    parts: part,
    setups: setup,
    sessions: session,
  };
}

describe('two shops in one database', () => {
  let ids: Record<string, string>;
  it('have the same tags, keys and names, each of their own', async () => {
    ids = await fill(lantern(), 'Odo');
    await fill(harbour(), 'Halla');
    const { rows } = (await harbour().call('GET', '/players')).body;
    expect(rows.map(({ name }: { name: string }) => name)).toEqual(['Halla Pellam']);
  });

  it('list, search and count nothing of each other, behind either wall', async () => {
    const PATHS = [
      '/players',
      '/frames',
      '/setups',
      '/today',
      '/parts',
      '/changes',
      '/search?q=odo',
      '/setups.csv',
      '/learning',
      '/day',
      '/guides',
      '/instruments',
      '/models',
    ];
    await behindEitherWall(async (at, wall) => {
      for (const path of PATHS)
        expect([wall, path, await fetch(at.base + path).then((r) => r.text())]).toEqual([
          wall,
          path,
          expect.not.stringMatching(/Odo/),
        ]);
      for (const path of ['/players', '/frames', '/setups'])
        expect([wall, path, (await at.call('GET', path)).body.total]).toEqual([wall, path, 1]);
    });
  });

  it('find nothing by the other’s ids, whatever is called with them, behind either wall', async () => {
    const rowsOf = async (db: Db): Promise<string> => {
      const [found] = await db.query<{ all: string }>(
        `select (select json_agg(t order by id)::text from player t) || (select json_agg(t order by id)::text from frame t)
           || (select json_agg(t order by id)::text from fitting t) || (select json_agg(t order by id)::text from setup t)
           || (select json_agg(t order by id)::text from measurement t) || (select json_agg(t order by id)::text from part t)
           || (select json_agg(t order by id)::text from session t) as all`,
      );
      return found?.all ?? '';
    };
    const before = await rowsOf(lantern().db);
    await behindEitherWall(async (at, wall) => {
      let tried = 0;
      for (const [name, call] of Object.entries<Call>(calls)) {
        if (!call.path.includes(':id')) continue;
        const resource = /^\/([a-z]+)/.exec(call.path)?.[1] ?? '';
        const id = ids[resource] ?? ids.fittings ?? '';
        for (const body of [
          {},
          {
            key: `foreign-${name}-${wall}`,
            roundId: ids.rounds,
            frameId: ids.frames,
            playerId: ids.players,
            readingId: 'x',
            archived: true,
            retired: true,
            counts: false,
          },
        ]) {
          const { status, body: answer } = await at.call(
            call.method.toUpperCase(),
            call.path.replace(':id', id),
            call.method === 'get' ? undefined : body,
          );
          tried++;
          expect([wall, name, status >= 400 || !JSON.stringify(answer).includes('Odo')]).toEqual([
            wall,
            name,
            true,
          ]);
          if (call.method === 'get')
            expect([wall, name, status]).toEqual([
              wall,
              name,
              expect.toSatisfy((s: number) => s === 404 || JSON.stringify(answer).length < 400),
            ]);
        }
      }
      expect(tried).toBeGreaterThan(100);
      // Named in what is sent.
      for (const [path, body] of [
        [
          '/frames',
          {
            tag: 'X-1',
            maker: 'Oskerra',
            model: 'Tide',
            shape: { sport: 'tennis', lengthCm: 68 },
            ownerId: ids.players,
          },
        ],
        ['/fittings', { playerId: ids.players, frameIds: [ids.frames] }],
      ] as const)
        expect([wall, path, (await at.call('POST', path, body)).status]).toEqual([
          wall,
          path,
          expect.toSatisfy((s: number) => s >= 400),
        ]);
    });
    expect(await rowsOf(lantern().db)).toBe(before);
  });

  it('stand behind two walls, either of which is enough: SQL that does not say whose rows it means finds and stores none of another', async () => {
    const [mine, there] = (await listShops(database)).map(({ id }) => id);
    const tables = await tablesOfShops();
    expect(tables.length).toBeGreaterThan(30);
    await behindEitherWall(async ({ db: own }) => {
      for (const name of tables)
        expect([
          name,
          await own.query(`select 1 from "${name}" where shop_id <> $1 limit 1`, [mine]),
        ]).toEqual([name, []]);
      expect(
        await own.query('update player set name = $1 where shop_id = $2 returning 1', ['taken', there]),
      ).toEqual([]);
      expect(await own.query('delete from session where shop_id = $1 returning 1', [there])).toEqual([]);
      await expect(
        own.query(
          `insert into player (id, name, level, style, sports, shop_id) values ('x', 'x', '', '', '[]', $1)`,
          [there],
        ),
      ).rejects.toThrow(/row-level security|check option/);
    });
    // Who says nothing is of no shop.
    const forgetful = dbOfPool(poolAt(url, NO_SHOP));
    expect(await forgetful.query('select 1 from player')).toEqual([]);
    await forgetful.close();
  });

  it('and behind their keys: a row of one cannot name a row of the other, even without that wall', async () => {
    const client = new pg.Client({ connectionString: superuser() });
    await client.connect();
    // A superuser sees through walls; keys hold for it too.
    const { rows } = await client.query<{ shop_id: string }>('select shop_id from frame where id <> $1', [
      ids.frames,
    ]);
    await expect(
      client.query(`update frame set owner_id = $1 where shop_id = $2`, [ids.players, rows[0]?.shop_id]),
    ).rejects.toThrow(/foreign key/);
    await client.end();
  });

  it('every table carries its shop in each of its keys, and has both its walls', async () => {
    const without = await database.query<{ name: string }>(
      `select c.relname as name from pg_class c where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace
         and c.relname not in ('migration', 'shop_list') and (not c.relforcerowsecurity
           or not exists (select from pg_policy p where p.polrelid = c.oid)
           or not exists (select from pg_views v where v.schemaname = 'own_rows' and v.viewname = c.relname)
           or exists (select from pg_index i where i.indrelid = c.oid and i.indisunique and not exists
             (select from pg_attribute a where a.attrelid = c.oid and a.attname = 'shop_id' and a.attnum = any (i.indkey))))`,
    );
    expect(without).toEqual([]);
  });
});

it('walls that nobody lived to raise are raised before several shops are served, and a user who sees through them serves none', async () => {
  await database.run('alter table player no force row level security; drop view own_rows.frame');
  await standWalls(database);
  const standing = await database.query(
    `select relname as name from pg_class where relname = 'player' and relrowsecurity and relforcerowsecurity
     union all select viewname from pg_views where schemaname = 'own_rows' and viewname = 'frame'`,
  );
  expect(standing).toEqual([{ name: 'player' }, { name: 'frame' }]);
  const through = await openPostgres(superuser(), nobody, never);
  await expect(standWalls(through)).rejects.toThrow(/sees the rows of every shop/);
  await through.close();
});

it('several shops are not begun by a user of the database that sees through walls', async () => {
  const db = await openPostgres(await newDatabase(cluster.url('postgres')), nobody, never);
  await expect(addShop(db, 'harbour')).rejects.toThrow(/sees the rows of every shop/);
  await expect(addShop(db, 'Not A Code')).rejects.toThrow(/small letters/);
  expect(await listShops(db)).toHaveLength(1);
  await db.close();
});
