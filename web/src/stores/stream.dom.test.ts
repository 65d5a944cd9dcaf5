// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope } from 'vue';
import { onChanged, type Changed } from '../ui/changes';
import { tabId } from '../ui/tab';
import { useStream } from './stream';

class Stream {
  static readonly CLOSED = 2;
  static opened: Stream[] = [];
  readyState = 0;
  onopen?: () => void;
  onerror?: () => void;
  heard?: (event: { data: string }) => void;
  constructor(readonly url: string) {
    Stream.opened.push(this);
  }
  addEventListener(_: string, listener: (event: { data: string }) => void): void {
    this.heard = listener;
  }
  close(): void {
    this.readyState = Stream.CLOSED;
  }
  say(change: object): void {
    this.heard?.({ data: JSON.stringify(change) });
  }
}
const opened = (): Stream => Stream.opened.at(-1) as Stream;
const heard: (Changed | undefined)[] = [];
const scope = effectScope();

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', Stream);
  Stream.opened = [];
  heard.length = 0;
  setActivePinia(createPinia());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const wait = (ms: number): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

describe('the stream of a page', () => {
  it('tells what was stored elsewhere, together once, and not what this page stored itself', async () => {
    scope.run(() => onChanged((change) => heard.push(change), ['part', 'shop']));
    useStream().keepUp();
    opened().onopen?.();
    opened().say({ kind: 'part', id: 'a', page: tabId() });
    opened().say({ kind: 'fitting', id: 'f', page: 'other' });
    await wait(2000);
    expect(heard).toEqual([]);
    opened().say({ kind: 'part', id: 'a', page: 'other' });
    opened().say({ kind: 'part', id: 'b', page: 'other' });
    await wait(2000);
    expect(heard).toEqual([{ kind: 'part', id: 'b' }]);
  });

  it('is one: with instruments while something listens to them, and again without', () => {
    const stream = useStream();
    stream.keepUp();
    const end = stream.withInstruments(() => undefined);
    expect(Stream.opened.map(({ url }) => url)).toEqual(['/api/v1/stream', '/api/v1/stream?instruments=yes']);
    end();
    expect(Stream.opened.filter(({ readyState }) => readyState !== Stream.CLOSED)).toHaveLength(1);
    expect(opened().url).toBe('/api/v1/stream');
  });

  it('that cannot be had is asked for again, and pages are read anew meanwhile and once it is back', async () => {
    useStream().keepUp();
    opened().close();
    opened().onerror?.();
    await wait(4500);
    expect(heard.length).toBeGreaterThan(0);
    expect(heard.every((change) => change === undefined)).toBe(true);
    expect(Stream.opened.length).toBeGreaterThan(1);
    heard.length = 0;
    opened().onopen?.();
    await wait(10_000);
    expect(heard).toEqual([undefined]);
  });
});
