import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ALL_SPORTS, bringTo, nearest, sportData, type Dress } from '@kevro/core';
import { COUNTED, type Setup } from '@kevro/contract';
import { onLibrary } from './test-setups';

const { call, store, measuredFrame } = onLibrary();

describe('the nearest setups by one query', () => {
  const dresses: Dress[] = [
    {},
    { strings: true },
    { strings: { massG: 15.2 }, baseGrip: 'leather', overgrips: 2 },
  ];
  /** Setups of every kind: other shapes, dresses and axes, and values missing. */
  const setups = fc.sample(
    fc.record({
      sport: fc.constantFrom(...ALL_SPORTS),
      length: fc.constantFrom(0, -1.3, 1.27),
      dress: fc.constantFrom(...dresses),
      axis: fc.constantFrom(undefined, 9, 10.16),
      mass: fc.option(fc.double({ min: 0.85, max: 1.15, noNaN: true })),
      balance: fc.option(fc.double({ min: 0.92, max: 1.06, noNaN: true })),
      swing: fc.double({ min: 0.9, max: 1.2, noNaN: true }),
      twist: fc.option(fc.double({ min: 0.8, max: 1.2, noNaN: true })),
    }),
    { numRuns: 120, seed: 7 },
  );

  it('come in the order, and at the distance, that the core works out, whatever their dress, shape and axis', async () => {
    for (const [i, s] of setups.entries()) {
      const { usual, lengthCm } = sportData(s.sport);
      const part = (share: number | null, of: number): number | undefined =>
        share === null ? undefined : share * of;
      const specs = {
        massG: part(s.mass, usual.massG),
        balanceCm: part(s.balance, usual.balanceCm),
        swingWeight: s.swing * usual.swingWeight,
        twistWeight: part(s.twist, usual.twistWeight),
        axisCm: s.axis,
      };
      const added = await call('POST', '/setups', {
        name: `S ${i}`,
        sourceKind: 'published',
        shape: { sport: s.sport, lengthCm: lengthCm + s.length },
        dress: s.dress,
        specs: JSON.parse(JSON.stringify(specs)),
      });
      // A swing weight that cannot go with the rest is refused as in every form.
      expect([200, 422]).toContain(added.status);
    }
    for (const sport of ALL_SPORTS) {
      const all = (await call('GET', `/setups?sport=${sport}&limit=500`)).body.rows as Setup[];
      expect(all.length).toBeGreaterThan(10);
      for (const [dress, axis] of [
        [{}, undefined],
        [{ strings: true, overgrips: 1 }, 9.4],
      ] as const) {
        const own = await measuredFrame(sport, dress, axis);
        const byCore = nearest(
          own.specs,
          all.map((setup) => ({ id: setup.id, specs: bringTo(setup, dress, own.specs.axisCm ?? 0).specs })),
          sportData(sport),
        );
        const near = (await call('GET', `/measurements/${own.id}/setups?limit=500`)).body;
        expect(near.total).toBe(all.length);
        const distances = near.rows.map((r: { distanceSteps: number }) => r.distanceSteps);
        byCore.forEach(({ distanceSteps }, i) => expect(distances[i]).toBeCloseTo(distanceSteps, 9));
        // The first of them are found without going through all.
        const first = (await call('GET', `/measurements/${own.id}/setups?limit=6&offset=2`)).body.rows;
        byCore.slice(2, 8).forEach(({ distanceSteps }, i) => {
          expect(first[i].distanceSteps).toBeCloseTo(distanceSteps, 9);
        });
        const { ids } = (await call('GET', `/measurements/${own.id}/setup-ids`)).body;
        expect(ids.toSorted()).toEqual(
          near.rows.map((r: { setup: { id: string } }) => r.setup.id).toSorted(),
        );
        const columns = (await call('GET', `/measurements/${own.id}/brought-setups`)).body;
        byCore.forEach(({ id, specs }) => {
          const at = columns.ids.indexOf(id);
          for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
            if (specs[key] === undefined) expect(columns[key][at]).toBeNull();
            else expect(columns[key][at]).toBeCloseTo(specs[key], 8);
          }
        });
      }
    }
  });

  it('come part by part, each once', async () => {
    const own = await measuredFrame('tennis', {});
    const page = (offset: number) => call('GET', `/measurements/${own.id}/setups?limit=7&offset=${offset}`);
    const whole = (await call('GET', `/measurements/${own.id}/setups?limit=500`)).body.rows;
    const parts = [...(await page(0)).body.rows, ...(await page(7)).body.rows];
    expect(parts.map((r: { setup: Setup }) => r.setup.id)).toEqual(
      whole.slice(0, parts.length).map((r: { setup: Setup }) => r.setup.id),
    );
    const first = (await call('GET', `/measurements/${own.id}/brought-setups?limit=10`)).body;
    const second = (await call('GET', `/measurements/${own.id}/brought-setups?limit=10&after=${first.next}`))
      .body;
    expect(first.ids.length).toBe(10);
    expect(first.ids).not.toEqual(expect.arrayContaining([second.ids[0]]));
  });

  it('come by name where several are as near', async () => {
    const own = await measuredFrame('tennis', {});
    const numbers = Array.from({ length: 12 }, (_, i) => i);
    await store(
      [
        'name;sport;weight (g);swing weight',
        ...numbers
          .toReversed()
          .map((i) => `As near ${String(i).padStart(2, '0')};tennis;${own.specs.massG};`),
      ].join('\n'),
    );
    const { rows } = (await call('GET', `/measurements/${own.id}/setups?search=as+near&limit=5&offset=4`))
      .body;
    expect(rows.map((r: { setup: Setup }) => r.setup.name)).toEqual(
      [4, 5, 6, 7, 8].map((i) => `As near 0${i}`),
    );
  });
});

describe('the library is asked', () => {
  it('by ranges, kind and style, in either order, with how many there are', async () => {
    await store(
      [
        'name;sport;weight (g);swing weight;kind;style',
        'Ranged A;padel;361,5;157;measured;net',
        'Ranged B;padel;372;163;hearsay;net and back',
        'Ranged C;padel;;166;published;back',
      ].join('\n'),
    );
    const names = async (query: string): Promise<string[]> =>
      (await call('GET', `/setups?search=ranged&${query}`)).body.rows.map((r: Setup) => r.name);
    expect(await names('sort=weight')).toEqual(['Ranged A', 'Ranged B', 'Ranged C']);
    expect(await names('sort=weight&down=yes')).toEqual(['Ranged B', 'Ranged A', 'Ranged C']);
    expect(await names('minWeight=370')).toEqual(['Ranged B']);
    expect(await names('maxSwing=163&style=NET')).toEqual(['Ranged A', 'Ranged B']);
    expect(await names('kind=hearsay')).toEqual(['Ranged B']);
    const bad = await call('GET', '/setups?minWeight=heavy');
    expect(bad.status).toBe(422);
  });

  it('by words, in the order of the list and counted in full, whether few are found or very many', async () => {
    const numbers = Array.from({ length: 1200 }, (_, i) => i);
    const scattered = numbers.toSorted((a, b) => ((a * 7919) % 1200) - ((b * 7919) % 1200));
    const named = (i: number): string => `Crowd ${String(i).padStart(4, '0')}`;
    await store(
      ['name;sport;weight (g)', ...scattered.map((i) => `${named(i)};badminton;${80 + (i % 15)}`)].join('\n'),
    );
    const asked = async (query: string) => {
      const { body } = await call('GET', `/setups?limit=100&${query}`);
      return { names: body.rows.map((r: Setup) => r.name), total: body.total };
    };
    const many = numbers.map(named);
    expect(await asked('search=crowd')).toEqual({ names: many.slice(0, 100), total: 1200 });
    expect(await asked('search=crowd&offset=1150')).toEqual({ names: many.slice(1150), total: 1200 });
    // Of three words each has to be there, in whatever order.
    const few = many.filter((name) => name.includes('11') && name.includes('7'));
    expect(await asked('search=11 CROWD 7&offset=5')).toEqual({ names: few.slice(5), total: few.length });
    expect(await asked('search=crowd nobody')).toEqual({ names: [], total: 0 });
  });

  it('by the longest texts that may be told', async () => {
    const long = '\u6c34'.repeat(80);
    const { status } = await call('POST', '/setups', {
      name: long,
      frameName: long,
      paint: long,
      source: '\u6c34'.repeat(200),
      style: long,
      sourceKind: 'measured',
      shape: { sport: 'padel', lengthCm: 45.5 },
      dress: {},
      specs: { massG: 365 },
    });
    expect(status).toBe(200);
    expect((await call('GET', `/setups?search=${encodeURIComponent(long)}`)).body.total).toBe(1);
  });

  it('by what very many have: so many are counted, that there are more is told, and each can be read', async () => {
    const rows = Array.from({ length: COUNTED }, (_, i) => `Throng ${i};padel;${340 + (i % 40)}`);
    await store(['name;sport;weight (g)', ...rows].join('\n'));
    const own = await measuredFrame('padel', {});
    const counts = async (): Promise<unknown[]> => {
      const found = await Promise.all(
        ['/setups?search=throng', '/setups?sport=padel&minWeight=340&search=throng'].map((path) =>
          call('GET', path),
        ),
      );
      const [inAll] = (await call('GET', '/search?q=throng')).body;
      return [...found.map(({ body }) => body), inAll].map(({ total, orMore }) => [total, orMore]);
    };
    expect(await counts()).toEqual([1, 2, 3].map(() => [COUNTED, undefined]));
    await store('name;sport;weight (g)\nThrong of one more;padel;350');
    expect(await counts()).toEqual([1, 2, 3].map(() => [COUNTED, true]));
    const near = (await call('GET', `/measurements/${own.id}/setups?limit=1`)).body;
    expect([near.total, near.orMore]).toEqual([COUNTED, true]);
    const last = (await call('GET', `/setups?search=throng&limit=5&offset=${COUNTED - 1}`)).body.rows;
    expect(last.map((r: Setup) => r.name)).toEqual(['Throng 9999', 'Throng of one more']);
    // A list that is not searched is counted to the last.
    const whole = (await call('GET', '/setups?sport=padel&limit=1')).body;
    expect([whole.total > COUNTED, whole.orMore]).toEqual([true, undefined]);
  });
});
