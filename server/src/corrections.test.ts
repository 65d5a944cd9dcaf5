import { describe, expect, it } from 'vitest';
import type { FittingView, FramePage, Measurement } from '@kevro/contract';
import { onServer, paths } from './test-server';

// What was stored is put right: nothing is lost, what is wrong says so, and what stands on it follows.
const server = onServer();
const { get, post, put } = server;

let n = 0;
const key = (): string => `correct-${++n}`;
const shape = { sport: 'tennis', lengthCm: 68.58 };
const specs = { massG: 327, balanceCm: 32.2, swingWeight: 320 };
const strung = { strings: true, overgrips: 1 };
const addPlayer = async (): Promise<string> =>
  (await post('/players', { name: `Wanda ${++n}`, sports: ['tennis'] })).body.id;
const addFrame = async (ownerId: string | null = null): Promise<string> =>
  (await post('/frames', { tag: `C-${++n}`, maker: 'Oskerra', model: 'Tide 98', shape, ownerId })).body.id;
const measure = async (frameId: string, more: object = {}): Promise<Measurement> =>
  (await post(`/frames/${frameId}/measurements`, { key: key(), dress: strung, specs, ...more })).body;
const framePage = async (id: string): Promise<FramePage> => (await get(`/frames/${id}`)).body;
async function opened(): Promise<{ frameId: string; fitting: FittingView; roundId: string }> {
  const playerId = await addPlayer();
  const frameId = await addFrame(playerId);
  const fitting: FittingView = (await post('/fittings', { playerId, frameIds: [frameId] })).body;
  return { frameId, fitting, roundId: fitting.frames[0]?.rounds[0]?.id ?? '' };
}
const startOf = async (fittingId: string): Promise<string | null | undefined> =>
  ((await get(`/fittings/${fittingId}`)).body as FittingView).frames[0]?.rounds[0]?.startId;

describe('a measurement', () => {
  const right = { dress: { strings: true }, specs: { ...specs, massG: 321.5 } };
  const correct = (id: string, more: object = {}) =>
    post(`/measurements/${id}/correct`, { key: key(), reason: 'the overgrip was off', ...right, ...more });

  it('is put right by another that takes its place, its purpose and the start of its round; both stay', async () => {
    const { frameId, fitting, roundId } = await opened();
    const first = await measure(frameId, { purpose: 'found', roundId });
    const { body: second } = await correct(first.id);
    expect(second).toMatchObject({
      supersedes: first.id,
      purpose: 'found',
      roundId,
      takenAt: first.takenAt,
      counts: true,
      why: 'the overgrip was off',
      specs: { massG: 321.5 },
    });
    expect(await startOf(fitting.id)).toBe(second.id);
    const page = await framePage(frameId);
    expect(page.frame.onIt).toEqual({ strings: true });
    expect(page.measurements.find(({ id }) => id === first.id)).toMatchObject({
      counts: false,
      supersededBy: second.id,
      specs: { massG: 327 },
    });
    expect(
      (await get('/frames?search=C-')).body.rows.find((f: { id: string }) => f.id === frameId),
    ).toMatchObject({
      newest: { specs: { massG: 321.5 } },
    });
  });

  it('that was put right is as uncertain in the same parts; what was estimated and is read now scatters as a reading does', async () => {
    const frameId = await addFrame();
    const scatter = { random: 0.4, common: 0.3 };
    const guess = { random: 0, common: 2 };
    const first = await measure(frameId, {
      uncertainty: { massG: scatter, balanceCm: scatter, swingWeight: guess, twistWeight: scatter },
      estimated: ['swingWeight'],
    });
    const { body: still } = await correct(first.id, { estimated: ['swingWeight'] });
    expect(still.parts).toEqual(first.parts);
    const { body: read } = await correct(still.id, { estimated: [] });
    expect(read.parts.massG).toEqual(scatter);
    expect(read.uncertainty.swingWeight).toBeCloseTo(2, 9);
    expect(read.parts.swingWeight.random).toBeGreaterThan(0);
  });

  it('keeps what its stiffness is uncertain by where another number is put right', async () => {
    const frameId = await addFrame();
    const scatter = { random: 0.4, common: 0.3 };
    const rated = { ...specs, stiffness: 64 };
    const first = await measure(frameId, {
      specs: rated,
      uncertainty: {
        massG: scatter,
        balanceCm: scatter,
        swingWeight: scatter,
        twistWeight: scatter,
        stiffness: { random: 0.2, common: 1.7 },
      },
    });
    const { body: second } = await correct(first.id, { specs: { ...rated, massG: 321.5 } });
    expect(second.specs.stiffness).toBe(64);
    expect(second.parts.stiffness).toEqual({ random: 0.2, common: 1.7 });
  });

  it('that was put right keeps its place before those that came later', async () => {
    const frameId = await addFrame();
    const first = await measure(frameId);
    const later = await measure(frameId, { specs: { ...specs, massG: 330 } });
    const { body: second } = await correct(first.id);
    const page = await framePage(frameId);
    expect(page.measurements.filter(({ counts }) => counts).map(({ id }) => id)).toEqual([
      later.id,
      second.id,
    ]);
    // What is on it is what the later one was measured in.
    expect(page.frame.onIt).toEqual(strung);
  });

  it('is put right once a key, once in all, and never without a reason or with impossible values', async () => {
    const frameId = await addFrame();
    const first = await measure(frameId);
    const again = { key: key() };
    const { body: second } = await correct(first.id, again);
    expect((await correct(first.id, again)).body.id).toBe(second.id);
    expect((await correct(first.id)).body.code).toBe('measurement-superseded');
    expect(paths(await correct(second.id, { reason: ' ' }))).toEqual(['reason']);
    expect(paths(await correct(second.id, { specs: { ...specs, massG: -5 } }))).toContain('specs.massG');
    expect((await correct('nowhere')).status).toBe(404);
    expect((await framePage(frameId)).measurements).toHaveLength(2);
  });

  it('marked as wrong counts nowhere, and the round starts from what the frame was before; counted again it is the start again', async () => {
    const playerId = await addPlayer();
    const frameId = await addFrame(playerId);
    const before = await measure(frameId);
    const fitting = (await post('/fittings', { playerId, frameIds: [frameId] })).body;
    const roundId = fitting.frames[0].rounds[0].id;
    expect(await startOf(fitting.id)).toBe(before.id);
    const found = await measure(frameId, { purpose: 'found', roundId, specs: { ...specs, massG: 372 } });
    await measure(frameId, { purpose: 'check', roundId });
    const count = (counts: boolean) =>
      put(`/measurements/${found.id}/counts`, { counts, reason: 'another frame lay on the scale' });
    expect((await count(false)).body).toMatchObject({ counts: false, why: 'another frame lay on the scale' });
    expect(await startOf(fitting.id)).toBe(before.id);
    expect((await count(true)).body.counts).toBe(true);
    expect(await startOf(fitting.id)).toBe(found.id);
    expect(paths(await put(`/measurements/${found.id}/counts`, { counts: false, reason: '' }))).toEqual([
      'reason',
    ]);
  });

  it('of a closed fitting stays as it is', async () => {
    const { frameId, fitting, roundId } = await opened();
    const found = await measure(frameId, { purpose: 'found', roundId });
    await post(`/fittings/${fitting.id}/close`, { how: 'moved' });
    expect((await correct(found.id)).body.code).toBe('fitting-closed');
    const wrong = await put(`/measurements/${found.id}/counts`, { counts: false, reason: 'wrong' });
    expect(wrong.body.code).toBe('fitting-closed');
  });
});

describe('a fitting', () => {
  it('of the same pair is asked about, and opened all the same when that is said', async () => {
    const { fitting, frameId } = await opened();
    const pair = { playerId: fitting.player.id, frameIds: [frameId] };
    const asked = await post('/fittings', pair);
    expect(asked.status).toBe(409);
    expect(asked.body).toMatchObject({ code: 'fitting-exists', existing: fitting.id });
    expect(asked.body.detail).toContain(fitting.player.name);
    const other = await addFrame();
    expect((await post('/fittings', { ...pair, frameIds: [other] })).status).toBe(200);
    expect((await post('/fittings', { ...pair, evenIfOpen: true })).body.id).not.toBe(fitting.id);
    // One that is closed is not in the way.
    const closed = await opened();
    await post(`/fittings/${closed.fitting.id}/close`, { how: 'moved' });
    const again = { playerId: closed.fitting.player.id, frameIds: [closed.frameId] };
    expect((await post('/fittings', again)).status).toBe(200);
  });

  it('gets another player and other frames; a frame with work in it stays', async () => {
    const { fitting, frameId, roundId } = await opened();
    const [playerId, other] = [await addPlayer(), await addFrame()];
    const change = (frameIds: string[]) => put(`/fittings/${fitting.id}`, { playerId, frameIds });
    const changed: FittingView = (await change([other, frameId])).body;
    expect(changed.player.id).toBe(playerId);
    expect(changed.frames.map(({ frame, rounds }) => [frame.id, rounds.length])).toEqual([
      [other, 1],
      [frameId, 1],
    ]);
    expect(changed.frames[1]?.rounds[0]?.id).toBe(roundId);
    await measure(frameId, { purpose: 'found', roundId });
    const refused = await change([other]);
    expect(refused.body.code).toBe('frame-has-work');
    expect(paths(refused)).toEqual(['frameIds']);
    expect(((await change([frameId])).body as FittingView).frames).toHaveLength(1);
    expect(paths(await put(`/fittings/${fitting.id}`, { playerId: 'nobody', frameIds: [frameId] }))).toEqual([
      'playerId',
    ]);
  });

  it('opened by mistake is removed while it is empty', async () => {
    const empty = await opened();
    expect((await post(`/fittings/${empty.fitting.id}/remove`)).body).toEqual({ removed: true });
    expect((await get(`/fittings/${empty.fitting.id}`)).status).toBe(404);
    expect((await get(`/frames/${empty.frameId}`)).status).toBe(200);
    const worked = await opened();
    await measure(worked.frameId, { purpose: 'found', roundId: worked.roundId });
    expect((await post(`/fittings/${worked.fitting.id}/remove`)).body.code).toBe('fitting-not-empty');
    expect((await get(`/fittings/${worked.fitting.id}`)).status).toBe(200);
  });
});

describe('what is noted and what is in stock', () => {
  const setup = { name: 'Mirelle Tavoy', sourceKind: 'published', shape, dress: strung, specs };

  it('a setup is changed and retired: found no more, and kept for what was taken from it', async () => {
    const { body: stored } = await post('/setups', setup);
    const { body } = await put(`/setups/${stored.id}`, { ...setup, specs: { massG: 331.5 } });
    expect(body.specs).toMatchObject({ massG: 331.5 });
    const names = async (query: string): Promise<string[]> =>
      (await get(`/setups?${query}`)).body.rows.map(({ id }: { id: string }) => id);
    expect(await names('search=Mirelle')).toContain(stored.id);
    await put(`/setups/${stored.id}/retired`, { retired: true });
    expect(await names('search=Mirelle')).not.toContain(stored.id);
    expect(await names('search=Mirelle&retired=yes')).toContain(stored.id);
    expect(await names(`ids=${stored.id}`)).toEqual([stored.id]);
    const frameId = await addFrame();
    const { id } = await measure(frameId);
    const near = (await get(`/measurements/${id}/setups`)).body.rows;
    expect(near.map((one: { setup: { id: string } }) => one.setup.id)).not.toContain(stored.id);
    expect((await put('/setups/nowhere', setup)).status).toBe(404);
  });

  it.each([
    ['no value at all', {}, 'specs'],
    ['−5 g', { massG: -5 }, 'specs.massG'],
    ['999,999 g', { massG: 999_999 }, 'specs.massG'],
    ['a balance of −5 cm', { massG: 330, balanceCm: -5 }, 'specs.balanceCm'],
    ['a balance beyond the tip', { balanceCm: 90 }, 'specs.balanceCm'],
    ['a swing weight that cannot go with the rest', { ...specs, swingWeight: 90 }, 'specs.swingWeight'],
    ['a swing weight of nothing', { swingWeight: 0 }, 'specs.swingWeight'],
    ['a twist weight larger than can be', { twistWeight: 900 }, 'specs.twistWeight'],
  ])('a setup with %s is refused with its field, added or changed', async (_, nonsense, path) => {
    const { body: stored } = await post('/setups', setup);
    for (const refused of [
      await post('/setups', { ...setup, specs: nonsense }),
      await put(`/setups/${stored.id}`, { ...setup, specs: nonsense }),
    ]) {
      expect(refused.status).toBe(422);
      expect(paths(refused)).toContain(path);
    }
    const { rows } = (await get(`/setups?ids=${stored.id}`)).body;
    expect(rows[0].specs).toMatchObject(specs);
  });

  it('what a maker states is checked like a setup, with its give-or-take', async () => {
    const state = (nominal: object) =>
      post('/frames', { tag: `M-${++n}`, maker: 'Oskerra', model: `Tide ${n}`, shape, nominal });
    expect(paths(await state({ dress: {}, specs: { massG: 300 }, tolerance: { balanceCm: 0.5 } }))).toEqual([
      'nominal.tolerance.balanceCm',
    ]);
    expect(paths(await state({ dress: {}, specs: { massG: 999_999 }, tolerance: {} }))).toEqual([
      'nominal.specs.massG',
    ]);
    expect((await state({ dress: {}, specs: { massG: 300 }, tolerance: { massG: 7 } })).status).toBe(200);
  });

  it('strings are corrected, and those noted by mistake count no more', async () => {
    const frameId = await addFrame();
    const noted = {
      strungOn: '2026-11-02',
      mains: 'Corda Lisa',
      mainsKg: 24,
      crossesKg: 23,
      unit: 'kg',
    };
    const { body: stored, status } = await post(`/frames/${frameId}/stringings`, noted);
    expect(status).toBe(200);
    await put(`/stringings/${stored.id}`, { ...noted, mains: 'Corda Ruvida' });
    expect((await framePage(frameId)).stringings[0]).toMatchObject({ mains: 'Corda Ruvida', retired: false });
    await put(`/stringings/${stored.id}/retired`, { retired: true });
    expect((await framePage(frameId)).stringings[0]).toMatchObject({ retired: true });
    expect((await put('/stringings/nowhere', noted)).status).toBe(404);
  });

  it('an instrument is changed and retired: it reads nothing any more, and its readings stay', async () => {
    const sheet = {
      repeatability: 0.1,
      accuracy: 0.2,
      resolution: 0.1,
      driftPerHour: 0,
      warmUpMinutes: 0,
      axisCm: null,
    };
    const scale = { name: 'Bench scale', kind: 'scale', sheet };
    const added = await post('/instruments', scale);
    expect(added.status).toBe(200);
    const { id } = added.body;
    expect((await put(`/instruments/${id}`, { ...scale, name: 'Front scale' })).body.name).toBe(
      'Front scale',
    );
    expect((await put(`/instruments/${id}/retired`, { retired: true })).body.retired).toBe(true);
    const read = await post(`/instruments/${id}/read`, {
      key: key(),
      asked: { frameId: await addFrame(), quantity: 'massG' },
    });
    expect([read.status, read.body.code]).toEqual([409, 'instrument-retired']);
    const { body: all } = await get('/instruments');
    expect(all.find((one: { id: string }) => one.id === id)).toMatchObject({
      name: 'Front scale',
      retired: true,
    });
    expect((await put(`/instruments/${id}/retired`, { retired: false })).body.retired).toBe(false);
  });
});
