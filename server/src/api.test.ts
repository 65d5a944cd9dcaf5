import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrate, migrationNumbers } from './db/migrate';
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
    const fitting = (await post('/fittings', { playerId: player.id, frameIds: [frame.id] })).body;
    const roundId = fitting.frames[0].rounds[0].id as string;
    const aim = (
      await post(`/fittings/${fitting.id}/aims`, {
        roundId,
        way: 'by-hand',
        target: { massG: { value: 333, tolerance: 1 }, swingWeight: { value: 326, tolerance: 1.5 } },
      })
    ).body;
    return { player, frame, measurement, fitting, aim, roundId };
  }

  const partId = async (): Promise<string> =>
    (await post('/parts', { kind: 'filling', name: 'putty', material: 'putty', dabG: 0.5, gPerCm: 1.6 })).body
      .id;
  const inButt = (part: string, massG = 6) => ({
    id: 'p1',
    partId: part,
    path: 'handle',
    startCm: 0,
    endCm: 3,
    sides: 1,
    layers: 1,
    massG,
  });
  const roundOf = async (fittingId: string) =>
    (await call('GET', `/fittings/${fittingId}`)).body.frames[0].rounds.at(-1);

  async function fittingWithPlan() {
    const made = await fittingWithAim();
    const body = {
      roundId: made.roundId,
      startId: made.measurement.id,
      aimId: made.aim.id,
      school: 'free',
      placements: [inButt(await partId())],
    };
    const plan = (await post(`/fittings/${made.fitting.id}/plans`, body)).body;
    const mark = (step: string, more: object = {}) =>
      post(`/fittings/${made.fitting.id}/marks`, { planId: plan.id, step, mark: 'done', ...more });
    const measure = async (purpose: string, specs: object = measured) =>
      (
        await post(`/frames/${made.frame.id}/measurements`, {
          key: `key-${++n}-0000`,
          dress: strung,
          specs,
          purpose,
          roundId: made.roundId,
        })
      ).body;
    return { ...made, body, plan, mark, measure };
  }

  it('goes from a player to a build step, whose time is kept', async () => {
    const { fitting, plan, mark } = await fittingWithPlan();
    expect(plan.specs.massG).toBe(333);
    expect(plan.withinTolerance).toBe(false);
    expect(plan.parts.map((p: { name: string }) => p.name)).toEqual(['putty']);
    expect((await roundOf(fitting.id)).state.next).toMatchObject({ station: 'build', step: 'weigh-before' });
    const marked = (await mark('weigh-before')).body.frames[0].rounds[0].state;
    expect(marked.steps).toEqual({ 'weigh-before': { mark: 'done', at: '2026-11-23T09:00:00.000Z' } });
    const { rows } = (await call('GET', '/today')).body;
    expect(rows[0]).toMatchObject({ id: fitting.id, frames: [{ next: { station: 'build' } }] });
  });

  it('keeps plan, ticks and pieces through a trial, a step, a check and a later measurement', async () => {
    const { fitting, plan, mark, measure } = await fittingWithPlan();
    await mark('weigh-before');
    const before = await roundOf(fitting.id);
    for (const purpose of ['trial', 'step', 'check', 'later']) {
      await measure(purpose, { ...measured, massG: 333 });
      const round = await roundOf(fitting.id);
      expect(round.state.planId).toBe(plan.id);
      // Steps that are marked stay marked; of a trial and a check the reading marks its own step.
      expect(round.state.steps).toMatchObject(before.state.steps);
      expect(round.plans).toEqual(before.plans);
    }
    const read = (await roundOf(fitting.id)).marks.filter(
      (m: { measurementId: string | null }) => m.measurementId,
    );
    expect(read.map((m: { step: string }) => m.step)).toEqual(['measure-trial', 'final-check']);
    const round = await roundOf(fitting.id);
    expect(round.measurements.map((m: { purpose: string }) => m.purpose)).toEqual([
      'found',
      'trial',
      'step',
      'check',
      'later',
    ]);
    expect(round.state.planId).toBe(plan.id);
  });

  it('lets the plan lapse where a new start is made, keeps it stored, and makes any measurement the start again', async () => {
    const { fitting, measurement, measure, plan, roundId, mark } = await fittingWithPlan();
    await mark('weigh-before');
    const again = await measure('found', { ...measured, massG: 328 });
    const lapsed = await roundOf(fitting.id);
    expect(lapsed.startId).toBe(again.id);
    expect(lapsed.state).toMatchObject({
      planId: null,
      lapsed: { [plan.id]: 'another-start' },
      next: { station: 'plan', because: 'plan-lapsed' },
    });
    expect((await mark('measure-trial')).body.code).toBe('nothing-planned');
    await call('PUT', `/fittings/${fitting.id}/start`, { roundId, measurementId: measurement.id });
    const back = await roundOf(fitting.id);
    expect(back.state.planId).toBe(plan.id);
    expect(Object.keys(back.state.steps)).toEqual(['weigh-before']);
  });

  it('signs a check off spec by spec, notes what is on the frame then, and keeps a second click to one', async () => {
    const { fitting, plan, measure, frame, mark } = await fittingWithPlan();
    const check = await measure('check', { ...measured, massG: 333.4, swingWeight: 326.5 });
    await mark('fill-handle:p1', { asBuilt: [inButt(plan.parts[0].id, 6.4)] });
    const body = { key: 'sign off once', planId: plan.id, measurementId: check.id, by: 'Odo' };
    const signed = await post(`/fittings/${fitting.id}/sign-offs`, body);
    expect(signed.body).toMatchObject({ passed: true, by: 'Odo' });
    expect(signed.body.verdict).toEqual([
      { spec: 'massG', value: 333.4, inside: true },
      { spec: 'swingWeight', value: 326.5, inside: true },
    ]);
    expect((await post(`/fittings/${fitting.id}/sign-offs`, body)).body.id).toBe(signed.body.id);
    const { weights, onIt } = (await call('GET', `/frames/${frame.id}`)).body.frame;
    expect(weights).toMatchObject([{ massG: 6.4, path: 'handle', partId: plan.parts[0].id }]);
    expect(onIt).toEqual(strung);
    for (const { key } of plan.steps) await mark(key);
    expect((await roundOf(fitting.id)).state.stations.check).toBe('done');
    const failing = await measure('check', { ...measured, massG: 340 });
    const second = { ...body, key: 'another sign off', measurementId: failing.id };
    const silent = await post(`/fittings/${fitting.id}/sign-offs`, second);
    expect([silent.status, silent.body.code, paths(silent)]).toEqual([422, 'outside-needs-note', ['note']]);
    const noted = { ...second, note: 'the player likes it so' };
    expect((await post(`/fittings/${fitting.id}/sign-offs`, noted)).body.passed).toBe(false);
    expect((await roundOf(fitting.id)).state.stations.check).toBe('done');
  });

  it('trims what was built from its check: the pieces of that build are there to be shortened, and are on the frame afterwards', async () => {
    const { fitting, plan, measure, frame, mark, body, roundId } = await fittingWithPlan();
    for (const { key } of plan.steps) if (key !== 'final-check') await mark(key);
    const check = await measure('check', { ...measured, massG: 335, swingWeight: 326 });
    const checked = await roundOf(fitting.id);
    // The check is the reading of its own step.
    expect(checked.state.steps['final-check'].mark).toBe('done');
    expect(checked.marks.at(-1)).toMatchObject({ step: 'final-check', measurementId: check.id });
    const [piece] = plan.placements;
    const of = { ...piece, id: `${plan.id}-${piece.id}` };
    const trim = {
      ...body,
      startId: check.id,
      placements: [],
      trims: plan.id,
      removals: [{ of, left: { ...of, massG: 4, endCm: 2 } }],
    };
    expect(paths(await post(`/fittings/${fitting.id}/plans`, { ...trim, trims: null }))).toEqual([
      'removals.0.of',
    ]);
    expect(paths(await post(`/fittings/${fitting.id}/plans`, { ...trim, startId: body.startId }))).toEqual([
      'trims',
    ]);
    const stored = await post(`/fittings/${fitting.id}/plans`, trim);
    expect(stored.body.trims).toBe(plan.id);
    expect(stored.body.specs.massG).toBeCloseTo(333, 9);
    expect(stored.body.chance).toBeGreaterThan(0);
    expect(stored.body.steps.map((s: { kind: string }) => s.kind)).not.toContain('weigh-before');
    const now = await roundOf(fitting.id);
    expect([now.state.planId, now.state.next.station]).toEqual([stored.body.id, 'build']);
    for (const { key } of stored.body.steps)
      await post(`/fittings/${fitting.id}/marks`, { planId: stored.body.id, step: key, mark: 'done' });
    const again = await measure('check', { ...measured, massG: 333, swingWeight: 326 });
    const signed = await post(`/fittings/${fitting.id}/sign-offs`, {
      key: 'signed after a trim',
      planId: stored.body.id,
      measurementId: again.id,
    });
    expect(signed.body.passed).toBe(true);
    const { weights } = (await call('GET', `/frames/${frame.id}`)).body.frame;
    expect(weights).toMatchObject([{ massG: 4, path: 'handle' }]);
    expect((await roundOf(fitting.id)).id).toBe(roundId);
  });

  it('takes a swap and a removal into the plan, and refuses to remove what is not there', async () => {
    const { fitting, body, frame, plan, measure } = await fittingWithPlan();
    const check = await measure('check');
    await post(`/fittings/${fitting.id}/sign-offs`, {
      note: 'for the next visit',
      key: 'noted as on it',
      planId: plan.id,
      measurementId: check.id,
    });
    const [there] = (await call('GET', `/frames/${frame.id}`)).body.frame.weights;
    const { what: _, ...of } = there;
    const swapped = await post(`/fittings/${fitting.id}/plans`, {
      ...body,
      placements: [],
      swaps: [{ what: 'overgrips', to: 0 }],
      removals: [{ of }],
    });
    expect(swapped.body.specs.massG).toBeCloseTo(327 - 5.5 - 6, 9);
    expect(swapped.body.steps.map((s: { kind: string }) => s.kind)).toEqual([
      'weigh-before',
      'strip-handle',
      'take-off',
      'swap',
      'regrip',
      'final-check',
    ]);
    const bad = await post(`/fittings/${fitting.id}/plans`, {
      ...body,
      removals: [{ of: { ...of, id: 'gone' } }],
    });
    expect(paths(bad)).toEqual(['removals.0.of']);
  });

  it('closes a fitting with how it ended, refuses work on it, and opens it again with a new round', async () => {
    const { fitting, roundId, plan } = await fittingWithPlan();
    const close = { how: 'handed-over', note: 'happy' };
    const closed = (await post(`/fittings/${fitting.id}/close`, close)).body;
    expect(closed.closed).toMatchObject(close);
    expect(closed.frames[0].rounds[0].state.next).toBeNull();
    expect((await post(`/fittings/${fitting.id}/close`, close)).body.code).toBe('fitting-closed');
    const mark = { planId: plan.id, step: 'weigh-before', mark: 'done' };
    expect((await post(`/fittings/${fitting.id}/marks`, mark)).body.code).toBe('fitting-closed');
    const listed = async (query: string): Promise<string[]> =>
      (await call('GET', `/today${query}`)).body.rows.map((r: { id: string }) => r.id);
    expect(await listed('')).not.toContain(fitting.id);
    expect(await listed('?closed=yes')).toContain(fitting.id);
    const again = (await post(`/fittings/${fitting.id}/reopen`, {})).body;
    expect(again.closed).toBeNull();
    const rounds = again.frames[0].rounds;
    expect(rounds.map((r: { number: number; why: string }) => [r.number, r.why])).toEqual([
      [1, 'first'],
      [2, 'reopened'],
    ]);
    // The earlier round stays as it was; the new one starts from what was measured last.
    expect(rounds[0].id).toBe(roundId);
    expect(rounds[0].plans).toHaveLength(1);
    expect(rounds[1].state.next.station).toBe('compare');
    expect((await post(`/fittings/${fitting.id}/reopen`, {})).body.code).toBe('fitting-open');
    expect(await listed('')).toContain(fitting.id);
  });

  it('opens a set of frames, each with its own round', async () => {
    const player = (await person()).body;
    const ids = [(await racket(player.id)).body.id, (await racket(player.id)).body.id];
    const { frames } = (await post('/fittings', { playerId: player.id, frameIds: ids })).body;
    expect(frames.map((f: { frame: { id: string } }) => f.frame.id)).toEqual(ids);
    expect(frames.map((f: { rounds: unknown[] }) => f.rounds.length)).toEqual([1, 1]);
    const none = await post('/fittings', { playerId: player.id, frameIds: [ids[0], 'nobody'] });
    expect(paths(none)).toEqual(['frameIds.1']);
  });

  it('stores a session once, and refuses a measurement for another frame’s round', async () => {
    const { fitting, roundId } = await fittingWithPlan();
    const session = {
      key: 'one evening of play',
      roundId,
      playedOn: '2026-11-22',
      energyLeft: 'enough',
      arm: 'fine',
      minutes: 70,
    };
    const first = (await post(`/fittings/${fitting.id}/sessions`, session)).body;
    expect(first).toMatchObject({ playedOn: '2026-11-22', minutes: 70 });
    expect((await post(`/fittings/${fitting.id}/sessions`, session)).body.id).toBe(first.id);
    expect((await roundOf(fitting.id)).sessions).toHaveLength(1);
    const other = (await racket()).body;
    const wrong = await post(`/frames/${other.id}/measurements`, {
      key: 'for a round of another',
      dress: strung,
      specs: measured,
      roundId,
    });
    expect(paths(wrong)).toEqual(['roundId']);
  });

  it('refuses a key that was used for another frame, and stores nothing', async () => {
    const [one, two] = [(await racket()).body, (await racket()).body];
    const body = { key: 'one key for two', dress: strung, specs: measured };
    expect((await post(`/frames/${one.id}/measurements`, body)).status).toBe(200);
    const refused = await post(`/frames/${two.id}/measurements`, body);
    expect([refused.status, refused.body.code]).toEqual([409, 'key-used']);
    expect((await call('GET', `/frames/${two.id}/measurements`)).body).toEqual([]);
    const reading = { means: 'typed', key: 'one reading key', quantity: 'massG', value: 320 };
    expect((await post(`/frames/${one.id}/readings`, reading)).status).toBe(200);
    expect((await post(`/frames/${one.id}/readings`, reading)).body.readings).toHaveLength(1);
    expect((await post(`/frames/${two.id}/readings`, reading)).body.code).toBe('key-used');
    expect((await call('GET', `/frames/${two.id}/capture`)).body.readings).toEqual([]);
  });

  it('clears a maker’s statement where it is taken away, and only there', async () => {
    const nominal = { specs: { massG: 305 }, tolerance: { massG: 7 }, dress: {} };
    const { body } = await post('/frames', {
      tag: `ST-${++n}`,
      maker: 'Oskerra',
      model: 'Stated',
      shape,
      nominal,
    });
    const { id, archived: _, ...frame } = body;
    const twin = (await post(`/frames/${id}/duplicate`, { tag: `ST-${++n}` })).body;
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
      key: `key-${++n}-0000`,
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
    const seen = () =>
      server.db.query<{ number: number; at: string }>(
        'select number, run_at as at from migration order by number',
      );
    const before = await seen();
    await migrate(server.db);
    expect(await seen()).toEqual(before);
    expect(before.map(({ number }) => number)).toEqual(migrationNumbers());
  });
});
