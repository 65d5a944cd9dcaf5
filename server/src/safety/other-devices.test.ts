import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { emptyShop, type TestServer, onServer, startTestServer } from '../test-server';
import { code, player, json, rawTo, type Raw } from './test-raw';
import { Tries } from './tries';

const server = onServer();

const raw = rawTo(server);

describe('another device', () => {
  /** As it comes through something that passes requests on: the tests themselves come from this machine. */
  const other = { 'x-forwarded-for': '192.0.2.7' };
  const signIn = (body: object, headers: Record<string, string> = {}) =>
    raw('POST', '/api/v1/sign-in', { ...json, ...other, ...headers }, JSON.stringify(body));
  const cookieOf = ({ headers }: Raw): string => String(headers['set-cookie']).split(';')[0] ?? '';
  const players = (cookie?: string) =>
    raw('GET', '/api/v1/players', { ...other, ...(cookie ? { cookie } : {}) });

  it('is let in by nobody before there is a passphrase', async () => {
    expect(code(await players())).toBe('sign-in');
    expect(code(await signIn({ passphrase: 'anything at all' }))).toBe('no-passphrase');
    expect((await server.call('POST', '/pairings')).body.code).toBe('no-passphrase');
    expect(JSON.parse((await raw('GET', '/api/v1/access', other)).body)).toEqual({
      bench: false,
      signedIn: false,
      role: null,
      who: '',
      named: false,
      passphraseSet: false,
      several: false,
      shop: '',
      alwaysOpen: false,
      addresses: [],
    });
  });

  it('reaches nothing but the door, whatever it sends', async () => {
    for (const [method, path] of [
      ['GET', '/api/v1/players/any/arm-history'],
      ['GET', '/api/v1/today'],
      ['GET', '/api/v1/backup'],
      ['GET', '/api/v1/setups.csv'],
      ['POST', '/api/v1/setups/import'],
      ['POST', '/api/v1/compute/predict'],
      ['GET', '/api/v1/nothing-here'],
    ] as const) {
      const answer = await raw(method, path, { ...json, ...other }, method === 'POST' ? '{}' : undefined);
      expect([path, answer.status, code(answer)]).toEqual([path, 401, 'sign-in']);
    }
    for (const [method, path, only] of [
      ['PUT', '/api/v1/passphrase', 'bench-only'],
      ['POST', '/api/v1/pairings', 'owner-only'],
      ['GET', '/api/v1/devices', 'owner-only'],
    ] as const) {
      const body = method === 'PUT' ? JSON.stringify({ passphrase: 'a long enough one' }) : undefined;
      expect(code(await raw(method, path, { ...json, ...other }, body))).toBe(only);
    }
  });

  it('comes in by the passphrase, stays for the time that the shop chose, and is signed out by a new one', async () => {
    expect((await server.call('PUT', '/passphrase', { passphrase: 'short' })).status).toBe(422);
    expect((await server.call('PUT', '/passphrase', { passphrase: 'loops and plumb lines' })).status).toBe(
      200,
    );
    const [stored] = await server.db.query<{ hash: string }>('select * from shop_lock');
    expect(JSON.stringify(stored)).not.toContain('plumb lines');
    const answer = await signIn({ passphrase: 'loops and plumb lines', name: 'tablet' });
    expect(answer.status).toBe(200);
    expect(String(answer.headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict; Path=\/; Max-Age=43200/);
    const cookie = cookieOf(answer);
    expect((await players(cookie)).status).toBe(200);
    expect((await server.call('GET', '/devices')).body).toMatchObject([{ name: 'tablet' }]);
    expect((await players(`${cookie}x`)).status).toBe(401);
    // No token stands in the database as the device holds it.
    const [device] = await server.db.query<{ token_hash: string }>(
      'select token_hash from device where not bench',
    );
    expect(cookie).not.toContain(device?.token_hash);
    await server.db.query("update device set signed_in_at = signed_in_at - interval '13 hours'");
    expect((await players(cookie)).status).toBe(401);
    const again = cookieOf(await signIn({ passphrase: 'loops and plumb lines' }));
    expect((await players(again)).status).toBe(200);
    await server.call('PUT', '/passphrase', { passphrase: 'another one altogether' });
    expect((await players(again)).status).toBe(401);
  });

  it('comes in by a code from the bench, once', async () => {
    const { body } = await server.call('POST', '/pairings');
    expect(body.picture).toMatch(/^<svg/);
    expect(body.address).toContain(body.code);
    expect((await signIn({ code: 'ABCD2345' })).status).toBe(422);
    const first = await signIn({ code: `${body.code.slice(0, 4)} ${body.code.slice(4).toLowerCase()}` });
    expect(first.status).toBe(200);
    expect((await players(cookieOf(first))).status).toBe(200);
    expect((await signIn({ code: body.code })).status).toBe(422);
    const out = await raw('POST', '/api/v1/sign-out', { ...other, cookie: cookieOf(first) });
    expect(out.status).toBe(200);
    expect((await players(cookieOf(first))).status).toBe(401);
  });

  it('does not call itself as Kevro does in the change log', async () => {
    for (const name of ['bench', ' Bench ', 'B·E·N·C·H', 'ｂｅｎｃｈ', 'another device', 'A player’s link']) {
      const { body } = await server.call('POST', '/pairings');
      const answer = await signIn({ code: body.code, name });
      expect([name, answer.status, code(answer)]).toEqual([name, 422, 'name-kept']);
    }
    const { body } = await server.call('POST', '/pairings');
    const answer = await signIn({ code: body.code, name: 'bench tablet' });
    expect(answer.status).toBe(200);
    const cookie = cookieOf(answer);
    const added = await raw('POST', '/api/v1/players', { ...json, ...other, cookie }, player);
    expect(added.status).toBe(200);
    const [line] = (await server.call('GET', '/changes?limit=1')).body.rows;
    expect(line).toMatchObject({ who: 'bench tablet', call: 'addPlayer' });
  });

  it('that guesses is slowed down, and waits even with what is right', async () => {
    const answers = [];
    for (let i = 0; i < 8; i++) answers.push(await signIn({ passphrase: `guess number ${i}` }));
    const slowed = answers.at(-1);
    expect(slowed?.status).toBe(429);
    expect(Number(slowed?.headers['retry-after'])).toBeGreaterThan(0);
    expect((await signIn({ passphrase: 'another one altogether' })).status).toBe(429);
  });
});

describe('behind a proxy that says nothing of itself', () => {
  let shop: TestServer;
  let proxy: Server;
  const codes: string[] = [];
  beforeAll(async () => {
    shop = await startTestServer(undefined, undefined, { onBenchCode: (made) => codes.push(made) });
    // Everything that comes to it goes on from this machine, without a word of where it came from.
    proxy = createServer((from, to) => {
      const { port } = new URL(shop.base);
      const on = request(
        { host: '127.0.0.1', port, method: from.method, path: from.url, headers: from.headers },
        (answer) => {
          to.writeHead(answer.statusCode ?? 502, answer.headers);
          answer.pipe(to);
        },
      );
      from.pipe(on);
    });
    await new Promise<void>((done) => proxy.listen(0, '127.0.0.1', done));
  });
  afterAll(async () => {
    proxy.close();
    proxy.closeAllConnections();
    await shop.close();
  });
  const through = (
    method: string,
    path: string,
    headers: Record<string, string> = {},
    body?: object,
  ): Promise<Response> =>
    fetch(`http://127.0.0.1:${(proxy.address() as AddressInfo).port}/api/v1${path}`, {
      method,
      headers: { ...json, ...headers },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
  const cookieIn = (answer: Response): string => answer.headers.get('set-cookie')?.split(';')[0] ?? '';

  it('nobody is the bench by an address, as soon as there is a passphrase', async () => {
    // Without one the shop is as simple as a shop on one machine: whoever comes from here is the bench.
    expect((await through('GET', '/players')).status).toBe(200);
    expect(codes).toEqual([]);
    expect((await shop.call('PUT', '/passphrase', { passphrase: 'loops and plumb lines' })).status).toBe(200);
    for (const [method, path, body] of [
      ['GET', '/players', undefined],
      ['POST', '/players', { name: 'Stranger', sports: ['tennis'] }],
      ['GET', '/backup', undefined],
      ['GET', '/changes', undefined],
      ['POST', '/compute/predict', {}],
    ] as const)
      expect([path, (await through(method, path, {}, body)).status]).toEqual([path, 401]);
    expect((await through('PUT', '/passphrase', {}, { passphrase: 'mine from now on' })).status).toBe(403);
    // An address of this machine, without the proxy, is no better.
    expect((await fetch(`${shop.base}/players`)).status).toBe(401);
    expect((await fetch(`${shop.base}/access`).then((r) => r.json())) as object).toEqual({
      bench: false,
      signedIn: false,
      role: null,
      who: '',
      named: false,
      passphraseSet: true,
      several: false,
      shop: '',
      alwaysOpen: false,
      addresses: [],
    });
  });

  it('the bench’s browser goes on by its own sign-in, which it got with the passphrase', async () => {
    expect((await shop.call('GET', '/players')).status).toBe(200);
    expect((await shop.call('GET', '/devices')).body).toEqual([]);
    await shop.call('POST', '/players', { name: 'Wanda', sports: ['tennis'] });
    expect((await shop.call('GET', '/changes?limit=1')).body.rows[0].who).toBe('bench');
  });

  it('another browser of this machine is let in by the address that the start prints, once', async () => {
    const [benchCode = ''] = codes;
    expect(benchCode).toHaveLength(16);
    const first = await through('POST', '/sign-in', {}, { code: benchCode });
    expect(first.status).toBe(200);
    const cookie = cookieIn(first);
    expect((await through('GET', '/devices', { cookie })).status).toBe(200);
    expect((await through('POST', '/sign-in', {}, { code: benchCode })).status).toBe(422);
    // There is another one for the next.
    expect(codes).toHaveLength(2);
    const far = await through('POST', '/sign-in', { 'x-forwarded-for': '192.0.2.7' }, { code: codes[1] });
    expect(far.status).toBe(403);
  });

  it('a new passphrase signs every browser out but the one that set it', async () => {
    const again = await through('POST', '/sign-in', {}, { code: codes.at(-1) });
    const cookie = cookieIn(again);
    expect((await through('GET', '/players', { cookie })).status).toBe(200);
    await shop.call('PUT', '/passphrase', { passphrase: 'another one altogether' });
    expect((await through('GET', '/players', { cookie })).status).toBe(401);
    expect((await shop.call('GET', '/players')).status).toBe(200);
  });
});

it('the wait after wrong tries doubles, has an end, and is the same at every process', async () => {
  const db = await emptyShop();
  const [tries, another] = [new Tries(db), new Tries(db)];
  const waits: number[] = [];
  for (let wrong = 0; wrong < 30; wrong++) {
    await (wrong % 2 ? tries : another).failed(0);
    waits.push(await tries.waitMs(0));
  }
  expect(waits.slice(0, 7)).toEqual([0, 0, 0, 0, 2000, 4000, 8000]);
  expect(waits.at(-1)).toBe(15 * 60_000);
  await another.succeeded();
  expect(await tries.waitMs(0)).toBe(0);
  await db.close();
});
