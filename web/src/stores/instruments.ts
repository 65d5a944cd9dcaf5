import { defineStore, storeToRefs } from 'pinia';
import { onScopeDispose, reactive, ref } from 'vue';
import { nanoid } from 'nanoid';
import type { Asked, Instrument, InstrumentMessage, OnStandIn } from '@kevro/contract';
import { api } from '../api/client';
import { useStream } from './stream';

type Taken = Extract<InstrumentMessage, { kind: 'taken' | 'failed' }>;

/** The instruments as they stand, kept up to date by the server's stream while a page listens. */
export const useInstruments = defineStore('instruments', () => {
  const all = ref<Instrument[]>();
  const shown = reactive(new Map<string, { value: number; steady: boolean; tared: boolean }>());
  const stream = useStream();
  const { connected } = storeToRefs(stream);
  const listeners = new Set<(taken: Taken) => void>();
  let stop: (() => void) | undefined;
  let users = 0;

  /** How often the stream said how all of them stand. */
  let heard = 0;

  function hear(message: InstrumentMessage): void {
    if (message.kind === 'instruments') {
      all.value = message.instruments;
      heard++;
    } else if (message.kind === 'sample') {
      const { instrumentId, value, steady, tared } = message;
      shown.set(instrumentId, { value, steady, tared });
    } else for (const listener of listeners) listener(message);
  }

  /** Listens as long as the component stands. */
  function listen(onTaken?: (taken: Taken) => void): void {
    if (onTaken) listeners.add(onTaken);
    if (users++ === 0) stop = stream.withInstruments(hear);
    onScopeDispose(() => {
      if (onTaken) listeners.delete(onTaken);
      if (--users === 0) stop?.();
    });
  }

  /** What a call answers counts where the stream has not said something newer meanwhile. */
  async function replace(asking: () => Promise<Instrument>): Promise<void> {
    const before = heard;
    const one = await asking();
    if (heard === before) all.value = all.value?.map((i) => (i.id === one.id ? one : i));
  }
  const take = (id: string, asked: Asked, key: string = nanoid()): Promise<void> =>
    replace(() => api('takeReading', { id, body: { key, asked } }));
  const cancel = (id: string): Promise<void> => replace(() => api('cancelReading', { id, body: {} }));
  const put = (id: string, on: OnStandIn | null): Promise<void> =>
    replace(() => api('standIn', { id, body: { on } }));
  const plug = (id: string, plugged: boolean): Promise<void> =>
    replace(() => api('standIn', { id, body: { plugged } }));

  return { all, shown, connected, listen, take, cancel, put, plug };
});
