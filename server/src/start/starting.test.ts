import type { AddressInfo } from 'node:net';
import { afterAll, expect, it } from 'vitest';
import { serverFor } from './server-for';
import { starting } from './starting';

const server = serverFor(starting).listen(0);
const at = (path: string): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`;
afterAll(() => void server.close());

it('tells a person that it is starting, on a page that opens the shop by itself', async () => {
  const answer = await fetch(at('/players'), { headers: { accept: 'text/html,application/xhtml+xml' } });
  expect(answer.status).toBe(503);
  // RFC 9110, 10.2.3; `Refresh` as the HTML standard has it.
  expect([answer.headers.get('retry-after'), answer.headers.get('refresh')]).toEqual(['2', '2']);
  expect(await answer.text()).toContain('Kevro is starting. The page opens by itself');
});

it.each([
  ['a call', '/api/v1/frames', 'text/html'],
  ['a file of the page', '/assets/start.js', '*/*'],
])('answers %s with a problem', async (_, path, accept) => {
  const answer = await fetch(at(path), { headers: { accept } });
  expect([answer.status, answer.headers.get('content-type')]).toEqual([503, 'application/problem+json']);
  expect(await answer.json()).toMatchObject({ code: 'starting', status: 503 });
});

it('keeps a connection for longer than a proxy before it does', async () => {
  // nginx, upstream module: keepalive_timeout is 60 s unless it is set.
  const kept = (await fetch(at('/'))).headers.get('keep-alive') ?? '';
  expect(Number(/^timeout=(\d+)$/.exec(kept)?.[1])).toBeGreaterThan(60);
});
