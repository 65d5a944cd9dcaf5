import { describe, expect, it } from 'vitest';
import { calls, type Call } from '@kevro/contract';
import { onServer, startTestServer } from '../test-server';

// People of the shop: who signs in by name, what each may do, and what is written of it.
let time = Date.parse('2026-11-23T09:00:00.000Z');
const server = onServer(() => startTestServer(() => new Date(time).toISOString()));
const OWN = 'a word of my own';

async function as(cookie: string, method: string, path: string, body?: unknown) {
  const response = await fetch(server.base + path, {
    method,
    headers: { 'content-type': 'application/json', cookie },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return {
    status: response.status,
    // eslint-disable-next-line @typescript-eslint/no-explicit-any
    body: (/^[[{]/.test(text) ? JSON.parse(text) : text) as any,
    cookie: response.headers.get('set-cookie')?.split(';')[0] ?? '',
  };
}
const signIn = (person: string, passphrase = OWN) => as('', 'POST', '/sign-in', { person, passphrase });
const add = (name: string, role: string) => server.post('/staff', { name, role, passphrase: OWN });

describe('people of the shop', () => {
  it('sign in by name and passphrase once an owner has let them, and are in the change log by it', async () => {
    await server.put('/passphrase', { passphrase: 'loops and plumb lines' });
    for (const [name, role] of [
      ['Halla Brandt', 'owner'],
      ['Per Lindqvist', 'fitter'],
      ['Una Reed', 'reader'],
    ])
      expect((await add(name as string, role as string)).status).toBe(200);
    const { cookie, status } = await signIn('per lindqvist');
    expect(status).toBe(200);
    expect((await as(cookie, 'GET', '/access')).body).toMatchObject({
      role: 'fitter',
      who: 'Per Lindqvist',
      named: true,
      bench: false,
    });
    expect((await as(cookie, 'POST', '/players', { name: 'Odo Pellam', sports: ['tennis'] })).status).toBe(
      200,
    );
    const [line] = (await server.get('/changes')).body.rows;
    expect(line).toMatchObject({ who: 'Per Lindqvist' });
  });

  it('are told nothing of who is of the shop, and wait after wrong tries', async () => {
    const wrong = await signIn('Per Lindqvist', 'not mine at all');
    const nobody = await signIn('Nobody At All', OWN);
    expect([wrong.status, wrong.body]).toEqual([nobody.status, nobody.body]);
    // The shop’s own passphrase is nobody’s.
    expect((await signIn('Nobody At All', 'loops and plumb lines')).status).toBe(422);
    for (let more = 0; more < 3; more++) await signIn('Per Lindqvist', 'not mine at all');
    expect((await signIn('Per Lindqvist')).status).toBe(429);
    time += 16 * 60_000;
    expect((await signIn('Per Lindqvist')).status).toBe(200);
  });

  it('are let in as themselves by no code: that is a device’s', async () => {
    const { code } = (await server.post('/pairings')).body;
    const { cookie } = await as('', 'POST', '/sign-in', { person: 'Halla Brandt', code });
    expect((await as(cookie, 'GET', '/access')).body).toMatchObject({ role: 'fitter', who: '' });
    expect((await as(cookie, 'GET', '/staff')).body.code).toBe('owner-only');
  });

  it('may do what their role allows: a reader changes nothing and sees nothing private, a fitter does all work, an owner says who comes in', async () => {
    const [owner, fitter, reader] = await Promise.all(
      ['Halla Brandt', 'Per Lindqvist', 'Una Reed'].map(async (name) => (await signIn(name)).cookie),
    );
    const player = (await as(fitter ?? '', 'POST', '/players', { name: 'Liv Harrow', sports: ['padel'] }))
      .body.id;
    for (const [name, call] of Object.entries<Call>(calls)) {
      if (call.method === 'get' || call.path.startsWith('/compute/')) continue;
      if (['signIn', 'signOut', 'noteByLink', 'sendFilm', 'ownPassphrase'].includes(name)) continue;
      const answer = await as(reader ?? '', call.method.toUpperCase(), call.path.replace(/:\w+/, 'any'), {});
      expect([name, answer.status]).toEqual([name, 403]);
    }
    // However it is written.
    for (const path of [
      `/players/${player}/arm-history`,
      `/players/${player}/data`,
      '/backup',
      '/BACKUP',
      '/backup/',
      '/backups',
    ])
      expect((await as(reader ?? '', 'GET', path)).body.code).toBe('reader-only');
    for (const path of ['/players', '/today', '/shop', '/setups.csv'])
      expect((await as(reader ?? '', 'GET', path)).status).toBe(200);
    expect((await as(fitter ?? '', 'GET', `/players/${player}/arm-history`)).status).toBe(200);
    expect((await as(fitter ?? '', 'GET', '/staff')).body.code).toBe('owner-only');
    expect(
      (await as(fitter ?? '', 'POST', '/staff', { name: 'Me Too', role: 'owner', passphrase: OWN })).status,
    ).toBe(403);
    expect((await as(owner ?? '', 'GET', '/staff')).body).toHaveLength(3);
    // What is of this machine is set on it.
    expect((await as(owner ?? '', 'PUT', '/passphrase', { passphrase: 'mine from now on' })).body.code).toBe(
      'bench-only',
    );
  });

  it('change their passphrase, and have it reset by an owner: both sign them out elsewhere', async () => {
    const here = (await signIn('Per Lindqvist')).cookie;
    const there = (await signIn('Per Lindqvist')).cookie;
    const change = (before: string) =>
      as(here, 'PUT', '/own-passphrase', { before, passphrase: 'another word of mine' });
    expect((await change('wrong one')).body.errors[0].path).toBe('before');
    const changed = await change(OWN);
    expect(changed.status).toBe(200);
    expect((await as(there, 'GET', '/players')).status).toBe(401);
    expect((await as(changed.cookie, 'GET', '/players')).status).toBe(200);
    expect((await signIn('Per Lindqvist')).status).toBe(422);
    const per = (await server.get('/staff')).body.find(
      (one: { name: string }) => one.name === 'Per Lindqvist',
    );
    expect((await server.put(`/staff/${per.id}/passphrase`, { passphrase: OWN })).status).toBe(200);
    expect((await as(changed.cookie, 'GET', '/players')).status).toBe(401);
    expect((await signIn('Per Lindqvist')).status).toBe(200);
  });

  it('may do what their role allows now, not when they came in; who has left comes in no more', async () => {
    const { cookie } = await signIn('Per Lindqvist');
    const per = (await server.get('/staff')).body.find(
      (one: { name: string }) => one.name === 'Per Lindqvist',
    );
    const edit = (change: object) =>
      server.put(`/staff/${per.id}`, { name: per.name, role: per.role, left: false, ...change });
    await edit({ role: 'reader' });
    expect((await as(cookie, 'POST', '/players', { name: 'Too Late', sports: ['tennis'] })).body.code).toBe(
      'reader-only',
    );
    await edit({ left: true });
    expect((await as(cookie, 'GET', '/players')).status).toBe(401);
    expect((await signIn('Per Lindqvist')).status).toBe(422);
    await edit({ left: false });
    expect((await signIn('Per Lindqvist')).status).toBe(200);
  });

  it('have names of their own, none that Kevro writes by itself', async () => {
    expect((await add('HALLA brandt', 'reader')).body.code).toBe('already-there');
    expect((await add('Bench', 'owner')).body.errors[0]).toMatchObject({ path: 'name', code: 'name-kept' });
    const lines = (await server.get('/changes')).body.rows.filter(
      ({ call }: { call: string }) => call === 'addStaff',
    );
    // Nothing is written of what was not done.
    expect(lines).toHaveLength(3);
    const [una] = (await server.get('/staff')).body.slice(-1);
    expect(
      (await server.put(`/staff/${una.id}`, { name: 'Halla Brandt', role: 'reader', left: false })).body.code,
    ).toBe('already-there');
  });

  it('sign out of what they were signed in to when the time of the shop is over', async () => {
    const { cookie } = await signIn('Halla Brandt');
    time += 13 * 3_600_000;
    expect((await as(cookie, 'GET', '/players')).status).toBe(401);
  });
});
