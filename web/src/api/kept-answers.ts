import { clear, createStore, delMany, entries, get, set, type UseStore } from 'idb-keyval';
import { shallowRef } from 'vue';
import type { CallName } from '@kevro/contract';

/** What a fitter has open at the bench: enough to go on with while the server is away, and nobody's list. */
const KEPT: ReadonlySet<CallName> = new Set<CallName>([
  'access',
  'shop',
  'parts',
  'guides',
  'instruments',
  'today',
  'fitting',
  'frame',
  'capture',
]);
export const isKept = (name: CallName): boolean => KEPT.has(name);

/** Longer than a working day nothing of a player stays on a device that only shows it. */
const LONGEST_MS = 12 * 3_600_000;
/** How many answers are kept: the latest. */
const MOST = 60;

interface Kept {
  at: number;
  answer: unknown;
}
let store: UseStore | undefined;
/** Undefined where the browser keeps nothing, as some settings have it. */
function theStore(): UseStore | undefined {
  try {
    return (store ??= createStore('kevro', 'answers'));
  } catch {
    return undefined;
  }
}
/** What it does with the store is no more than a help: that it fails is no news. */
async function quietly<T>(work: (store: UseStore) => Promise<T>): Promise<T | undefined> {
  const own = theStore();
  try {
    return own && (await work(own));
  } catch {
    return undefined;
  }
}

/** When what is shown was read, while the server is away: the oldest of it. */
export const shownAsOf = shallowRef<string>();
/** The server answered: what is shown is as it stands. */
export const serverAnswers = (): void => {
  shownAsOf.value = undefined;
};

/** Takes out what is too old and what is too much. */
const tidy = (now: number): Promise<unknown> =>
  quietly(async (own) => {
    const all = (await entries<string, Kept>(own)).toSorted(([, a], [, b]) => b.at - a.at);
    await delMany(
      all.filter(([, { at }], i) => i >= MOST || now - at > LONGEST_MS).map(([url]) => url),
      own,
    );
  });

let puts = 0;
/** Keeps an answer for when the server is away. */
export async function keepAnswer(url: string, answer: unknown): Promise<void> {
  const now = Date.now();
  await quietly((own) => set(url, { at: now, answer } satisfies Kept, own));
  if (++puts % MOST === 1) await tidy(now);
}
/** What the server answered last, if that is not too long ago. */
export async function keptAnswer(url: string): Promise<unknown> {
  const kept = await quietly((own) => get<Kept>(url, own));
  if (!kept || Date.now() - kept.at > LONGEST_MS) return undefined;
  const at = new Date(kept.at).toISOString();
  if (!shownAsOf.value || at < shownAsOf.value) shownAsOf.value = at;
  return kept.answer;
}
/** Forgets all of it: this device was signed out, or somebody was erased. */
export async function forgetAnswers(): Promise<void> {
  await quietly((own) => clear(own));
}
