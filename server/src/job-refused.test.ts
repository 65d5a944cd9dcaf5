import { describe, expect, it } from 'vitest';
import { paths } from './test-server';
import {
  withServer,
  call,
  post,
  shape,
  strung,
  measured,
  another,
  racket,
  fittingWithAim,
  inButt,
  roundOf,
  fittingWithPlan,
} from './test-job';

withServer();

describe('the job is refused, or stored once', () => {
  it('clears a maker’s statement where it is taken away, and only there', async () => {
    const nominal = { specs: { massG: 305 }, tolerance: { massG: 7 }, dress: {} };
    const { body } = await post('/frames', {
      tag: `ST-${another()}`,
      maker: 'Oskerra',
      model: 'Stated',
      shape,
      nominal,
    });
    const { id, archived: _, ...frame } = body;
    const twin = (await post(`/frames/${id}/duplicate`, { tag: `ST-${another()}` })).body;
    // A twin without a statement of its own has the model's.
    expect(twin.nominal).toEqual(nominal);
    const { nominal: __, ...unsaid } = frame;
    expect((await call('PUT', `/frames/${id}`, unsaid)).body.nominal).toEqual(nominal);
    expect((await call('PUT', `/frames/${id}`, { ...frame, nominal: null })).body.nominal).toBeNull();
    expect((await call('GET', `/frames/${twin.id}`)).body.frame.nominal).toBeNull();
  });

  it('lists setups part by part, and those nearest to a measured frame first', async () => {
    const { measurement } = await fittingWithAim();
    for (const [name, massG] of [
      ['Far Quill', 350],
      ['Near Quill', 328],
      ['Middle Quill', 335],
    ] as const) {
      await post('/setups', {
        name,
        sourceKind: 'published',
        shape,
        dress: strung,
        specs: { massG, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6 },
      });
    }
    const page = (await call('GET', '/setups?search=quill&limit=2&sort=weight')).body;
    expect(page.total).toBe(3);
    expect(page.rows.map((s: { name: string }) => s.name)).toEqual(['Near Quill', 'Middle Quill']);
    const near = (await call('GET', `/measurements/${measurement.id}/setups?search=quill`)).body;
    expect(near.rows.map((r: { setup: { name: string } }) => r.setup.name)).toEqual([
      'Near Quill',
      'Middle Quill',
      'Far Quill',
    ]);
    // One noticeable step of weight is 3 g (common practice).
    expect(near.rows[0].distanceSteps).toBeCloseTo(1 / 3, 9);
  });

  it('keeps a part that is changed or retired as it was in the plans that are made of it', async () => {
    const { fitting, plan } = await fittingWithPlan();
    const { id, ...part } = plan.parts[0];
    const changed = await call('PUT', `/parts/${id}`, { ...part, gPerCm: 2 });
    expect(changed.body).toMatchObject({ id, gPerCm: 2 });
    expect((await call('PUT', `/parts/${id}/retired`, { retired: true })).body.retired).toBe(true);
    const rows = (await call('GET', '/parts')).body;
    expect(rows.find((r: { part: { id: string } }) => r.part.id === id)).toMatchObject({ retired: true });
    expect((await roundOf(fitting.id)).plans[0].parts[0]).toEqual(plan.parts[0]);
  });

  it('an aim that aims at nothing, and parts that the shop has not', async () => {
    const { fitting } = await fittingWithPlan();
    const { id: roundId } = await roundOf(fitting.id);
    const free = { massG: { value: 330, tolerance: 1, priority: 'free' } };
    for (const target of [{}, free]) {
      const { status, body } = await post(`/fittings/${fitting.id}/aims`, {
        roundId,
        way: 'by-hand',
        target,
      });
      expect([status, body.errors[0].code]).toEqual([422, 'empty-aim']);
    }
    const { body } = await call('PUT', `/fittings/${fitting.id}/parts`, ['no-such-part']);
    expect(body.errors).toMatchObject([{ path: '0', code: 'not-found' }]);
  });

  it('a target over one that the page did not show: it is refused, and the other stands', async () => {
    const { fitting } = await fittingWithPlan();
    const { id: roundId, aims } = await roundOf(fitting.id);
    const [aim] = aims;
    const target = { massG: { value: 336, tolerance: 1 } };
    const set = (after: string | null) =>
      post(`/fittings/${fitting.id}/aims`, { roundId, way: 'by-hand', target, after });
    expect((await set(null)).body.code).toBe('aim-outdated');
    expect((await roundOf(fitting.id)).aims).toHaveLength(1);
    const next = await set(aim.id);
    expect(next.status).toBe(200);
    expect(next.body).not.toHaveProperty('after');
    expect((await set(aim.id)).body.code).toBe('aim-outdated');
  });

  it('stores a measurement once, however often it is sent', async () => {
    const frame = (await racket()).body;
    const body = { key: 'double-click', dress: strung, specs: measured };
    const both = await Promise.all([
      post(`/frames/${frame.id}/measurements`, body),
      post(`/frames/${frame.id}/measurements`, body),
    ]);
    expect(both[0].body.id).toBe(both[1].body.id);
    expect((await call('GET', `/frames/${frame.id}/measurements`)).body).toHaveLength(1);
  });

  it.each([
    ['letters', { ...measured, massG: '32x' }, 'specs.massG'],
    ['a balance beyond the tip', { ...measured, balanceCm: 70 }, 'specs.balanceCm'],
    ['a negative weight', { ...measured, massG: -327 }, 'specs.massG'],
    ['an impossible swing weight', { ...measured, swingWeight: 140 }, 'specs.swingWeight'],
  ])('refuses a measurement with %s and stores nothing', async (_, bad, path) => {
    const frame = (await racket()).body;
    const answer = await post(`/frames/${frame.id}/measurements`, {
      key: 'bad-measurement',
      dress: strung,
      specs: bad,
    });
    expect(answer.status).toBe(422);
    expect(paths(answer)).toEqual([path]);
    expect((await call('GET', `/frames/${frame.id}/measurements`)).body).toEqual([]);
  });

  it('refuses a tag twice, an unknown owner, a head that does not fit', async () => {
    const { body } = await racket();
    const { id: _, archived: __, ...copy } = body;
    const twice = await post('/frames', copy);
    expect(twice.status).toBe(409);
    expect(paths(twice)).toEqual(['tag']);
    expect(paths(await post('/frames', { ...copy, tag: 'new', ownerId: 'nobody' }))).toEqual(['ownerId']);
    expect(paths(await post('/frames', { ...copy, tag: 'new', shape: { ...shape, lengthCm: 40 } }))).toEqual([
      'shape',
    ]);
  });

  it('refuses an aim that cannot be, and a plan for another aim', async () => {
    const { fitting, body, roundId } = await fittingWithPlan();
    const impossible = await post(`/fittings/${fitting.id}/aims`, {
      roundId,
      way: 'by-hand',
      target: { massG: { value: 330, tolerance: 0 }, balanceCm: { value: -2, tolerance: 0.1 } },
    });
    expect(paths(impossible)).toEqual(['target.massG.tolerance', 'target.balanceCm.value']);
    expect(impossible.body.detail).toBe(impossible.body.errors[0].message);
    const plan = async (change: object) =>
      paths(await post(`/fittings/${fitting.id}/plans`, { ...body, ...change }));
    expect(await plan({ aimId: 'another' })).toEqual(['aimId']);
    expect(await plan({ startId: 'another' })).toEqual(['startId']);
    expect(await plan({ roundId: 'another' })).toEqual(['roundId']);
    expect(await plan({ placements: [inButt('no part')] })).toEqual(['placements.0.partId']);
  });

  it('refuses an aim at a twist weight where none was measured', async () => {
    const { fitting, roundId, frame } = await fittingWithAim();
    const { twistWeight: _, ...untwisted } = measured;
    await post(`/frames/${frame.id}/measurements`, {
      key: `key-${another()}-0000`,
      dress: strung,
      specs: untwisted,
      roundId,
    });
    const answer = await post(`/fittings/${fitting.id}/aims`, {
      roundId,
      way: 'by-hand',
      target: { twistWeight: { value: 14, tolerance: 0.2 } },
    });
    expect(answer.body.code).toBe('twist-not-measured');
    expect(paths(answer)).toEqual(['target.twistWeight.value']);
  });

  it('sets setups beside a frame all at once or not at all', async () => {
    const { fitting } = await fittingWithAim();
    const setup = (
      await post('/setups', {
        name: 'Ansel Rook',
        sourceKind: 'hearsay',
        shape,
        dress: {},
        specs: { swingWeight: 340 },
      })
    ).body;
    expect(setup.specs).toEqual({ swingWeight: 340 });
    const set = await call('PUT', `/fittings/${fitting.id}/references`, [setup.id, setup.id]);
    expect(set.body.references).toEqual([setup.id]);
    const bad = await call('PUT', `/fittings/${fitting.id}/references`, [setup.id, 'nobody']);
    expect(paths(bad)).toEqual(['1']);
    expect((await call('GET', `/fittings/${fitting.id}`)).body.references).toEqual([setup.id]);
  });

  it('sets measured frames, guides and classes of shapes beside a frame, which counts as compared', async () => {
    const { fitting, measurement } = await fittingWithAim();
    const beside = [
      { kind: 'measured', measurementId: measurement.id },
      { kind: 'guide', guide: 'advanced' },
      { kind: 'shape', shape: 'elongated' },
    ];
    const set = await call('PUT', `/fittings/${fitting.id}/beside`, beside);
    expect(set.body.beside).toEqual([
      expect.objectContaining({
        ...beside[0],
        round: null,
        measurement: expect.objectContaining({ id: measurement.id }),
      }),
      beside[1],
      beside[2],
    ]);
    expect(set.body.frames[0].rounds[0].state.stations.compare).toBe('done');
    const bad = await call('PUT', `/fittings/${fitting.id}/beside`, [
      beside[1],
      { kind: 'measured', measurementId: 'none' },
    ]);
    expect(paths(bad)).toEqual(['1.measurementId']);
    expect((await call('GET', `/fittings/${fitting.id}`)).body.beside).toHaveLength(3);
    await call('PUT', `/fittings/${fitting.id}/beside`, []);
    expect((await call('GET', `/fittings/${fitting.id}`)).body.beside).toEqual([]);
  });

  it('takes an aim that something strong speaks against only with a note to that', async () => {
    const { fitting, roundId, frame, measurement } = await fittingWithAim();
    const { id, archived: _, hasArmHistory: __, ...player } = fitting.player;
    await call('PUT', `/players/${id}`, { ...player, ceilings: { tennis: measurement.specs.swingWeight } });
    const aim = (guards: object[]) =>
      post(`/fittings/${fitting.id}/aims`, {
        roundId,
        way: 'by-hand',
        target: { swingWeight: { value: measurement.specs.swingWeight * 1.04, tolerance: 1 } },
        guards,
      });
    const refused = await aim([{ code: 'over-ceiling', note: ' ' }]);
    expect([refused.status, refused.body.code, paths(refused)]).toEqual([
      422,
      'guard-unanswered',
      ['guards'],
    ]);
    expect(refused.body.errors[0].message).toContain('above the ceiling');
    const count = async () =>
      (await call('GET', `/fittings/${fitting.id}`)).body.frames[0].rounds[0].aims.length;
    const before = await count();
    expect((await aim([{ code: 'over-ceiling', note: 'a trial for a week' }])).status).toBe(200);
    expect(await count()).toBe(before + 1);
    expect(frame.id).toBe(fitting.frames[0].frame.id);
  });
});
