import { describe, expect, it } from 'vitest';
import { onPlayingShop, SPECS } from './test-play';

const now = '2026-11-23T09:00:00.000Z';
const { server, made, key, opened } = onPlayingShop(() => now);

describe('a programme', () => {
  it('goes from its start to its stop: the ceiling is written down, the last weight comes off', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    expect((await f.programme()).next).toMatchObject({ reason: 'play-first', ready: null });
    expect((await f.round()).state.next).toMatchObject({ station: 'play', because: 'not-played' });
    await f.play();
    expect((await f.round()).state.next).toMatchObject({ station: 'play', because: 'step-due' });
    const { next } = await f.programme();
    expect(next).toMatchObject({ reason: 'energy-left', change: [{ zone: 'tip', massG: 2 }] });
    // Ready in the shop's own tape, to half of the least piece.
    expect(Math.abs(next.ready.placements[0].massG - 2)).toBeLessThan(0.07);
    expect(next.ready.specs.swingWeight).toBeGreaterThan(SPECS.swingWeight + 5);

    await f.step();
    expect((await f.round()).why).toBe('programme');
    expect((await f.programme()).next.reason).toBe('play-first');
    await f.play({ energyLeft: 'enough' });
    await f.step();
    await f.play({ energyLeft: 'none', late: 'often', note: 'heavy at the end' });
    const tired = await f.programme();
    expect(tired.next).toMatchObject({ state: 'done', reason: 'tired' });
    expect(tired.next.ready.removals).toHaveLength(1);
    await f.step();
    expect(await f.programme()).toMatchObject({ state: 'ended', next: null });
    const frame = (await server.call('GET', `/frames/${f.frameId}`)).body.frame;
    expect(frame.weights.reduce((all: number, w: { massG: number }) => all + w.massG, 0)).toBeCloseTo(2, 0);
    const page = (await server.call('GET', `/players/${f.playerId}/page`)).body;
    const { swingWeight, uncertainty, on } = page.ceilings.tennis;
    expect([Math.abs(swingWeight - 308.4) < 1, uncertainty > 2 && uncertainty < 4, on]).toEqual([
      true,
      true,
      '2026-11-23',
    ]);
    expect(page.sessions).toHaveLength(3);
    expect(page.sessions[0].specs.swingWeight).toBeGreaterThan(page.sessions[2].specs.swingWeight + 10);
    expect(page.advised.map(({ what }: { what: string }) => what)).toEqual([
      'step',
      'step',
      'step',
      'programme',
    ]);
    // A ceiling that is typed later is no finding any more.
    const { id: _, hasArmHistory: __, archived: ___, ...player } = page.player;
    await made(`/players/${f.playerId}`, { ...player, ceilings: { tennis: 320 } }, 'PUT');
    const typed = (await server.call('GET', `/players/${f.playerId}/page`)).body.ceilings.tennis;
    expect(typed).toEqual({ swingWeight: 320, uncertainty: null, on: null });
  });

  it('is not needed for an answer: what follows from the last session is the first step of the one that suits it', async () => {
    const f = await opened();
    const answer = async () =>
      (await server.call('GET', `/rounds/${(await f.round()).id as string}/answer`)).body;
    expect(await answer()).toMatchObject({ programme: null, next: null });
    await f.play({ energyLeft: 'little', late: 'often' });
    const tired = await answer();
    expect(tired).toMatchObject({ programme: 'trim-evenly', next: { reason: 'nothing-left', change: [] } });
    expect(tired.next.sentence).toMatch(/^Tired, often late\. /);
    await f.play({ energyLeft: 'enough', twists: 'often' });
    const { programme, ...twists } = await answer();
    expect(programme).toBe('settle-face');
    expect(twists.next.change.length).toBeGreaterThan(0);
    expect(twists.next.ready.short).toEqual([]);
    // Begun, the programme proposes the same; and then there is no other answer beside it.
    await f.begin('settle-face');
    const begun = await f.programme();
    expect({ next: begun.next, trouble: begun.trouble }).toEqual(twists);
    expect(await answer()).toMatchObject({ programme: null, next: null });
  });

  it('stops for a sore arm, and begins again only after it or with a reason', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    await f.play();
    await f.step();
    await f.play({ arm: 'sore' });
    const { next } = await f.programme();
    expect(next).toMatchObject({ state: 'stopped', reason: 'sore' });
    expect(next.sentence).toContain('physician or physiotherapist');
    expect(next.change.every(({ massG }: { massG: number }) => massG < 0)).toBe(true);
    const more = await server.call('POST', `${f.at}/programmes`, {
      key: key(),
      frameId: f.frameId,
      name: 'climb',
    });
    expect([more.status, more.body.errors[0].path]).toEqual([422, 'note']);
    await f.step();
    expect((await f.programme()).state).toBe('ended');
    await f.begin('after-sore-arm');
    // The sore session came before it.
    expect((await f.programme()).next.state).toBe('go-on');
  });

  it('forgets a session that was noted by mistake, and counts it again', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    const sore = await f.play({ arm: 'sore' });
    expect((await f.programme()).next.state).toBe('stopped');
    const count = (counts: boolean, reason = 'meant fine') =>
      server.call('PUT', `/sessions/${sore.id}/counts`, { counts, reason });
    expect((await count(false, ' ')).body.errors[0].path).toBe('reason');
    await count(false);
    expect((await f.programme()).next.reason).toBe('play-first');
    expect((await f.round()).state.next).toMatchObject({ station: 'play', because: 'not-played' });
    const name = (await f.view()).player.name;
    const { rows } = (await server.call('GET', `/today?search=${encodeURIComponent(name)}`)).body;
    expect(rows[0].frames[0].next.because).toBe('not-played');
    expect((await f.round()).sessions[0]).toMatchObject({ counts: false, why: 'meant fine', arm: 'sore' });
    await f.play();
    expect((await f.programme()).next.reason).toBe('energy-left');
    await count(true);
    expect((await f.programme()).next.state).toBe('stopped');
  });

  it('goes past a guard only with a reason, which stands with the aim', async () => {
    // A step over what the player is known to carry.
    const f = await opened(SPECS, { ceilings: { tennis: 290 } });
    await f.begin('find-ceiling');
    await f.play();
    const { status, body } = await f.take();
    expect([status, body.code, body.errors[0].path]).toEqual([422, 'guard-unanswered', 'note']);
    expect(body.errors[0].message).toContain('290');
    expect((await f.entry()).rounds).toHaveLength(1);
    expect((await f.take({ note: 'the old one was typed years ago' })).status).toBe(200);
    expect((await f.round()).aims[0].guards).toEqual([
      { code: 'over-ceiling', note: 'the old one was typed years ago' },
    ]);
  });

  it('starts from what the frame measures, also where that was taken outside the fitting', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    await f.play();
    const specs = { ...SPECS, massG: 319, swingWeight: 303 };
    const aside = { key: key(), dress: { strings: true }, specs };
    const { id } = await made(`/frames/${f.frameId}/measurements`, aside);
    expect((await f.programme()).next.ready.before).toMatchObject(specs);
    expect((await f.take()).status).toBe(200);
    const { startId, plans, state } = await f.round();
    expect([startId, state.planId, state.next.station]).toEqual([id, plans[0].id, 'build']);
  });

  it('can be paused, played once more, and overridden with a note', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    await f.play();
    const { id: programmeId, sessions } = await f.programme();
    const act = (name: string, more: object = {}) =>
      made(`${f.at}/programmes/act`, { programmeId, act: name, ...more });
    await act('pause');
    expect(await f.programme()).toMatchObject({ state: 'paused', next: null });
    await act('resume');
    await act('once-more', { note: 'windy' });
    expect((await f.programme()).next.reason).toBe('play-first');
    expect((await f.take()).body.code).toBe('no-step');
    await f.play();
    expect((await f.programme()).next.reason).toBe('energy-left');
    // Proposed from fewer sessions than there are now.
    const stale = await server.call('POST', `${f.at}/programmes/step`, { key: key(), programmeId, sessions });
    expect([stale.status, stale.body.code]).toEqual([409, 'step-outdated']);
    const own = { change: [{ zone: 'handle', massG: 3 }] };
    const bare = await f.take(own);
    expect([bare.status, bare.body.errors[0].path]).toEqual([422, 'note']);
    const taken = { key: key(), programmeId, sessions: 2, ...own, note: 'wants it calmer first' };
    for (let i = 0; i < 2; i++) await made(`${f.at}/programmes/step`, taken);
    // Sent twice it is taken once.
    expect((await f.entry()).rounds).toHaveLength(2);
    expect((await f.round()).note).toContain('wants it calmer first');
    expect((await f.programme()).next.waitsFor).toBe('build');
    expect((await f.take()).body.code).toBe('no-step');
    await act('end', { lookAgainOn: '2026-11-30', note: 'leave it alone' });
    expect((await f.programme()).state).toBe('ended');
    const day = (await server.call('GET', '/day')).body;
    expect(day.lookAgain).toMatchObject({ total: 1, rows: [{ dueOn: '2026-11-30', why: 'programme' }] });
    await made(`/look-again/${day.lookAgain.rows[0].id}/done`, { done: true }, 'PUT');
    expect((await server.call('GET', '/day')).body.lookAgain.total).toBe(0);
  });

  it('goes with the day, again and again', async () => {
    const f = await opened();
    await f.begin('hot-cold');
    const { id: programmeId } = await f.programme();
    const day = (which: string) => made(`${f.at}/programmes/act`, { programmeId, act: 'day', day: which });
    await day('cold-slow');
    expect((await f.programme()).next.change).toEqual([{ zone: 'tip', massG: 2 }]);
    await f.step();
    expect(await f.programme()).toMatchObject({ state: 'running', next: { state: 'done' } });
    await day('usual');
    expect((await f.programme()).next.change[0].massG).toBeLessThan(0);
  });

  it('leads nowhere from a frame that is not measured, and says what no part can do', async () => {
    const { id: frameId } = await made('/frames', {
      tag: 'N-1',
      maker: 'Velmond',
      model: 'Quarr 97',
      shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
    });
    const { id: playerId } = await made('/players', { name: 'Nobody yet', sports: ['tennis'] });
    const { id } = await made('/fittings', { playerId, frameIds: [frameId] });
    const begun = await server.call('POST', `/fittings/${id}/programmes`, {
      key: key(),
      frameId,
      name: 'climb',
    });
    expect(begun.body.code).toBe('nothing-measured');
    const f = await opened();
    await f.begin('find-ceiling');
    await f.play();
    const off = await f.take({ change: [{ zone: 'tip', massG: -2 }], note: 'lighter' });
    expect([off.status, off.body.code]).toEqual([409, 'step-short']);
    expect(off.body.detail).toContain('2 g off the tip');
  });
});

describe('the way back', () => {
  it('leads to what was on the frame before, as a plan', async () => {
    const f = await opened();
    await f.begin('find-ceiling');
    await f.play();
    await f.step();
    const [first, second] = (await f.entry()).rounds;
    await f.play();
    await f.step();
    const back = (toRoundId: string, which: string) =>
      server.call('POST', `${f.at}/back`, { key: key(), frameId: f.frameId, toRoundId, which });
    const { status, body } = await back(second.id, 'built');
    expect(status, JSON.stringify(body)).toBe(200);
    const round = body.frames[0].rounds.at(-1);
    expect(round).toMatchObject({ why: 'back', note: 'Back to the build of round 2.' });
    expect(round.plans[0].removals).toHaveLength(1);
    expect((await back(first.id, 'found')).body.code).toBe('check-first');
    await f.build();
    expect((await back(second.id, 'built')).body.code).toBe('nothing-to-go-back');
    const asFound = (await back(first.id, 'found')).body.frames[0].rounds.at(-1);
    await f.build();
    expect(asFound.plans[0].removals).toHaveLength(1);
    expect((await server.call('GET', `/frames/${f.frameId}`)).body.frame.weights).toEqual([]);
  });
});

describe('what the shop works to', () => {
  const numbers = (sports: object) =>
    made('/shop', { name: 'Plumb & Loop', town: '', calibrationHours: 72, sports }, 'PUT');

  it('goes into the aim of a step, the distance of setups and the guards; and goes back to what ships', async () => {
    await made('/setups', {
      name: 'A heavier one',
      frameName: 'Quarr 97',
      sourceKind: 'measured',
      source: 'bench',
      shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
      dress: { strings: true },
      specs: { massG: 324 },
    });
    const f = await opened();
    const { id } = (await f.round()).measurements[0];
    const steps = async () =>
      (await server.call('GET', `/measurements/${id}/setups`)).body.rows[0].distanceSteps;
    const ships = await steps();
    await numbers({ tennis: { tolerance: { massG: 2.5, balanceCm: 0.02 }, noticeable: { massG: 1.5 } } });
    // Half the step is twice as far.
    expect(await steps()).toBeCloseTo(2 * ships, 6);
    await f.begin('find-ceiling');
    await f.play();
    await f.step();
    const { target } = (await f.round()).aims[0];
    expect(target.massG.tolerance).toBe(2.5);
    // What its instruments cannot judge begins with what they can.
    expect(target.balanceCm.tolerance).toBeGreaterThan(0.1);
    const wrong = await server.call('PUT', '/shop', {
      name: 'Plumb & Loop',
      town: '',
      calibrationHours: 72,
      sports: { tennis: { tolerance: { massG: -1 } } },
    });
    expect([wrong.status, wrong.body.errors[0].path]).toEqual([422, 'sports.tennis.tolerance.massG']);
    await numbers({});
    expect(await steps()).toBeCloseTo(ships, 9);
  });
});
