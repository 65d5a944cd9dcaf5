// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { watch } from 'vue';
import type { CaptureRecord, NewReading } from '@kevro/contract';
import { frameRecord, measurement, within } from '../../test/fixtures';
import { sendWaiting, unsent } from '../api/waiting';
import { useCapture } from './capture';

interface Sent {
  method: string;
  path: string;
  body: Record<string, unknown>;
}
let sent: Sent[] = [];
let capture: CaptureRecord;
/** What the next call of a path does instead of answering. */
let instead: ((call: Sent) => Promise<Response> | undefined) | undefined;

const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
const reading = ({ key, quantity, value }: Extract<NewReading, { means: 'typed' | 'edge-on' }>) => ({
  id: key,
  takenAt: '2026-11-25T10:00:00.000Z',
  quantity,
  means: 'typed' as const,
  value,
  random: 0.2,
  common: 0.2,
  source: 'typed',
  instrumentId: null,
  calibrationId: null,
  setAside: false,
});

beforeEach(() => {
  localStorage.clear();
  sent = [];
  instead = undefined;
  capture = {
    id: 'c1',
    frameId: 'f1',
    openedAt: '2026-11-25T10:00:00.000Z',
    dress: {},
    dressSaid: true,
    readings: [],
  };
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const call: Sent = {
      method: init.method ?? 'GET',
      path: url.replace('/api/v1', ''),
      body: init.body ? JSON.parse(String(init.body)) : {},
    };
    sent.push(call);
    const other = instead?.(call);
    if (other) return other;
    if (call.path.endsWith('/readings')) {
      const next = reading(call.body as never);
      const known = capture.readings.some(({ id }) => id === next.id);
      capture = { ...capture, readings: known ? capture.readings : [...capture.readings, next] };
    }
    if (call.path.endsWith('/store')) return json(measurement);
    if (call.path === '/frames/f1')
      return json({
        frame: frameRecord,
        ownerName: null,
        measurements: [],
        stringings: [],
        bed: null,
        films: [],
        outlinePicture: null,
        modelOutline: null,
        builds: [],
      });
    return json(capture);
  });
});
const wrappers: { unmount: () => void }[] = [];
afterEach(() => {
  wrappers.splice(0).forEach((w) => w.unmount());
  vi.unstubAllGlobals();
});

async function bench() {
  const { result, wrapper } = within(() => useCapture(frameRecord));
  wrappers.push(wrapper);
  await result.load();
  return result;
}

describe('taking readings', () => {
  it('shows what is typed before it is entered, and empties the field once it is', async () => {
    const b = await bench();
    b.type('massG', 327.4);
    expect(b.specs.value.massG).toBeCloseTo(327.4, 9);
    expect(await b.enter('massG')).toBe(true);
    expect(b.typed.value.massG).toBeNull();
    expect(b.specs.value.massG).toBeCloseTo(327.4, 9);
    expect(sent.at(-1)?.body).toMatchObject({ means: 'typed', quantity: 'massG', value: 327.4 });
  });

  it('keeps what cannot be read in its field, with a sentence, and sends nothing', async () => {
    const b = await bench();
    const before = sent.length;
    b.type('massG', 'abc');
    expect(await b.enter('massG')).toBe(false);
    expect(b.errorAt('massG')).toMatch(/not a number/);
    expect(b.typed.value.massG).toBe('abc');
    expect(sent).toHaveLength(before);
  });

  it('counts a reading at once where the server is away, and sends it under the same key again: it counts once', async () => {
    const b = await bench();
    b.type('massG', 327);
    instead = () => Promise.reject(new TypeError('away'));
    expect(await b.enter('massG')).toBe(true);
    expect([b.typed.value.massG, b.failure.value]).toEqual([null, '']);
    expect(b.specs.value.massG).toBe(327);
    expect(unsent.value.map(({ what }) => what)).toEqual([`${frameRecord.tag}: Weight 327.00 g`]);
    await sendWaiting();
    instead = undefined;
    await sendWaiting();
    await b.reload();
    expect(unsent.value).toEqual([]);
    const keys = sent.filter(({ path }) => path.endsWith('/readings')).map(({ body }) => body.key);
    expect(new Set(keys).size).toBe(1);
    expect(b.capture.value?.readings).toHaveLength(1);
  });

  it('sends one after the other, and shows no answer while a later one is on its way', async () => {
    const b = await bench();
    let late: ((r: Response) => void) | undefined;
    const old = json({ ...capture, dress: { overgrips: 1 } });
    instead = ({ path, method }) =>
      method === 'PUT' && path.endsWith('/capture') && !late
        ? new Promise((resolve) => (late = resolve))
        : undefined;
    const first = b.setDress({ overgrips: 1 });
    const second = b.setDress({ overgrips: 2 });
    await flushPromises();
    expect(sent.filter(({ method }) => method === 'PUT')).toHaveLength(1);
    const shown: unknown[] = [];
    const stop = watch(b.capture, (now) => shown.push(now?.dress), { flush: 'sync' });
    capture = { ...capture, dress: { overgrips: 2 } };
    late?.(old);
    await first;
    await second;
    stop();
    expect(sent.filter(({ method }) => method === 'PUT')).toHaveLength(2);
    expect(b.capture.value?.dress).toEqual({ overgrips: 2 });
    expect(shown).not.toContainEqual({ overgrips: 1 });
  });

  it('stores what the measurement is for and the round that it belongs to', async () => {
    const b = await bench();
    b.type('massG', 327);
    b.type('balanceCm', 32.2);
    b.type('swingWeight', 320);
    expect(await b.store({ purpose: 'trial', roundId: 'r1', step: null })).toBe(true);
    const stored = sent.find(({ path }) => path.endsWith('/store'));
    expect(stored?.body).toEqual({ captureId: 'c1', purpose: 'trial', roundId: 'r1', step: null });
  });
});
