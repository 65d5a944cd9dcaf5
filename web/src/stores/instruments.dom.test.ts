// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope } from 'vue';
import { useInstruments } from './instruments';

/** A stream as the platform has it (HTML Standard, "Server-sent events"): refused by its status it is closed for good; broken, it connects again by itself. */
class Stream {
  static readonly CONNECTING = 0;
  static readonly CLOSED = 2;
  static opened: Stream[] = [];
  readyState = Stream.CONNECTING;
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  constructor() {
    Stream.opened.push(this);
  }
  readonly heard = new Map<string, (event: { data: string }) => void>();
  addEventListener(type: string, listener: (event: { data: string }) => void): void {
    this.heard.set(type, listener);
  }
  close(): void {
    this.readyState = Stream.CLOSED;
  }
  refuse(): void {
    this.close();
    this.onerror?.();
  }
  break(): void {
    this.onerror?.();
  }
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', Stream);
  Stream.opened = [];
  setActivePinia(createPinia());
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const opened = (): Stream => Stream.opened.at(-1) as Stream;

describe('the stream of the instruments', () => {
  it('is asked for again when a server that is still starting refused it', () => {
    const instruments = useInstruments();
    const scope = effectScope();
    scope.run(() => instruments.listen());
    opened().refuse();
    expect(instruments.connected).toBe(false);
    vi.advanceTimersByTime(5000);
    expect(Stream.opened).toHaveLength(2);
    opened().onopen?.();
    expect(instruments.connected).toBe(true);
    scope.stop();
  });

  it('is left to the browser when it broke, and to nobody when nothing listens any more', () => {
    const instruments = useInstruments();
    const scope = effectScope();
    scope.run(() => instruments.listen());
    opened().break();
    vi.advanceTimersByTime(60_000);
    expect(Stream.opened).toHaveLength(1);
    opened().refuse();
    scope.stop();
    vi.advanceTimersByTime(60_000);
    expect(Stream.opened).toHaveLength(1);
    expect(instruments.connected).toBeUndefined();
  });
});
