import { request } from 'node:http';
import { describe, expect, it } from 'vitest';
import { onServer } from '../test-server';
import { code, player, json, rawTo, type Raw } from './test-raw';
import { withoutWords } from './log';

const server = onServer();

const raw = rawTo(server);
const players = async (): Promise<number> => (await server.call('GET', '/players')).body.total as number;

describe('another page in the same browser', () => {
  it('stores nothing by a plain form, with or without telling where it stands', async () => {
    const before = await players();
    const forms: Record<string, string>[] = [
      { 'content-type': 'text/plain' },
      { 'content-type': 'application/x-www-form-urlencoded' },
      { 'content-type': 'multipart/form-data; boundary=x' },
    ];
    for (const headers of forms)
      expect(code(await raw('POST', '/api/v1/players', headers, player))).toBe('not-sent-as-json');
    const strangers: Record<string, string>[] = [
      { origin: 'http://elsewhere.example' },
      { origin: 'null' },
      { origin: 'http://127.0.0.1:1' },
      { 'sec-fetch-site': 'cross-site' },
    ];
    for (const headers of strangers) {
      const answer = await raw('POST', '/api/v1/players', { ...json, ...headers }, player);
      expect([answer.status, code(answer)]).toEqual([403, 'foreign-page']);
    }
    expect(await players()).toBe(before);
    const own = new URL(server.base).origin;
    expect((await raw('POST', '/api/v1/players', { ...json, origin: own }, player)).status).toBe(200);
    expect(await players()).toBe(before + 1);
  });

  it('reads nothing under a name that it leads here', async () => {
    const rebound = await raw('GET', '/api/v1/players', { host: 'shop.elsewhere.example' });
    expect([rebound.status, code(rebound)]).toEqual([403, 'foreign-name']);
    expect(rebound.body).not.toContain('Wanda');
    expect(
      (await raw('GET', '/api/v1/players', { host: `localhost:${new URL(server.base).port}` })).status,
    ).toBe(200);
  });

  it('cannot show the page in a frame, nor have it run a script of its own', async () => {
    const { headers } = await raw('GET', '/api/v1/health');
    const policy = String(headers['content-security-policy']);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).toMatch(/script-src 'self'(;|$)/);
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['referrer-policy']).toBe('no-referrer');
  });
});

describe('what cannot be stored', () => {
  it.each(['a\0b', 'half a sign \ud83d', { key: 'deep \0' }])(
    'is refused where it stands: %j',
    async (name) => {
      const { status, body } = await server.call('POST', '/players', { name, sports: ['tennis'] });
      expect([status, body.code]).toEqual([422, 'unreadable-text']);
      expect(body.errors[0].path).toMatch(/^name/);
    },
  );

  it.each(['/players/a%00b', '/players?search=a%00b', '/frames/%ff', '/setups?search=%00&limit=1'])(
    'names nothing: %s',
    async (path) => {
      expect((await server.call('GET', path)).status).toBe(404);
    },
  );

  it('a body that is not packed as its headers say is not readable', async () => {
    for (const encoding of ['gzip', 'deflate', 'br', 'zstd', 'compress']) {
      const answer = await raw('POST', '/api/v1/players', { ...json, 'content-encoding': encoding }, player);
      expect(answer.status, encoding).toBe(400);
    }
  });

  it('more than a form needs is too large, and what is wrong is not told at more length than it takes', async () => {
    const large = await server.call('POST', '/players', { name: 'x'.repeat(1_200_000), sports: ['tennis'] });
    expect([large.status, large.body.code]).toEqual([413, 'too-large']);
    const many = Object.fromEntries(Array.from({ length: 2000 }, (_, i) => [`no such key ${i}`, i]));
    const answer = await server.call('POST', '/players', { name: 'Wanda', sports: ['tennis'], ...many });
    expect(answer.status).toBe(422);
    expect(answer.body.errors).toHaveLength(20);
  });
});

describe('a body', () => {
  /** A body of so many bytes that is sent bit by bit, without its length being said first. */
  const streamed = (path: string, bytes: number, part = '0,'.repeat(8192)): Promise<Raw> =>
    new Promise((done, fail) => {
      const { port } = new URL(server.base);
      const sent = request(
        { host: '127.0.0.1', port, method: 'POST', path: `/api/v1${path}`, headers: json },
        (answer) => {
          const parts: Buffer[] = [];
          answer.on('data', (more: Buffer) => parts.push(more));
          answer.on('end', () => {
            done({
              status: answer.statusCode ?? 0,
              headers: answer.headers,
              body: Buffer.concat(parts).toString(),
            });
            sent.destroy();
          });
        },
      );
      sent.on('error', fail);
      sent.write('{"setups":[0');
      for (let i = 0; i < bytes; i += part.length) sent.write(`,${part.slice(0, -1)}`);
      sent.end(']}');
    });

  it('holds no more than its call can need, counted while it comes in', async () => {
    for (const [path, bytes] of [
      ['/players', 70_000],
      ['/sign-in', 5000],
      ['/compute/shift-axis', 70_000],
      ['/compute/predict', 170_000],
      ['/compute/reach', 33 * 2 ** 20],
    ] as const) {
      const answer = await streamed(path, bytes).catch((error: NodeJS.ErrnoException) => error.code);
      // Cut off in the middle of sending, the sender may see only that.
      if (typeof answer !== 'object') expect(['ECONNRESET', 'EPIPE']).toContain(answer);
      else expect([path, answer.status, code(answer)]).toEqual([path, 413, 'too-large']);
    }
  });

  it('that is a long list of nothing is refused before each of them is looked at', async () => {
    const answer = await streamed('/compute/nearest', 30 * 2 ** 20);
    expect([answer.status, code(answer)]).toEqual([422, 'too-long']);
    expect((JSON.parse(answer.body) as { errors: unknown[] }).errors).toHaveLength(1);
  });
});

describe('the log', () => {
  it('has kind and place of an error, and no word that somebody typed', () => {
    const error = Object.assign(new Error('invalid input: "sore since March"'), {
      code: '22P02',
      table: 'player',
      detail: 'sore since March',
      params: ['sore since March'],
      query: "insert into player values ('sore since March')",
      cause: new Error('sore since March'),
    });
    const said = JSON.stringify(withoutWords(error));
    expect(said).not.toContain('sore');
    expect(said).toContain('22P02');
    expect(said).toContain('safety.test');
  });
});
