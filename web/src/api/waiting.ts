import { useEventListener, useTimeoutPoll } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import type { AnswerOf, BodyOf, ErrorCode } from '@kevro/contract';
import { Refused, api, isAway } from './client';
import { tellChanged } from '../ui/changes';
import { deviceStorage } from '../ui/kept';

/** What a fitter goes on with while the server is away: it is kept on this device and sent once the server is back. */
export type WaitingCall = 'addReading' | 'setAside' | 'setDress' | 'markStep' | 'addSession' | 'noteByLink';

interface Entry<N extends WaitingCall> {
  /** Its place in the order in which things were done. */
  n: string;
  name: N;
  id: string;
  body: BodyOf<N>;
  /** As it is said to the fitter. */
  what: string;
  doneAt: string;
  /** Why the server would not take it, once it said so: the fitter settles that. */
  refused?: { code: ErrorCode; message: string };
}
export type Waiting = { [N in WaitingCall]: Entry<N> }[WaitingCall];

/** Each stands under a key of its own, so that two tabs never write over each other. */
export const WAITING_PREFIX = 'kevro-waiting ';
const keyOf = ({ n }: Pick<Waiting, 'n'>): string => WAITING_PREFIX + n;

function read(): Waiting[] {
  return deviceStorage
    .keys()
    .filter((key) => key.startsWith(WAITING_PREFIX))
    .sort()
    .flatMap((key) => {
      try {
        return [JSON.parse(deviceStorage.getItem(key) ?? '') as Waiting];
      } catch {
        return [];
      }
    });
}
const all = shallowRef<readonly Waiting[]>(read());
const look = (): void => {
  all.value = read();
};
function put(one: Waiting): void {
  deviceStorage.setItem(keyOf(one), JSON.stringify(one));
  look();
}
function drop(one: Waiting): void {
  deviceStorage.removeItem(keyOf(one));
  look();
}

let count = 0;
/** Of two that come in the same millisecond the later one sorts later. */
const nextPlace = (): string => `${String(Date.now()).padStart(15, '0')}-${String(++count).padStart(6, '0')}`;

/** One tab of this device sends at a time, so that the order is kept; where the browser has no locks, what is sent twice is stored once. */
async function alone(work: () => Promise<void>): Promise<void> {
  const { locks } = navigator as { locks?: LockManager };
  if (locks) await locks.request('kevro-waiting', work);
  else await work();
}

/** Sent a moment ago: shown until the page has read what the server made of it, so that nothing goes out and comes back. */
const lately = shallowRef<readonly Waiting[]>([]);
const LATELY_MS = 1500;
function sentNow(one: Waiting): void {
  lately.value = [...lately.value, one];
  setTimeout(() => (lately.value = lately.value.filter((other) => other !== one)), LATELY_MS);
  drop(one);
}

async function sendAll(): Promise<void> {
  let sent = false;
  for (;;) {
    look();
    const next = all.value.find(({ refused }) => !refused);
    if (!next) break;
    const { name, id, body, doneAt } = next;
    const ago = Math.max(0, (Date.now() - Date.parse(doneAt)) / 1000);
    try {
      await (api as Sender)(name, { id, body, ago });
      sent = true;
      sentNow(next);
    } catch (error) {
      if (!(error instanceof Refused) || isAway(error)) break;
      put({ ...next, refused: { code: error.code, message: error.errors[0]?.message ?? error.message } });
    }
  }
  // Everything that is shown is read anew: what was sent is among it now.
  if (sent) tellChanged(undefined);
}
type Sender = (
  name: WaitingCall,
  input: { id: string; body: Waiting['body']; ago: number },
) => Promise<unknown>;

let sending: Promise<void> | undefined;
/** Sends what waits, in the order in which it was done, as far as the server takes it. */
export const sendWaiting = (): Promise<void> =>
  (sending ??= alone(sendAll).finally(() => (sending = undefined)));

/**
 * Sends something; where the server is away it is kept on this device and sent later. What came before it goes first.
 * @param what as it is said to the fitter while it waits
 * @returns what the server answered, or undefined where it waits
 * @throws Refused where the server answered and would not take it
 */
export async function sendOrKeep<N extends WaitingCall>(
  name: N,
  { id, body, what }: { id: string; body: BodyOf<N>; what: string },
): Promise<AnswerOf<N> | undefined> {
  await sending;
  if (!all.value.some(({ refused }) => !refused))
    try {
      return await (
        api as unknown as (name: N, input: { id: string; body: BodyOf<N> }) => Promise<AnswerOf<N>>
      )(name, { id, body });
    } catch (error) {
      if (!isAway(error)) throw error;
    }
  put({ n: nextPlace(), name, id, body, what, doneAt: new Date().toISOString() } as Waiting);
  void sendWaiting();
  return undefined;
}

/** How often it is tried again, ms. */
const AGAIN_MS = 3000;
/** Sends what waits as soon as the server is back, as long as the page stands. */
export function keepSending(): void {
  useEventListener(window, 'storage', look);
  useEventListener(window, 'online', () => void sendWaiting());
  useTimeoutPoll(() => (unsent.value.length > 0 ? sendWaiting() : undefined), AGAIN_MS, { immediate: true });
}

/** What waits for the server, in the order in which it was done. */
export const unsent = computed(() => all.value.filter(({ refused }) => !refused));
/** What the server would not take. */
export const refused = computed(() => all.value.filter((one) => one.refused));
/** What waits of one record, of one kind of act, as far as the server may still take it. */
export const waitingFor = <N extends WaitingCall>(name: N, id: string): Entry<N>[] =>
  [...lately.value, ...unsent.value].filter(
    (one) => one.name === name && one.id === id,
  ) as unknown as Entry<N>[];

/** What somebody else did meanwhile is known to the fitter now: it is sent as if it had been done after that. */
export function sendAnyway(one: Waiting): Promise<void> {
  const { refused: _, ...again } = one;
  const { captureId: __, seen: ___, ...body } = one.body as { captureId?: string; seen?: string };
  put({ ...again, body } as Waiting);
  return sendWaiting();
}
export const leaveOut = drop;
