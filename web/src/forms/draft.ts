import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { WAITING_PREFIX } from '../api/waiting';
import { deviceStorage } from '../ui/kept';
import { plainly, same } from '../ui/same';
import { openTabs, tabId } from '../ui/tab';

/** What is kept of a form: what it began with, and what stands in it now. */
interface Kept<T> {
  start: T;
  value: T;
}
const PREFIX = 'kevro-draft ';
const keyOf = (name: string, tab: string): string => `${PREFIX}${tab} ${name}`;

function read<T>(key: string): Kept<T> | undefined {
  try {
    const text = deviceStorage.getItem(key);
    return text === null ? undefined : (JSON.parse(text) as Kept<T>);
  } catch {
    return undefined;
  }
}

/** Words one after the other, with a space around each, so that a name is not found within another word; JSON's signs for new lines are none. */
const inWords = (text: string): string =>
  ` ${text
    .replace(/\\[nrt"]/g, ' ')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
/** Forgets every draft on this device, and everything that waits for the server, that has one of these in its name or its text: a person's name, and the ids of what they had. */
export function forgetDrafts(about: readonly string[]): void {
  const sought = about.map(inWords).filter((words) => words.trim() !== '');
  for (const key of deviceStorage
    .keys()
    .filter((one) => one.startsWith(PREFIX) || one.startsWith(WAITING_PREFIX))) {
    const text = inWords(`${key} ${deviceStorage.getItem(key) ?? ''}`);
    if (sought.some((words) => text.includes(words))) deviceStorage.removeItem(key);
  }
}

/**
 * What is typed into a form: kept on this device until it is stored, over a reload and over closing the form. It belongs to the tab it was
 * typed in, and to what it began with: where that has changed since, what is stored now is shown and the draft is offered beside it.
 * A draft whose tab is gone is taken over by the next tab that opens the form. Numbers in it have no unit (see `Typed`).
 */
export function useDraft<T extends object>(empty: () => T) {
  const value = ref(empty()) as Ref<T>;
  const start = shallowRef<T>(empty());
  /** Typed before what the form begins with was changed elsewhere. */
  const older = shallowRef<Kept<T>>();
  /** Whether what stands was typed before the form was opened now. */
  const resumed = ref(false);
  let name: string | undefined;

  const dirty = computed(() => !same(value.value, start.value));
  const ownKey = (): string => keyOf(name ?? '', tabId());

  function offer(kept: Kept<T> | undefined): void {
    if (!kept || same(kept.value, start.value)) return;
    if (same(kept.start, start.value)) {
      value.value = kept.value;
      resumed.value = true;
    } else older.value = kept;
  }
  /** Takes over what a tab typed that is gone. */
  async function inherit(opened: string): Promise<void> {
    const tabs = await openTabs();
    if (!tabs || name !== opened || dirty.value) return;
    for (const key of deviceStorage.keys()) {
      const [, tab = '', of] = /^kevro-draft (\S+) (.*)$/.exec(key) ?? [];
      if (of !== opened || tabs.has(tab)) continue;
      const kept = read<T>(key);
      deviceStorage.removeItem(key);
      if (kept) deviceStorage.setItem(ownKey(), JSON.stringify(kept));
      offer(kept);
      if (resumed.value || older.value) return;
    }
  }

  /** Opens the form: with what was typed before, where it still fits, else with what it begins with. @param of whose form it is */
  function begin(of: string, first: T): void {
    name = undefined;
    start.value = plainly(first);
    value.value = plainly(first);
    resumed.value = false;
    older.value = undefined;
    name = of;
    const own = read<T>(ownKey());
    if (own) offer(own);
    else void inherit(of);
  }
  /** What the form begins with has changed: where nothing is typed it follows, else it is told. */
  function restart(first: T): void {
    if (same(first, start.value)) return;
    const typed = dirty.value ? { start: start.value, value: value.value } : undefined;
    start.value = plainly(first);
    value.value = plainly(first);
    resumed.value = false;
    if (typed && !same(typed.value, first)) older.value = typed;
    // What the form began with came late: what was typed from it fits after all.
    else if (older.value && same(older.value.start, first)) {
      value.value = plainly(older.value.value);
      older.value = undefined;
      resumed.value = true;
    }
  }
  const afresh = (): void => {
    value.value = plainly(start.value);
    resumed.value = false;
  };
  const takeUp = (): void => {
    if (older.value) value.value = plainly(older.value.value);
    older.value = undefined;
  };
  const forgetOlder = (): void => {
    older.value = undefined;
    keep();
  };
  /** What stands is stored: from here on it is what the form begins with. */
  function stored(): void {
    start.value = plainly(value.value);
    resumed.value = false;
    older.value = undefined;
    keep();
  }
  function keep(): void {
    if (name === undefined) return;
    if (dirty.value)
      deviceStorage.setItem(ownKey(), JSON.stringify({ start: start.value, value: value.value }));
    else if (!older.value) deviceStorage.removeItem(ownKey());
  }
  watch(value, keep, { deep: true });

  return { value, start, dirty, older, resumed, begin, restart, afresh, takeUp, forgetOlder, stored };
}
export type Draft<T extends object> = ReturnType<typeof useDraft<T>>;
/** What a form says of its draft, whatever is in it. */
export type AnyDraft = Pick<
  Draft<object>,
  'dirty' | 'older' | 'resumed' | 'afresh' | 'takeUp' | 'forgetOlder' | 'stored'
>;
