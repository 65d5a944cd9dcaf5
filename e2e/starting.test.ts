import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort, until } from './harness';

const root = resolve(import.meta.dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'kevro-starting-'));
const running: ChildProcess[] = [];

interface Started {
  child: ChildProcess;
  url: string;
  said: () => string;
  ended: Promise<number | null>;
}

function start(command: string, args: string[], env: Record<string, string>): Started {
  const child = spawn(command, args, { cwd: root, env: { ...process.env, ...env } });
  running.push(child);
  let said = '';
  child.stdout.on('data', (part) => (said += String(part)));
  child.stderr.on('data', (part) => (said += String(part)));
  const ended = new Promise<number | null>((done) => child.once('exit', done));
  return { child, url: `http://127.0.0.1:${env.PORT}`, said: () => said, ended };
}
const server = (env: Record<string, string>): Started =>
  start(process.execPath, [join(root, 'server/dist/main.js')], env);
const ready = (url: string): Promise<boolean> =>
  fetch(`${url}/api/v1/health`).then(
    (r) => r.ok,
    () => false,
  );
const post = (url: string, path: string, body: object): Promise<Response> =>
  fetch(`${url}/api/v1${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const port = async (): Promise<string> => String(await freePort());

test.afterEach(() => {
  for (const child of running.splice(0)) child.kill('SIGKILL');
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

test.describe('a server', () => {
  test('has its folder for itself: a second one refuses and names the first; after SIGKILL the next goes on at once with all that was stored', async () => {
    const KEVRO_DATA = join(folder, 'one');
    const first = server({ KEVRO_DATA, PORT: await port() });
    await until(() => ready(first.url));
    const second = server({ KEVRO_DATA, PORT: await port() });
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain(`process ${first.child.pid}, ${first.url}`);

    // On the same port too: the one that comes second never opens the database.
    const PORT = new URL(first.url).port;
    const third = server({ KEVRO_DATA, PORT });
    expect(await third.ended).toBe(1);
    expect(third.said()).toContain(`Kevro cannot listen on ${first.url}`);

    for (let i = 0; i < 20; i++) {
      expect((await post(first.url, '/players', { name: `Player ${i}`, sports: ['tennis'] })).ok).toBe(true);
    }
    first.child.kill('SIGKILL');
    await first.ended;
    const again = server({ KEVRO_DATA, PORT });
    await until(() => ready(again.url));
    const { total } = (await (await fetch(`${again.url}/api/v1/players`)).json()) as { total: number };
    expect(total).toBe(20);
  });

  for (const [env, why] of [
    [{ PORT: 'abc' }, 'PORT must be a whole number from 0 to 65535, not “abc”.'],
    [{ PORT: '70000' }, 'PORT must be a whole number'],
    [
      { PORT: '0', KEVRO_DATA: '/proc/kevro' },
      'Kevro cannot keep its data in /proc/kevro: it cannot be made there.',
    ],
  ] as const)
    test(`says in one sentence why it does not start: ${JSON.stringify(env)}`, async () => {
      const one = server({ KEVRO_DATA: join(folder, 'none'), ...env });
      expect(await one.ended).toBe(1);
      expect(one.said().trim().split('\n')).toHaveLength(1);
      expect(one.said()).toContain(why);
      expect(existsSync(join(folder, 'none'))).toBe(false);
    });

  test('answers what was begun before it ends, and takes nothing more', async () => {
    const one = server({ KEVRO_DATA: join(folder, 'ends'), PORT: await port() });
    await until(() => ready(one.url));
    // Streams end only with their pages: no end waits for them.
    const stream = await fetch(`${one.url}/api/v1/stream`);
    // The server says that it has the head of the request, and waits for its body (RFC 9110, 10.1.1).
    const begun = request(`${one.url}/api/v1/players`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', expect: '100-continue' },
    });
    const status = new Promise((done, fail) => {
      begun.once('error', fail);
      begun.once('response', (response) => done(response.statusCode));
    });
    begun.flushHeaders();
    await new Promise((heard) => begun.once('continue', heard));
    one.child.kill('SIGTERM');
    await until(() =>
      fetch(`${one.url}/api/v1/health`).then(
        () => false,
        () => true,
      ),
    );
    begun.end(JSON.stringify({ name: 'Wilm Ackerley', sports: ['tennis'] }));
    expect(await status).toBe(200);
    expect(await one.ended).toBe(0);
    await stream.text().catch(() => '');
    expect(await fetch(one.url).catch(() => 'nobody answers')).toBe('nobody answers');
  });

  test('says that it is starting while it is', async () => {
    const one = server({ KEVRO_DATA: join(folder, 'slow'), PORT: await port() });
    const first = await until(() => fetch(`${one.url}/api/v1/health`).catch(() => undefined));
    expect(first.status).toBe(503);
    expect(await first.json()).toMatchObject({ code: 'starting', detail: expect.stringMatching(/starting/) });
  });
});

test.describe('the package', () => {
  test('is installed from its file alone, and serves a shop with its page', async () => {
    const run = (command: string, args: string[], cwd = root): string =>
      execFileSync(command, args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] });
    const file = run(process.execPath, ['scripts/pack.mjs', folder]).trim().split('\n').at(-1) ?? '';
    const elsewhere = join(folder, 'elsewhere');
    mkdirSync(elsewhere);
    run(
      'npm',
      ['install', '--no-audit', '--no-fund', '--prefer-offline', '--loglevel=error', file],
      elsewhere,
    );
    const one = start(process.execPath, [join(elsewhere, 'node_modules/kevro/kevro.mjs')], {
      KEVRO_DATA: join(folder, 'packed'),
      PORT: await port(),
    });
    await until(() => ready(one.url));
    expect(await (await fetch(one.url)).text()).toContain('<title>Kevro');
    // It computes in threads of its own, each of which is a file of the package.
    const planned = await post(one.url, '/compute/plan', {
      shape: { sport: 'tennis', lengthCm: 68.58 },
      specs: { massG: 320, balanceCm: 32.5, swingWeight: 318, twistWeight: 13.5 },
      target: { massG: { value: 326, tolerance: 2 }, swingWeight: { value: 325, tolerance: 3 } },
    });
    const [plan] = ((await planned.json()) as { plans: object[] }).plans;
    expect(plan).toMatchObject({ withinTolerance: true });
    one.child.kill('SIGTERM');
    expect(await one.ended).toBe(0);
  });
});

test.describe('npm run demo', () => {
  test('ends its server when it is ended', async () => {
    const demo = start('npm', ['run', 'demo'], { KEVRO_DATA: join(folder, 'demo'), PORT: await port() });
    await until(() => ready(demo.url));
    demo.child.kill('SIGTERM');
    await demo.ended;
    await until(async () => !(await ready(demo.url)));
    // Its own folder it may start anew.
    const again = server({ KEVRO_DATA: join(folder, 'demo'), KEVRO_DEMO: 'fresh', PORT: await port() });
    await until(() => ready(again.url));
  });

  test('leaves a folder alone that it did not make', async () => {
    const shop = join(folder, 'my-shop');
    mkdirSync(shop);
    writeFileSync(join(shop, 'PG_VERSION'), '17\n');
    const demo = start('npm', ['run', 'demo'], { KEVRO_DATA: shop, PORT: await port() });
    expect(await demo.ended).toBe(1);
    expect(demo.said()).toContain('is left as it is');
    expect(readdirSync(shop)).toEqual(['PG_VERSION']);
    expect(existsSync(join(shop, 'PG_VERSION'))).toBe(true);
  });

  test('lends its own folder to no shop', async () => {
    const theirs = join(folder, 'theirs');
    const demo = server({ KEVRO_DATA: theirs, KEVRO_DEMO: 'fresh', PORT: await port() });
    await until(() => existsSync(join(theirs, 'made-by-the-kevro-demo')));
    demo.child.kill('SIGKILL');
    await demo.ended;
    const shop = server({ KEVRO_DATA: theirs, PORT: await port() });
    expect(await shop.ended).toBe(1);
    expect(shop.said()).toContain('belongs to the demo');
  });
});
