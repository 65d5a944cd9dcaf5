import { describe, expect, it } from 'vitest';
import { onBench } from './test-capture';
import { paths } from './test-server';

const time = Date.parse('2026-11-23T09:00:00.000Z');
const { server, another, newFrame, addFrame, capture, store, typeAll } = onBench(() => time);
const { get, post, put } = server;

describe('players', () => {
  const person = (name: string, more = {}) => post('/players', { name, sports: ['tennis'], ...more });

  it('are found by any word, by sport, sorted, and put away', async () => {
    await person('Wanda Quill', { style: 'serve and volley', levelScale: 5, birthYear: 2011 });
    const old = (await person('Abel Quill', { sports: ['padel', 'tennis'], levelScale: 2, birthYear: 1960 }))
      .body;
    const names = async (query: string) =>
      (await get(`/players?${query}`)).body.rows.map((p: { name: string }) => p.name);
    expect(await names('search=quill')).toEqual(['Abel Quill', 'Wanda Quill']);
    expect(await names('search=quill&sort=age')).toEqual(['Wanda Quill', 'Abel Quill']);
    expect(await names('search=volley%20quill')).toEqual(['Wanda Quill']);
    expect(await names('search=quill&sport=padel')).toEqual(['Abel Quill']);
    await put(`/players/${old.id}/archived`, { archived: true });
    expect(await names('search=quill&sort=level')).toEqual(['Wanda Quill']);
    expect(await names('search=quill&archived=yes')).toEqual(['Abel Quill']);
    expect(paths(await get('/players?sort=height'))).toEqual(['sort']);
  });

  it('keep the arm history to themselves until it is asked for', async () => {
    const secret = 'elbow, spring of last year';
    const { body } = await person('Ruben Achterberg', { armHistory: secret });
    expect(body.hasArmHistory).toBe(true);
    expect(JSON.stringify(body)).not.toContain('elbow');
    expect(JSON.stringify((await get('/players')).body)).not.toContain('elbow');
    expect((await get('/players?search=elbow')).body.rows).toEqual([]);
    expect((await get(`/players/${body.id}/arm-history`)).body).toEqual({ text: secret });
    const { id, hasArmHistory: _, archived: __, ...own } = body;
    await put(`/players/${id}`, { ...own, level: 'club, strong' });
    expect((await get(`/players/${id}/arm-history`)).body.text).toBe(secret);
    await put(`/players/${id}`, { ...own, level: 'club', armHistory: '' });
    expect((await get(`/players/${id}`)).body).toMatchObject({ hasArmHistory: false, level: 'club' });
  });

  it('are refused without a sport, and off the scale', async () => {
    const answer = await person('Nobody', { sports: [], levelScale: 9, heightCm: 400 });
    expect(paths(answer).toSorted()).toEqual(['heightCm', 'levelScale', 'sports']);
  });
});

describe('frames', () => {
  const TIP = { id: 'w', partId: '', path: 'rim', startCm: 0, endCm: 0, sides: 1, layers: 1, massG: 3 };
  it('share what the maker states, and are duplicated for a pair', async () => {
    const nominal = { specs: { massG: 305 }, tolerance: { massG: 7 }, dress: {} };
    const model = `Shared ${another()}`;
    const first = await addFrame({ model, nominal, weights: [TIP] });
    const second = await addFrame({ model });
    expect((await get(`/frames/${second}`)).body.frame.nominal).toEqual(nominal);
    const twin = (await post(`/frames/${first}/duplicate`, { tag: `twin-${another()}` })).body;
    expect(twin).toMatchObject({ model, weights: [], nominal });
    const taken = await post(`/frames/${first}/duplicate`, { tag: twin.tag });
    expect([taken.status, ...paths(taken)]).toEqual([409, 'tag']);
  });

  it('are found by any word and by owner, and sorted by when they were measured', async () => {
    const owner = (await post('/players', { name: 'Odile Vantresk', sports: ['padel'] })).body.id;
    const model = `Find ${another()}`;
    const own = await addFrame({ model, ownerId: owner });
    const stock = await addFrame({ model });
    await typeAll(stock);
    await store(stock, (await capture(stock)).id);
    const ids = async (query: string) =>
      (await get(`/frames?${query}`)).body.rows.map((f: { id: string }) => f.id);
    expect(await ids('search=find%20vantresk')).toEqual([own]);
    // One word of the owner, one of the frame; who has none is of the stock.
    expect(await ids(`search=${model.replace(' ', '+')}+stock`)).toEqual([stock]);
    expect(await ids(`search=find&owner=stock&sort=measured`)).toContain(stock);
    expect((await ids('sort=measured&limit=1'))[0]).toBe(stock);
    expect((await get(`/frames?search=${model.replace(' ', '+')}&limit=1`)).body.total).toBe(2);
    await put(`/frames/${own}/archived`, { archived: true });
    expect(await ids('search=vantresk')).toEqual([]);
  });

  it('and their players are what a fitting is found by, as they are called now', async () => {
    const playerId = (await post('/players', { name: 'Ottoline Brask', sports: ['tennis'] })).body.id;
    const model = `Reed ${another()}`;
    const [first, second] = [await addFrame({ model }), await addFrame({ model, paint: 'ochre' })];
    const opened = await post('/fittings', { playerId, frameIds: [first] });
    expect(opened.status).toBe(200);
    const found = async (words: string): Promise<number[]> => [
      (await get(`/today?search=${words}`)).body.total,
      (await get(`/search?q=${words}`)).body.find((of: { kind: string }) => of.kind === 'fitting')?.total ??
        0,
    ];
    expect(await found('brask+reed')).toEqual([1, 1]);
    expect(await found('brask+ochre')).toEqual([0, 0]);
    // Another frame in the fitting.
    await put(`/fittings/${opened.body.id}`, { playerId, frameIds: [second] });
    expect(await found('brask+ochre')).toEqual([1, 1]);
    // Another name for the player, and for the frame.
    await put(`/players/${playerId}`, { name: 'Ottoline Sund', sports: ['tennis'] });
    expect(await found('brask')).toEqual([0, 0]);
    expect(await found('sund+ochre')).toEqual([1, 1]);
    const { tag, maker, shape } = (await get(`/frames/${second}`)).body.frame;
    await put(`/frames/${second}`, { tag, maker, model, shape, paint: 'slate' });
    expect(await found('sund+ochre')).toEqual([0, 0]);
    expect(await found('sund+slate')).toEqual([1, 1]);
  });

  it('and everything else that is searched are found by words of one and two letters too', async () => {
    const owner = (await post('/players', { name: 'Zq Vantresk', sports: ['padel'] })).body.id;
    const frame = await addFrame({ maker: 'Zq', model: `X ${another()}`, ownerId: owner });
    await post('/fittings', { playerId: owner, frameIds: [frame] });
    const counts = async (words: string): Promise<number[]> =>
      Promise.all(
        ['/players', '/frames', '/models', '/today'].map(
          async (list) => (await get(`${list}?search=${words}`)).body.total,
        ),
      );
    expect(await counts('zq')).toEqual([1, 1, 1, 1]);
    expect(await counts('q+z')).toEqual([1, 1, 1, 1]);
    expect(await counts('zq+%25')).toEqual([0, 0, 0, 0]);
    const found = (await get('/search?q=zq')).body.map(({ kind, total }: { kind: string; total: number }) => [
      kind,
      total,
    ]);
    expect(found).toEqual([
      ['player', 1],
      ['frame', 1],
      ['fitting', 1],
    ]);
  });

  it('go by their owner as the owner is called now, whoever that is', async () => {
    const model = `Owned ${another()}`;
    const person = async (name: string) =>
      (await post('/players', { name, sports: ['padel'] })).body.id as string;
    const [mira, aldo] = [await person('Mira Oskelund'), await person('Aldo Fenwick')];
    const ofMira = newFrame({ model, ownerId: mira });
    const first = (await post('/frames', ofMira)).body.id;
    const second = await addFrame({ model, ownerId: aldo });
    const stock = await addFrame({ model });
    const ids = async (words: string) =>
      (await get(`/frames?sort=owner&search=${model.replace(' ', '+')}+${words}`)).body.rows.map(
        (f: { id: string }) => f.id,
      );
    expect(await ids('')).toEqual([stock, second, first]);
    const renamed = await put(`/players/${mira}`, { name: 'Abel Oskelund', sports: ['padel'] });
    expect(renamed.status).toBe(200);
    expect(await ids('')).toEqual([stock, first, second]);
    expect([await ids('mira'), await ids('abel')]).toEqual([[], [first]]);
    await put(`/frames/${first}`, { ...ofMira, ownerId: aldo });
    expect([await ids('abel'), (await ids('fenwick')).toSorted()]).toEqual([[], [first, second].toSorted()]);
    await put(`/frames/${first}`, { ...ofMira, ownerId: null });
    expect((await ids('stock')).toSorted()).toEqual([first, stock].toSorted());
  });

  it('are changed whole or not at all, and keep their strings', async () => {
    const [a, b] = [newFrame(), newFrame()];
    const first = (await post('/frames', a)).body;
    await post('/frames', b);
    const clash = await put(`/frames/${first.id}`, { ...a, tag: b.tag });
    expect([clash.status, ...paths(clash)]).toEqual([409, 'tag']);
    await put(`/frames/${first.id}`, { ...a, paint: 'Tide 100', onIt: { strings: true } });
    const stringing = { strungOn: '2026-11-20', mains: 'poly', mainsKg: 23, crossesKg: 22, unit: 'kg' };
    await post(`/frames/${first.id}/stringings`, stringing);
    const { body } = await get(`/frames/${first.id}`);
    expect(body.frame).toMatchObject({ tag: a.tag, paint: 'Tide 100', onIt: { strings: true } });
    expect(body.stringings[0]).toMatchObject({ ...stringing, crosses: 'poly' });
    expect(paths(await post(`/frames/${first.id}/stringings`, { ...stringing, mainsKg: 0 }))).toEqual([
      'mainsKg',
    ]);
  });
});
