import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrate } from './db/migrate';
import { paths, startTestServer, type Answer, type TestServer } from './test-server';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
const call = (method: string, path: string, body?: unknown): Promise<Answer> =>
  server.call(method, path, body);
const post = (path: string, body: unknown): Promise<Answer> => call('POST', path, body);

const shape = { sport: 'tennis', lengthCm: 68.58 };
const specs = { massG: 336, balanceCm: 32.4, swingWeight: 339 };

describe('health and description', () => {
  it('answers ok and an OpenAPI 3.1 document', async () => {
    expect((await call('GET', '/health')).body).toEqual({ status: 'ok' });
    expect((await call('GET', '/openapi.json')).body.openapi).toBe('3.1.0');
  });

  it('says what is not there', async () => {
    const answer = await call('GET', '/nothing');
    expect(answer.status).toBe(404);
    expect(answer.type).toContain('application/problem+json');
    expect(answer.body).toMatchObject({ code: 'not-found', status: 404 });
  });
});

describe('compute', () => {
  it('predict gives the facts of the trade for 4 g at the tip (common practice)', async () => {
    const { body } = await post('/compute/predict', {
      shape,
      specs,
      additions: [{ massG: 4, at: { clock: 12 } }],
    });
    expect(body.delta.swingWeight).toBeGreaterThan(13);
    expect(body.delta.swingWeight).toBeLessThan(15);
    expect(body.specs.axisCm).toBe(10.16);
    expect(body.specs).not.toHaveProperty('twistWeight');
    expect(body.delta).toHaveProperty('twistWeight');
  });

  it('redress strings a frame', async () => {
    const { body } = await post('/compute/redress', {
      shape,
      specs,
      from: {},
      to: { strings: { massG: 16 } },
    });
    expect(body.specs.massG).toBe(352);
    expect(body.uncertainty.swingWeight).toBeGreaterThan(0);
  });

  it('shift-axis by the parallel-axes theorem, and back', async () => {
    const there = await post('/compute/shift-axis', { specs, toAxisCm: 10 });
    const byHand = 339 + (336 * ((32.4 - 10) ** 2 - (32.4 - 10.16) ** 2)) / 1000;
    expect(there.body.specs.swingWeight).toBeCloseTo(byHand, 9);
    const back = await post('/compute/shift-axis', { specs: there.body.specs, toAxisCm: 10.16 });
    expect(back.body.specs.swingWeight).toBeCloseTo(339, 9);
  });

  it('plan reaches +12 g, same balance, +12 kg·cm², +0.6 twist in whole pieces', async () => {
    const body = {
      shape,
      specs: { ...specs, swingWeight: 321, twistWeight: 13.9 },
      target: {
        massG: { value: 348, tolerance: 1 },
        balanceCm: { value: 32.4, tolerance: 0.15 },
        swingWeight: { value: 333, tolerance: 1.5 },
        twistWeight: { value: 14.5, tolerance: 0.2 },
      },
      schools: ['free'],
      quantumG: 0.5,
    };
    const [plan] = (await post('/compute/plan', body)).body.plans;
    expect(plan.withinTolerance).toBe(true);
    const again = await post('/compute/predict', {
      shape,
      specs: body.specs,
      additions: plan.placements.map(({ xCm, yCm, massG, mirrored }: Record<string, number>) => ({
        massG,
        mirrored,
        at: { xCm, yCm },
      })),
    });
    expect(again.body.specs.swingWeight).toBeCloseTo(plan.specs.swingWeight, 9);
    expect(again.body.specs.twistWeight).toBeCloseTo(plan.specs.twistWeight, 9);
  });

  it('nearest brings all setups to one axis before it counts steps', async () => {
    const same = { ...specs, swingWeight: 339 + (336 * (22.4 ** 2 - 22.24 ** 2)) / 1000, axisCm: 10 };
    const { body } = await post('/compute/nearest', {
      specs,
      setups: [
        { id: 'heavier', specs: { ...specs, massG: 345 } },
        { id: 'same', specs: same },
      ],
    });
    expect(body.nearest.map((n: { id: string }) => n.id)).toEqual(['same', 'heavier']);
    expect(body.nearest[0].distanceSteps).toBeCloseTo(0, 9);
    expect(body.nearest[1].distanceSteps).toBeCloseTo(3, 9);
  });

  it.each([
    ['letters in a number', { shape, specs: { ...specs, massG: '3o2' }, additions: [] }, 'specs.massG'],
    [
      'a balance beyond the tip',
      { shape, specs: { ...specs, balanceCm: 80 }, additions: [] },
      'specs.balanceCm',
    ],
    ['a negative weight', { shape, specs: { ...specs, massG: -5 }, additions: [] }, 'specs.massG'],
    [
      'an impossible swing weight',
      { shape, specs: { ...specs, swingWeight: 150 }, additions: [] },
      'specs.swingWeight',
    ],
    ['an unknown key', { shape, specs, additions: [], colour: 'red' }, 'colour'],
    ['a place off the frame', { shape, specs, additions: [{ massG: 1, at: { xCm: 99 } }] }, 'additions.0.at'],
    ['a missing body key', { shape, specs }, 'additions'],
    ['an unknown sport', { shape: { ...shape, sport: 'cricket' }, specs, additions: [] }, 'shape.sport'],
  ])('refuses %s with its field', async (_, body, path) => {
    const answer = await post('/compute/predict', body);
    expect(answer.status).toBe(422);
    expect(answer.type).toContain('application/problem+json');
    expect(paths(answer)).toContain(path);
    for (const { message } of answer.body.errors) expect(message).toMatch(/[.!]$/);
  });

  it('refuses what is not JSON with 400 and NaN with 4xx', async () => {
    expect((await post('/compute/predict', '{"shape":')).status).toBe(400);
    expect((await post('/compute/predict', '{"shape":NaN}')).status).toBe(400);
    expect((await post('/compute/predict', 'null')).status).toBe(422);
    expect((await post('/compute/shift-axis', '')).status).toBe(422);
  });
});

describe('the job, stored', () => {
  const strung = { strings: true, baseGrip: 'synthetic', overgrips: 1 };
  const measured = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6 };
  let n = 0;
  const person = () => post('/players', { name: `Ilka Morrow ${++n}`, sports: ['tennis'] });
  const racket = (ownerId: string | null = null) =>
    post('/frames', { tag: `OT-${++n}`, maker: 'Oskerra', model: 'Tide 98', ownerId, shape });

  async function fittingWithAim() {
    const player = (await person()).body;
    const frame = (await racket(player.id)).body;
    const measurement = (
      await post(`/frames/${frame.id}/measurements`, {
        key: `key-${++n}-0000`,
        dress: strung,
        specs: measured,
      })
    ).body;
    const fitting = (await post('/fittings', { playerId: player.id, frameId: frame.id })).body;
    const aim = (
      await post(`/fittings/${fitting.id}/aims`, {
        way: 'by-hand',
        target: { massG: { value: 333, tolerance: 1 }, swingWeight: { value: 326, tolerance: 1.5 } },
      })
    ).body;
    return { frame, measurement, fitting, aim };
  }

  const materials = {
    tape: { name: 'tape', material: 'tungsten', widthMm: 6, gPerCm: 0.265, stepCm: 0.5 },
    filling: { name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 },
  };
  const placements = [{ zone: 'butt', massG: 6, xCm: 1.5, yCm: 0, mirrored: false, spanCm: 3 }];

  it('goes from a player to a build step', async () => {
    const { fitting, aim, measurement } = await fittingWithAim();
    const plan = await post(`/fittings/${fitting.id}/plans`, {
      measurementId: measurement.id,
      aimId: aim.id,
      school: 'free',
      materials,
      placements,
    });
    expect(plan.body.specs.massG).toBe(333);
    expect(plan.body.withinTolerance).toBe(false);
    expect((await call('GET', `/fittings/${fitting.id}`)).body.next).toBe('build');
    const marked = await call('PUT', `/fittings/${fitting.id}/steps`, {
      planId: plan.body.id,
      step: 'weigh-before',
      done: true,
    });
    expect(marked.body.stepsDone).toEqual(['weigh-before']);
    expect((await call('GET', '/today')).body[0]).toMatchObject({ id: fitting.id, next: 'build' });
  });

  it('keeps every measurement and lets a new one outdate the plan', async () => {
    const { fitting, aim, measurement, frame } = await fittingWithAim();
    await post(`/fittings/${fitting.id}/plans`, {
      measurementId: measurement.id,
      aimId: aim.id,
      school: 'free',
      materials,
      placements,
    });
    await post(`/frames/${frame.id}/measurements`, {
      key: 'another-measurement',
      dress: strung,
      specs: { ...measured, massG: 328 },
    });
    const { body } = await call('GET', `/fittings/${fitting.id}`);
    expect(body.plan).toBeNull();
    expect(body.measurement.specs.massG).toBe(328);
    const all = (await call('GET', `/frames/${frame.id}/measurements`)).body;
    expect(all.map((m: { specs: { massG: number } }) => m.specs.massG)).toEqual([328, 327]);
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
    const { fitting, measurement } = await fittingWithAim();
    const impossible = await post(`/fittings/${fitting.id}/aims`, {
      way: 'by-hand',
      target: { massG: { value: 330, tolerance: 0 }, balanceCm: { value: -2, tolerance: 0.1 } },
    });
    expect(paths(impossible)).toEqual(['target.massG.tolerance', 'target.balanceCm.value']);
    const other = await post(`/fittings/${fitting.id}/plans`, {
      measurementId: measurement.id,
      aimId: 'another',
      school: 'free',
      materials,
      placements,
    });
    expect(paths(other)).toEqual(['aimId']);
  });

  it('refuses an aim at a twist weight where none was measured', async () => {
    const { fitting, frame } = await fittingWithAim();
    const { twistWeight: _, ...untwisted } = measured;
    await post(`/frames/${frame.id}/measurements`, {
      key: `key-${++n}-0000`,
      dress: strung,
      specs: untwisted,
    });
    const answer = await post(`/fittings/${fitting.id}/aims`, {
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
});

describe('the database', () => {
  it('rolls back a transaction that fails', async () => {
    const before = (await server.db.query('select id from player')).length;
    await expect(
      server.db.transaction(async (tx) => {
        await tx.query("insert into player (id, name, level, style) values ('x', 'X', '', '')");
        throw new Error('stop');
      }),
    ).rejects.toThrow('stop');
    expect(await server.db.query('select id from player')).toHaveLength(before);
  });

  it('runs migrations once', async () => {
    await migrate(server.db);
    expect((await server.db.query<{ n: number }>('select count(*)::int as n from migration'))[0]?.n).toBe(2);
  });
});
