import fc from 'fast-check';
import { beforeAll, describe, expect, inject, it } from 'vitest';
import { z } from 'zod';
import { calls } from '@kevro/contract';
import { onServer } from './test-server';
import { number, some, within, often, BODIES } from './test-bodies';

const server = onServer();

const RUNS: Record<string, number> = { commonAim: 12 };
/** A passphrase is slow to store on purpose. */
const SLOW: ReadonlySet<string> = new Set(['setPassphrase', 'addStaff', 'resetStaff', 'ownPassphrase']);

// What is worked out asks no database: on another engine it is the same.
if (!inject('emptyShop').server)
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

  it.each(stored)('%s is answered or refused, never broken', async (name, call) => {
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
      // Another engine reads the same bodies: fewer of them show that it does.
      { numRuns: SLOW.has(name) ? 6 : inject('emptyShop').server ? 10 : 30, seed: 7 },
    );
  });
});
