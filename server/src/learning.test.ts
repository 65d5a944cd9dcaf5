import { describe, expect, it } from 'vitest';
import { NO_CHANGE, changeOutcome, settleFrame, type Part, type Placement } from '@kevro/core';
import type { Learning } from '@kevro/contract';
import { onServer, startTestServer } from './test-server';

// What checked builds teach is offered, taken only when asked for, and taken back.
let clock = 0;
const server = onServer(() =>
  startTestServer(() => new Date(Date.UTC(2026, 10, 1) + clock++ * 60_000).toISOString()),
);
const post = async (path: string, body: unknown) => (await server.call('POST', path, body)).body;
const learning = async (): Promise<Learning> => (await server.call('GET', '/learning')).body;

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.5 };
const uncertainty = { massG: 0.1, balanceCm: 0.03, swingWeight: 0.4, twistWeight: 0.1 };
let n = 0;

/** One fitting whose build is checked: the roll is heavier than it says by a share. */
async function build(tape: Part & { gPerCm: number }, heavier: number) {
  const player = await post('/players', { name: `Ottilie ${++n}`, sports: ['tennis'] });
  const frame = await post('/frames', {
    tag: `LE-${n}`,
    maker: 'Velmond',
    model: 'Quarr',
    ownerId: player.id,
    shape,
  });
  const fitting = await post('/fittings', { playerId: player.id, frameIds: [frame.id] });
  const roundId = fitting.frames[0].rounds[0].id;
  const measure = (purpose: string, of: object) =>
    post(`/frames/${frame.id}/measurements`, {
      key: `key ${++n} of it`,
      dress: { strings: true },
      specs: of,
      uncertainty,
      purpose,
      roundId,
    });
  const start = await measure('found', specs);
  const aim = await post(`/fittings/${fitting.id}/aims`, {
    roundId,
    way: 'by-hand',
    target: { massG: { value: 328, tolerance: 2 } },
  });
  const placement = {
    id: 'p1',
    partId: tape.id,
    path: 'rim',
    startCm: 8,
    endCm: 18,
    sides: 2,
    layers: 1,
    massG: 20 * tape.gPerCm,
  };
  const plan = await post(`/fittings/${fitting.id}/plans`, {
    roundId,
    startId: start.id,
    aimId: aim.id,
    school: 'free',
    placements: [placement],
  });
  const is = changeOutcome(settleFrame(shape), start.specs, start.dress, {
    ...NO_CHANGE,
    placements: [{ ...placement, massG: 20 * TRUE_G_PER_CM * (1 + heavier) } as Placement],
    parts: [tape],
  }).specs;
  const { axisCm: _, ...read } = is;
  const check = await measure('check', read);
  expect(plan.id).toBeDefined();
  return { check, read };
}
const TRUE_G_PER_CM = 0.3;

describe('what the shop learns', () => {
  it('is offered with its evidence, taken when accepted, taken back with one act, and starts again with a new roll', async () => {
    const tape = await post('/parts', {
      kind: 'tape',
      name: 'lead tape',
      material: 'lead',
      widthMm: 9,
      gPerCm: TRUE_G_PER_CM,
      stepCm: 0.5,
    });
    expect((await learning()).rolls).toEqual([]);
    for (let i = 0; i < 8; i++) await build(tape, 0.06);
    const [roll] = (await learning()).rolls;
    expect(roll).toMatchObject({ partId: tape.id, builds: 8, statedGPerCm: 0.3, gPerCm: 0.3, applied: null });
    expect(Math.abs((roll?.share ?? 0) - 0.06)).toBeLessThan(2.5 * (roll?.uncertainty ?? 0));
    expect((await learning()).builds).toHaveLength(8);
    // Nothing is changed until it is accepted.
    const part = async () =>
      (await server.call('GET', '/parts')).body.find((row: { part: Part }) => row.part.id === tape.id).part;
    expect((await part()).gPerCm).toBe(0.3);
    const applied: Learning = await post(`/learning/rolls/${tape.id}`, { act: 'apply' });
    expect(applied.rolls[0]?.applied).toMatchObject({ builds: 8 });
    const corrected = await part();
    expect(corrected.gPerCm).toBeCloseTo(0.3 * (1 + (roll?.share ?? 0)), 4);
    expect(corrected.massShare).toBeCloseTo(roll?.uncertainty ?? 0, 9);
    // Builds of the corrected roll go on teaching of the same stated one.
    await build({ ...corrected, gPerCm: corrected.gPerCm }, 0.06);
    const after = (await learning()).rolls[0];
    expect(after).toMatchObject({ builds: 9, statedGPerCm: 0.3 });
    expect(Math.abs((after?.share ?? 0) - 0.06)).toBeLessThan(2.5 * (after?.uncertainty ?? 0));
    await post(`/learning/rolls/${tape.id}`, { act: 'undo' });
    expect(await part()).toEqual(tape);
    await post(`/learning/rolls/${tape.id}`, { act: 'apply' });
    await post(`/learning/rolls/${tape.id}`, { act: 'new-roll' });
    expect(await part()).toEqual(tape);
    expect((await learning()).rolls).toEqual([]);
    await build(tape, -0.03);
    const [fresh] = (await learning()).rolls;
    expect(fresh).toMatchObject({ builds: 1, applied: null });
    expect(fresh?.begunAt).not.toBeNull();
    expect(fresh?.share).toBeLessThan(0.02);
  });

  it('goes on with a check that was corrected, by its corrected numbers', async () => {
    const tape = await post('/parts', {
      kind: 'tape',
      name: 'tape of a misread check',
      material: 'lead',
      widthMm: 9,
      gPerCm: TRUE_G_PER_CM,
      stepCm: 0.5,
    });
    const of = async () => (await learning()).rolls.find(({ partId }) => partId === tape.id);
    const { check, read } = await build(tape, 0.05);
    const right = await of();
    expect(right?.builds).toBe(1);
    // Misread, and corrected to what it was misread as: what it teaches follows the correction.
    const misread = { key: `key ${++n} of it`, dress: { strings: true }, uncertainty, reason: 'misread' };
    const wrong = await post(`/measurements/${check.id}/correct`, {
      ...misread,
      specs: { ...read, massG: read.massG + 0.4 },
    });
    const off = await of();
    expect(off?.builds).toBe(1);
    expect(off?.share).not.toBeCloseTo(right?.share ?? 0, 3);
    // Corrected once more, to what it was: it teaches what it taught.
    await post(`/measurements/${wrong.id}/correct`, { ...misread, key: `key ${++n} of it`, specs: read });
    expect((await of())?.share).toBeCloseTo(right?.share ?? 0, 9);
    expect((await of())?.builds).toBe(1);
  });

  it('is not of a part that no roll is of', async () => {
    expect((await server.call('POST', '/learning/rolls/none', { act: 'apply' })).status).toBe(404);
    const dab = await post('/parts', { kind: 'dab', name: 'dab', massG: 1 });
    expect((await server.call('POST', `/learning/rolls/${dab.id}`, { act: 'new-roll' })).status).toBe(404);
  });
});
