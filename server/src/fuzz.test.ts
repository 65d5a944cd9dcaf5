import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { calls } from '@kevro/contract';
import { startTestServer, type TestServer } from './test-server';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const SPORTS = ['tennis', 'pickleball', 'padel', 'badminton', 'cricket'];
const number = fc.oneof(
  fc.double({ min: -50, max: 500, noNaN: true }),
  fc.constantFrom(0, -0, 1e-9, 1e9, -1e300, 5e-324, 10.16, 68.58),
);
const maybe = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<unknown> =>
  fc.oneof(
    { weight: 9, arbitrary: value as fc.Arbitrary<unknown> },
    { weight: 1, arbitrary: fc.jsonValue() },
  );
const some = (model: Record<string, fc.Arbitrary<unknown>>): fc.Arbitrary<unknown> =>
  fc.record(model, { requiredKeys: [] });
const within = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });
const often = (good: fc.Arbitrary<unknown>, wild: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.oneof({ weight: 9, arbitrary: good }, { weight: 1, arbitrary: maybe(wild) });
const specs = often(
  fc.record(
    {
      massG: within(250, 380),
      balanceCm: within(20, 36),
      swingWeight: within(260, 400),
      twistWeight: within(5, 25),
    },
    { requiredKeys: ['massG', 'balanceCm', 'swingWeight'] },
  ),
  some({
    massG: maybe(number),
    balanceCm: maybe(number),
    swingWeight: maybe(number),
    twistWeight: maybe(number),
    axisCm: number,
  }),
);
const shape = often(
  fc.oneof(
    fc.record({ sport: fc.constantFrom('tennis', 'badminton'), lengthCm: within(66, 74) }),
    fc.record({
      sport: fc.constant('padel'),
      lengthCm: within(44, 47),
      shape: fc.constantFrom('round', 'diamond'),
    }),
    fc.record({ sport: fc.constant('pickleball'), lengthCm: within(39, 44), headWidthCm: within(15, 22) }),
  ),
  some({
    sport: fc.constantFrom(...SPORTS),
    lengthCm: number,
    headAreaCm2: number,
    headLengthCm: number,
    headWidthCm: number,
    handleLengthCm: number,
    shape: fc.constantFrom('round', 'elongated', 'none of these'),
  }),
);
const whole = (model: Record<string, fc.Arbitrary<unknown>>, required: string[]): fc.Arbitrary<unknown> =>
  often(fc.record(model, { requiredKeys: required }), some(model));
const spot = fc.oneof(
  fc.record({ clock: often(within(0, 12), number) }),
  some({ xCm: number, yCm: number }),
  fc.record({ zone: fc.constantFrom('tip', 'butt', 'throat', 'slotHeart', 'moon') }),
);
const dress = some({
  strings: fc.oneof(fc.boolean(), fc.record({ massG: number })),
  baseGrip: fc.constantFrom('leather', 'felt'),
  overgrips: fc.integer({ min: -1, max: 8 }),
  dampener: fc.boolean(),
});
const target = some({
  value: often(within(1, 400), number),
  tolerance: often(within(0.1, 3), number),
  priority: fc.constantFrom('must', 'want', 'free', 'perhaps'),
});
const someSpecs = often(
  fc.record(
    {
      massG: within(250, 380),
      balanceCm: within(20, 36),
      swingWeight: within(260, 400),
      twistWeight: within(5, 25),
      axisCm: within(0, 12),
    },
    { requiredKeys: [] },
  ),
  specs,
);
const setups = fc.array(fc.record({ id: fc.string(), specs: someSpecs }), { maxLength: 4 });
const ZONES = ['tip', 'sides', 'throat', 'handle', 'slotHeart', 'moon'];
const placement = whole(
  {
    zone: fc.constantFrom(...ZONES),
    massG: often(within(0.5, 12), number),
    xCm: often(within(2, 44), number),
    yCm: often(within(0, 10), number),
    mirrored: fc.boolean(),
    spanCm: often(within(0.5, 10), number),
    layers: fc.integer({ min: 1, max: 3 }),
  },
  ['zone', 'massG', 'xCm', 'yCm', 'mirrored'],
);
const placements = fc.array(placement, { maxLength: 3 });
const aim = some({ massG: target, balanceCm: target, swingWeight: target, twistWeight: target });
const u = within(0, 1);
const readingU = fc.oneof(u, fc.record({ random: u, common: u }));
const instruments = often(
  fc.record(
    { massG: readingU, balanceCm: readingU, swingWeight: readingU, twistWeight: readingU },
    { requiredKeys: [] },
  ),
  some({ massG: number, swingWeight: some({ random: number, common: number }) }),
);
const quantumG = often(fc.constantFrom(0.5, 2), fc.constantFrom(-1, 0, 1e9));

/** Bodies that are nearly right: every path behind the schema is walked too. */
const BODIES: Record<string, fc.Arbitrary<unknown>> = {
  predict: whole(
    {
      shape,
      specs,
      additions: fc.array(
        whole(
          {
            massG: often(within(-3, 15), number),
            at: spot,
            spanCm: often(within(0.5, 14), number),
            mirrored: fc.boolean(),
          },
          ['massG', 'at'],
        ),
        { maxLength: 3 },
      ),
    },
    ['shape', 'specs', 'additions'],
  ),
  redress: whole({ shape, specs, from: dress, to: dress }, ['shape', 'specs', 'from', 'to']),
  shiftAxis: whole({ specs, toAxisCm: often(within(0, 20), number) }, ['specs', 'toAxisCm']),
  plan: whole(
    {
      shape,
      specs,
      target: aim,
      schools: fc.array(fc.constantFrom('free', 'tip', 'ends', 'sides', 'balance-keeping'), { maxLength: 2 }),
      quantumG,
      margin: fc.boolean(),
      locked: fc.array(placement, { maxLength: 1 }),
      caps: some({ tip: often(within(0, 12), number), butt: often(within(0, 30), number) }),
    },
    ['shape', 'specs', 'target'],
  ),
  chance: whole(
    {
      shape,
      specs,
      placements,
      target: aim,
      densityShare: often(within(0, 0.2), number),
      placingCm: often(within(0, 1), number),
      start: instruments,
      uncertainty: instruments,
      sameInstruments: fc.boolean(),
      drift: often(fc.record({ swingWeight: u }), some({ swingWeight: number })),
    },
    ['shape', 'specs', 'placements', 'target'],
  ),
  readings: whole(
    {
      shape,
      specs,
      placements,
      target: aim,
      start: instruments,
      uncertainty: instruments,
      sameInstruments: fc.boolean(),
      wanted: often(within(0.5, 0.99), number),
    },
    ['shape', 'specs', 'target'],
  ),
  trim: whole({ shape, specs, placements, target: aim, quantumG }, [
    'shape',
    'specs',
    'placements',
    'target',
  ]),
  lighten: whole({ placements, share: often(within(0, 1), number), quantumG }, ['placements', 'share']),
  commonAim: whole(
    {
      frames: fc.array(fc.record({ id: fc.string(), shape, specs }), { minLength: 1, maxLength: 3 }),
      keys: fc.subarray(['massG', 'swingWeight', 'twistWeight'], { minLength: 1 }),
    },
    ['frames'],
  ),
  sensitivity: whole({ shape, specs, massG: often(within(0.1, 20), number) }, ['shape', 'specs']),
  nearest: whole({ specs, setups, sport: fc.constantFrom('tennis', 'padel') }, ['specs', 'setups']),
  pendulum: whole(
    {
      massG: often(within(250, 400), number),
      balanceCm: often(within(28, 36), number),
      pivotCm: often(within(0, 8), number),
      swings: often(fc.integer({ min: 1, max: 40 }), number),
      seconds: often(within(20, 60), number),
      amplitudeDeg: often(within(0, 40), number),
      axisCm: often(within(0, 12), number),
      uncertainty: some({ massG: within(0, 2), seconds: within(0, 1) }),
    },
    ['massG', 'balanceCm', 'pivotCm', 'swings', 'seconds'],
  ),
  twist: whole(
    {
      faceOn: fc.array(often(within(300, 310), number), { minLength: 1, maxLength: 4 }),
      edgeOn: fc.array(often(within(310, 330), number), { maxLength: 4 }),
      readingUncertainty: often(within(0, 2), number),
    },
    ['faceOn', 'edgeOn'],
  ),
  reach: whole({ shape, specs, setups }, ['shape', 'specs', 'setups']),
  nextStep: whole(
    {
      programme: fc.constantFrom(
        'find-ceiling',
        'settle-face',
        'quiet-handle',
        'trim-evenly',
        'climb',
        'after-sore-arm',
      ),
      sport: fc.constant('tennis'),
      shape: often(fc.constant({ sport: 'tennis', lengthCm: 68.58 }), shape),
      specs,
      history: fc.array(
        whole(
          {
            change: fc.array(
              fc.record({ zone: fc.constantFrom('tip', 'sides', 'handle', 'slotTip'), massG: within(-5, 8) }),
              { maxLength: 2 },
            ),
            session: fc.record({
              energyLeft: fc.constantFrom('plenty', 'little', 'none'),
              arm: fc.constantFrom('fine', 'tired', 'sore'),
            }),
          },
          ['change'],
        ),
        { maxLength: 4 },
      ),
    },
    ['programme', 'sport', 'shape', 'specs', 'history'],
  ),
  guards: whole(
    {
      sport: fc.constant('tennis'),
      shape: often(fc.constant({ sport: 'tennis', lengthCm: 68.58 }), shape),
      specs,
      dress: some({ strings: fc.boolean(), overgrips: fc.integer({ min: 0, max: 3 }) }),
      target: aim,
      player: some({ age: within(6, 80), ceilingSwingWeight: within(250, 380), soreArm: fc.boolean() }),
    },
    ['sport', 'shape', 'specs', 'dress', 'target'],
  ),
  shapeAdvice: whole(
    {
      first: fc.constantFrom('hands', 'power', 'forgiveness', 'reach', 'luck'),
      misHits: fc.constantFrom('tip', 'sides'),
      from: fc.constantFrom('other-racket-sport', 'new'),
    },
    ['first'],
  ),
  parseSpecs: whole(
    {
      text: fc.string({ maxLength: 60 }),
      sport: often(fc.constantFrom('tennis', 'padel'), fc.constantFrom(...SPORTS)),
    },
    ['text'],
  ),
};

/** Calls that search are asked less often. */
const RUNS: Record<string, number> = { commonAim: 12 };

describe('every compute call, with generated JSON', () => {
  const compute = Object.entries(calls).filter(([, call]) => call.path.startsWith('/compute/'));

  it('has a generator for each', () => {
    expect(compute.map(([name]) => name).toSorted()).toEqual(Object.keys(BODIES).toSorted());
  });

  it.each(compute)(
    '%s answers 200, or 422 as problem details with a sentence a field',
    async (name, call) => {
      let answered = 0;
      await fc.assert(
        fc.asyncProperty(
          fc.oneof({ weight: 8, arbitrary: BODIES[name] as fc.Arbitrary<unknown> }, fc.jsonValue()),
          async (body) => {
            const response = await fetch(server.base + call.path, {
              method: 'POST',
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify(body),
              signal: AbortSignal.timeout(20_000),
            });
            const answer = (await response.json()) as {
              code?: string;
              errors?: { path: string; message: string }[];
            };
            if (response.status === 200) {
              answered++;
              // Every number of an answer is a number: no NaN and no infinity, which JSON would show as null.
              // But for a trim's new piece, which has no number among those given.
              expect(JSON.stringify(answer).replaceAll('"index":null', '')).not.toContain('null');
              expect(call.answer.safeParse(answer).success).toBe(true);
              return;
            }
            expect(response.status).toBe(422);
            expect(response.headers.get('content-type')).toContain('application/problem+json');
            expect(answer.errors?.length).toBeGreaterThan(0);
            for (const { message } of answer.errors ?? []) expect(message).toMatch(/[.!]$/);
          },
        ),
        { numRuns: RUNS[name] ?? 200, seed: 42 },
      );
      // The generator reaches the computation itself, not only its gate.
      expect(answered).toBeGreaterThan(5);
    },
    120_000,
  );
});

describe('every other call with a body, with generated JSON', () => {
  const stored = Object.entries(calls).filter(
    ([, call]) => call.body !== undefined && !call.path.startsWith('/compute/'),
  );
  let ids: Record<string, string> = {};
  beforeAll(async () => {
    const send = async (path: string, body: unknown): Promise<string> =>
      ((await server.call('POST', path, body)).body as { id: string }).id;
    const player = await send('/players', { name: 'Fay Fuzzwell', sports: ['padel'] });
    const frame = await send('/frames', {
      tag: 'FZ-1',
      maker: 'Norwold',
      model: 'Keel',
      shape: { sport: 'padel', lengthCm: 45.5 },
    });
    const sheet = {
      repeatability: 1,
      accuracy: 1,
      resolution: 1,
      driftPerHour: 0,
      warmUpMinutes: 0,
      axisCm: null,
    };
    const instrument = await send('/instruments', { name: 'fuzzed', kind: 'machine', sheet });
    const fitting = await send('/fittings', { playerId: player, frameIds: [frame] });
    const part = await send('/parts', { kind: 'dab', name: 'dab', massG: 1 });
    const measurement = await send(`/frames/${frame}/measurements`, {
      key: 'to fuzz upon',
      dress: {},
      specs: { massG: 365, balanceCm: 26, swingWeight: 150, twistWeight: 14 },
    });
    ids = {
      players: player,
      frames: frame,
      instruments: instrument,
      fittings: fitting,
      parts: part,
      measurements: measurement,
    };
  });

  interface Schema {
    type?: string;
    enum?: unknown[];
    const?: unknown;
    anyOf?: Schema[];
    oneOf?: Schema[];
    properties?: Record<string, Schema>;
    required?: string[];
    items?: Schema;
    minimum?: number;
    maximum?: number;
    format?: string;
  }
  /** What a schema allows, and now and then what it does not. */
  function fitting(schema: Schema): fc.Arbitrary<unknown> {
    const {
      type,
      enum: choices,
      const: only,
      items,
      properties = {},
      required = [],
      minimum = -5,
      maximum = 400,
    } = schema;
    const any = schema.anyOf ?? schema.oneOf;
    if (only !== undefined) return fc.constant(only);
    if (choices) return fc.constantFrom(...choices);
    if (any) return fc.oneof(...any.map(fitting));
    if (type === 'boolean') return fc.boolean();
    if (type === 'null') return fc.constant(null);
    if (type === 'integer') return fc.integer({ min: Math.max(-5, minimum), max: Math.min(2000, maximum) });
    if (type === 'number') return often(within(Math.max(-5, minimum), Math.min(400, maximum)), number);
    if (type === 'array') return fc.array(fitting(items ?? {}), { minLength: 1, maxLength: 3 });
    if (type === 'object') {
      const model = Object.fromEntries(
        Object.entries(properties).map(([key, value]) => [key, fitting(value)]),
      );
      return often(fc.record(model, { requiredKeys: required }), some(model));
    }
    if (schema.format === 'date') return fc.constantFrom('2026-11-24', '2026-02-30');
    return fc.oneof(
      fc.constantFrom(...Object.values(ids), 'a key of some length'),
      // A question mark in an answer tells that a value was missing in its sentence: none is typed here.
      fc.string({ maxLength: 12 }).map((text) => text.replaceAll('?', '')),
    );
  }

  it.each(stored)('%s is answered or refused, never broken', async (_name, call) => {
    await fc.assert(
      fc.asyncProperty(
        often(fitting(z.toJSONSchema(call.body as z.ZodType, { io: 'input' }) as Schema), fc.jsonValue()),
        async (body) => {
          const place = call.path.split('/')[1] ?? '';
          const path = call.path.replace(':id', ids[place] ?? 'none');
          const {
            status,
            type,
            body: answer,
          } = await server.call(call.method.toUpperCase(), path, JSON.stringify(body ?? null));
          if (status === 200) {
            const said = call.answer.safeParse(answer);
            expect(said.error?.issues ?? []).toEqual([]);
            return;
          }
          expect(answer.detail).not.toContain('?');
          expect([404, 409, 422]).toContain(status);
          expect(type).toContain('application/problem+json');
          for (const { message } of answer.errors ?? []) expect(message).toMatch(/[.!]$/);
        },
      ),
      // A passphrase is slow to store on purpose.
      { numRuns: call.path === '/passphrase' ? 10 : 60, seed: 7 },
    );
  });
});
