import { DONE_AGO } from '@kevro/contract';
import { describe, expect, it } from 'vitest';
import { onBench } from './test-capture';

const NOW = Date.parse('2026-11-23T09:00:00.000Z');
/** How much later it is whenever the clock is looked at, ms. */
let moves = 0;
let looks = 0;
const { server, key, addFrame, typed, capture, typeAll, store } = onBench(() => NOW + moves * looks++);

/** A reading that a device could send only later. */
async function sentLate(frameId: string, ago: string, body: Record<string, unknown> = {}) {
  const response = await fetch(`${server.base}/frames/${frameId}/readings`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', [DONE_AGO]: ago },
    body: JSON.stringify({ means: 'typed', key: key(), quantity: 'massG', value: 312.4, ...body }),
  });
  return { status: response.status, body: await response.json() };
}

describe('what could be sent only later', () => {
  it('counts from when it was done', async () => {
    const id = await addFrame();
    expect((await sentLate(id, '5400')).status).toBe(200);
    expect((await capture(id)).readings[0]?.takenAt).toBe('2026-11-23T07:30:00.000Z');
  });
  it('counts so however long the server takes over it', async () => {
    const id = await addFrame();
    [moves, looks] = [1000, 0];
    await sentLate(id, '5400');
    expect(looks).toBeGreaterThan(1);
    moves = 0;
    expect((await capture(id)).readings[0]?.takenAt).toBe('2026-11-23T07:30:00.000Z');
  });
  it.each(['-60', 'yesterday', String(40 * 86_400), 'Infinity'])(
    'counts as done now where it says %s',
    async (ago) => {
      const id = await addFrame();
      expect((await sentLate(id, ago)).status).toBe(200);
      expect((await capture(id)).readings[0]?.takenAt).toBe(new Date(NOW).toISOString());
    },
  );
  it('is kept out of readings that others began meanwhile', async () => {
    const id = await addFrame();
    await typeAll(id);
    const shown = await capture(id);
    await store(id, shown.id);
    const late = await sentLate(id, '60', { captureId: shown.id });
    expect([late.status, late.body.code]).toEqual([409, 'capture-gone']);
    expect((await capture(id)).readings).toEqual([]);
    const said = await server.put(`/frames/${id}/capture`, { dress: { strings: true }, captureId: shown.id });
    expect(said.body.code).toBe('capture-gone');
  });
  it('and was stored the first time, is no conflict: its answer was lost', async () => {
    const id = await addFrame();
    const own = key();
    await typed(id, 'massG', 327, 'typed', own);
    await typed(id, 'balanceCm', 32.2);
    await typed(id, 'swingWeight', 320);
    const shown = await capture(id);
    await store(id, shown.id);
    const again = await sentLate(id, '60', { key: own, value: 327, captureId: shown.id });
    expect(again.status).toBe(200);
    expect((await capture(id)).readings).toEqual([]);
  });
});
