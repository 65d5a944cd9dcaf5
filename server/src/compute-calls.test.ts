import { describe, expect, it } from 'vitest';
import { onServer, paths } from './test-server';

const server = onServer();
const { post } = server;

const shape = { sport: 'tennis', lengthCm: 68.58 };
const specs = { massG: 336, balanceCm: 32.4, swingWeight: 339 };

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
