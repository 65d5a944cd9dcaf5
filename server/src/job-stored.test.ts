import { describe, expect, it } from 'vitest';
import { paths } from './test-server';
import {
  withServer,
  call,
  post,
  strung,
  measured,
  person,
  racket,
  inButt,
  roundOf,
  fittingWithPlan,
} from './test-job';

withServer();

describe('the job, stored', () => {
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

  it('marks a step only where it stands as it was seen, and not twice where it is sent again', async () => {
    const { fitting, plan } = await fittingWithPlan();
    const [{ key: step }] = plan.steps;
    const sent = (mark: string, seen: string, key: string) =>
      post(`/fittings/${fitting.id}/marks`, { planId: plan.id, step, mark, seen, key });
    expect((await sent('done', 'open', 'first-of-it')).status).toBe(200);
    expect((await sent('done', 'open', 'first-of-it')).status).toBe(200);
    const late = await sent('skipped', 'open', 'somebody-else');
    expect([late.status, late.body.code]).toEqual([409, 'marked-meanwhile']);
    const { marks, state } = await roundOf(fitting.id);
    expect([marks.length, state.steps[step].mark]).toEqual([1, 'done']);
    expect((await sent('skipped', 'done', 'seen-as-it-is')).status).toBe(200);
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
    // Opened by mistake closed: it goes on where it was, plan and ticks too.
    const before = closed.frames[0].rounds;
    const goesOn = (await post(`/fittings/${fitting.id}/reopen`, {})).body;
    expect(goesOn.closed).toBeNull();
    const withoutNext = (list: { state: object }[]) =>
      list.map((r) => ({ ...r, state: { ...r.state, next: null } }));
    expect(withoutNext(goesOn.frames[0].rounds)).toEqual(withoutNext(before));
    await post(`/fittings/${fitting.id}/close`, close);
    const again = (await post(`/fittings/${fitting.id}/reopen`, { newRound: true })).body;
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
});
