import { describe, expect, it } from 'vitest';
import { onPlayingShop } from './test-play';

const now = '2026-11-23T09:00:00.000Z';
const { server, made, key, opened } = onPlayingShop(() => now);
const nylon = { strungOn: '2026-11-20', mains: 'nylon', mainsKg: 24, crossesKg: 23, unit: 'kg' };
const strung = async () => {
  const f = await opened();
  await made(`/frames/${f.frameId}/stringings`, { ...nylon, key: key() });
  return f;
};

describe('strings first', () => {
  it('goes from long to tighter strings, ready for the bench, and on from how those played', async () => {
    const f = await strung();
    const roundId = (await f.round()).id;
    const linked = async () => {
      const { code } = await made(`${f.at}/links`, { key: key(), roundId });
      return (await server.get(`/played/${code}`)).body.asksOfBall;
    };
    expect(await linked()).toBe(false);
    await f.begin('strings-first');
    expect(await linked()).toBe(true);
    await f.play({ depth: 'long' });
    const { next } = await f.programme();
    expect(next).toMatchObject({
      state: 'go-on',
      change: [],
      strings: { change: 'tighter', byKg: 1 },
      reason: 'flies-long',
      ready: {
        placements: [],
        removals: [],
        job: { mains: 'nylon', mainsKg: 25, crossesKg: 24, unit: 'kg' },
      },
    });
    expect(next.sentence).toContain('Tighter strings by 1 kg');
    const { swingWeight, massG } = next.ready.before;
    expect(next.ready.specs).toMatchObject({ swingWeight, massG });
    await f.step();
    const round = await f.round();
    expect(round.why).toBe('programme');
    const plan = round.plans.at(-1);
    expect(plan.swaps).toMatchObject([
      { what: 'strings', job: { mainsKg: 25, step: { change: 'tighter' } } },
    ]);
    expect(plan.steps.map(({ kind }: { kind: string }) => kind)).toEqual([
      'weigh-before',
      'restring',
      'final-check',
    ]);
    expect((await f.programme()).next.reason).toBe('play-first');
    // Too short now: half of it back, from the tension that is noted by then.
    await made(`/frames/${f.frameId}/stringings`, { ...nylon, mainsKg: 25, crossesKg: 24, key: key() });
    await f.play({ depth: 'short' });
    expect((await f.programme()).next).toMatchObject({
      state: 'done',
      reason: 'too-far',
      strings: { change: 'looser', byKg: 0.5 },
      ready: { job: { mainsKg: 24.5 } },
    });
    await f.step();
    expect((await f.programme()).state).toBe('ended');
  });

  it('is the answer to balls that fly long where there are strings; its one lever is strings', async () => {
    const f = await strung();
    await f.play({ depth: 'long' });
    const answer = (await server.call('GET', `/rounds/${(await f.round()).id as string}/answer`)).body;
    expect(answer).toMatchObject({ programme: 'strings-first', next: { strings: { change: 'tighter' } } });
    await f.begin('strings-first');
    const own = await f.take({ change: [{ zone: 'tip', massG: 2 }], note: 'as I like it' });
    expect([own.status, own.body.errors[0]]).toMatchObject([422, { path: 'change', code: 'one-lever' }]);
    expect((await f.entry()).rounds).toHaveLength(1);
  });

  it('says what to do where nobody knows the strings, and is refused where there are none', async () => {
    const f = await opened();
    await f.begin('strings-first');
    await f.play({ depth: 'short' });
    expect((await f.programme()).next).toMatchObject({
      strings: { change: 'looser' },
      ready: { job: { step: { change: 'looser', byKg: 1 } } },
    });
    const { id: playerId } = await made('/players', { name: 'Paddler', sports: ['padel'] });
    const { id: frameId } = await made('/frames', {
      tag: 'P-1',
      maker: 'Velmond',
      model: 'Ossa',
      shape: { sport: 'padel', lengthCm: 45.5 },
    });
    const fitting = await made('/fittings', { playerId, frameIds: [frameId] });
    await made(`/frames/${frameId}/measurements`, {
      key: key(),
      dress: {},
      specs: { massG: 365, balanceCm: 26, swingWeight: 140 },
      purpose: 'found',
      roundId: fitting.frames[0].rounds[0].id,
    });
    const begun = await server.call('POST', `/fittings/${fitting.id}/programmes`, {
      key: key(),
      frameId,
      name: 'strings-first',
    });
    expect([begun.status, begun.body.errors[0]]).toMatchObject([422, { path: 'name', code: 'no-strings' }]);
  });
});
