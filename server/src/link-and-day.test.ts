import { describe, expect, it } from 'vitest';
import { onPlayingShop, SPECS } from './test-play';

let now = '2026-11-23T09:00:00.000Z';
const { server, made, key, opened } = onPlayingShop(() => now);

describe('a player’s link', () => {
  const link = async (f: Awaited<ReturnType<typeof opened>>) =>
    made(`${f.at}/links`, { roundId: (await f.round()).id, days: 7 });
  const answers = { playedOn: '2026-11-23', energyLeft: 'enough', arm: 'fine', note: 'went well' };

  it('notes one session, once', async () => {
    const f = await opened();
    const { code, address, picture } = await link(f);
    expect(address).toBe(`http://192.0.2.7:4700/played/${code}`);
    expect(picture).toContain('<svg');
    const page = await server.call('GET', `/played/${code}`);
    expect(page.body).toMatchObject({ frame: { model: 'Quarr 97' }, noted: false });
    // Nothing of the player is told to who has only the link.
    expect(JSON.stringify(page.body)).not.toContain('Player');
    const first = key();
    for (let i = 0; i < 2; i++) await made(`/played/${code}`, { key: first, ...answers });
    expect((await f.round()).sessions).toHaveLength(1);
    const again = await server.call('POST', `/played/${code}`, { key: key(), ...answers });
    expect([again.status, again.body.code]).toEqual([410, 'link-used']);
    expect((await server.call('GET', `/played/${code}`)).body.noted).toBe(true);
  });

  it('ends, by its day or by another link; and takes nothing that is no session', async () => {
    const f = await opened();
    const { code: old } = await link(f);
    const { code } = await link(f);
    expect((await server.call('GET', `/played/${old}`)).status).toBe(404);
    const wrong = await server.call('POST', `/played/${code}`, {
      key: key(),
      ...answers,
      energyLeft: 'heaps',
    });
    expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'energyLeft']);
    now = '2026-12-01T09:00:00.000Z';
    expect((await server.call('GET', `/played/${code}`)).body.code).toBe('link-ended');
    expect((await server.call('POST', `/played/${code}`, { key: key(), ...answers })).status).toBe(410);
    now = '2026-11-23T09:00:00.000Z';
    expect((await f.round()).sessions).toHaveLength(0);
  });

  it('opens nothing else to another device', async () => {
    const f = await opened();
    const { code } = await link(f);
    const phone = { 'x-forwarded-for': '192.0.2.50' };
    const from = (path: string) => fetch(server.base + path, { headers: phone });
    expect((await from(`/played/${code}`)).status).toBe(200);
    for (const path of [
      '/players',
      '/today',
      `/fittings/${f.id}`,
      '/search?q=a',
      '/day',
      '/shop',
      '/changes',
    ])
      expect([path, (await from(path)).status]).toEqual([path, 401]);
  });
});

describe('the shop’s day', () => {
  it('finds everything by its words, kind by kind, and tells how many more there are', async () => {
    const f = await opened(SPECS, { name: 'Quilla Sarnbeck' });
    const found = (await server.call('GET', '/search?q=sarn%20quil')).body;
    expect(found).toMatchObject([
      { kind: 'player', total: 1, rows: [{ id: f.playerId, title: 'Quilla Sarnbeck' }] },
      { kind: 'fitting', total: 1, rows: [{ id: f.id, detail: 'open' }] },
    ]);
    for (let i = 0; i < 6; i++) await opened(SPECS);
    const many = (await server.call('GET', '/search?q=velmond')).body;
    const frames = many.find(({ kind }: { kind: string }) => kind === 'frame');
    expect(frames.total).toBeGreaterThan(6);
    expect(frames.rows).toHaveLength(6);
    expect((await server.call('GET', '/search?q=')).body).toEqual([]);
  });

  it('lists fittings by sport and by person, with the programme that goes on', async () => {
    const f = await opened(SPECS, { name: 'Yorrick Tamblen' });
    await f.begin('find-ceiling');
    const rows = async (query: string) => (await server.call('GET', `/today?${query}`)).body;
    const { rows: own, total } = await rows('search=tamblen&sport=tennis');
    expect(total).toBe(1);
    expect(own[0].frames[0]).toMatchObject({
      programme: 'find-ceiling',
      sport: 'tennis',
      next: { station: 'play', because: 'not-played' },
    });
    await f.play();
    expect((await rows('search=tamblen')).rows[0].frames[0].next.because).toBe('step-due');
    expect((await rows('search=tamblen&sport=padel')).total).toBe(0);
  });

  it('keeps who changed what and when, without a word of it', async () => {
    const { id } = await made('/players', {
      name: 'Changed Once',
      sports: ['tennis'],
      botherNote: 'a secret word',
    });
    const { rows } = (await server.call('GET', '/changes?limit=5')).body;
    expect(rows[0]).toMatchObject({
      who: 'bench',
      call: 'addPlayer',
      what: 'Add a player',
      record: 'player',
      recordId: id,
      title: 'Changed Once',
    });
    const stored = await server.db.query<{ row: string }>('select change_log::text as row from change_log');
    expect(stored.some(({ row }) => row.includes('secret') || row.includes('Changed'))).toBe(false);
    // Looking and working out change nothing.
    const before = (await server.call('GET', '/changes')).body.total;
    await server.call('POST', '/compute/compare', {});
    await server.call('GET', '/players');
    expect((await server.call('GET', '/changes')).body.total).toBe(before);
  });
});
