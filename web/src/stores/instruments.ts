import { defineStore } from 'pinia';
import { onScopeDispose, reactive, ref } from 'vue';
import { nanoid } from 'nanoid';
import type { Asked, Instrument, InstrumentMessage, OnStandIn } from '@kevro/contract';
import { api } from '../api/client';

/** How long to wait before asking a server again that refused the stream, ms. */
const AGAIN_MS = 1000;

type Taken = Extract<InstrumentMessage, { kind: 'taken' | 'failed' }>;

/** The instruments as they stand, kept up to date by the server's stream while a page listens. */
export const useInstruments = defineStore('instruments', () => {
  const all = ref<Instrument[]>();
  const shown = reactive(new Map<string, { value: number; steady: boolean }>());
  /** Undefined until the stream has answered for the first time. */
  const connected = ref<boolean>();
  const listeners = new Set<(taken: Taken) => void>();
  let stream: EventSource | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  let users = 0;

  function hear(message: InstrumentMessage): void {
    if (message.kind === 'instruments') all.value = message.instruments;
    else if (message.kind === 'sample') {
      const { instrumentId, value, steady } = message;
      shown.set(instrumentId, { value, steady });
    } else for (const listener of listeners) listener(message);
  }

  /** The browser connects again by itself when a stream breaks, but not when it was refused, as by a server that is still starting. */
  function open(): void {
    const opened = new EventSource('/api/v1/instruments/stream');
    stream = opened;
    opened.onopen = () => {
      connected.value = true;
    };
    opened.onerror = () => {
      connected.value = false;
      if (opened.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS);
    };
    opened.onmessage = (event) => hear(JSON.parse(event.data as string) as InstrumentMessage);
  }

  /** Listens as long as the component stands. */
  function listen(onTaken?: (taken: Taken) => void): void {
    if (onTaken) listeners.add(onTaken);
    if (users++ === 0) open();
    onScopeDispose(() => {
      if (onTaken) listeners.delete(onTaken);
      if (--users > 0) return;
      clearTimeout(again);
      stream?.close();
      stream = undefined;
      connected.value = undefined;
    });
  }

  function replace(one: Instrument): void {
    all.value = all.value?.map((i) => (i.id === one.id ? one : i));
  }
  const take = async (id: string, asked: Asked, key: string = nanoid()): Promise<void> =>
    replace(await api('takeReading', { id, body: { key, asked } }));
  const cancel = async (id: string): Promise<void> => replace(await api('cancelReading', { id, body: {} }));
  const put = async (id: string, on: OnStandIn | null): Promise<void> =>
    replace(await api('standIn', { id, body: { on } }));
  const plug = async (id: string, plugged: boolean): Promise<void> =>
    replace(await api('standIn', { id, body: { plugged } }));

  return { all, shown, connected, listen, take, cancel, put, plug };
});
