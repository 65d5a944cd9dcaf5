import { onBeforeUnmount, onMounted } from 'vue';
import { useKept } from './kept';

/** What a key does; the key as `event.key`, with `Shift+` or `Ctrl+` in front where they matter. What answers `false` leaves the key to
 * others that listen. */
export type KeyMap = Record<string, (event: KeyboardEvent) => unknown>;

/** Whether single keys do something: who speaks to the page or rests a hand on the keyboard can switch them off. */
export const useShortcuts = () => useKept('kevro-shortcuts', true);

const closest = (target: EventTarget | null, selector: string): boolean =>
  target instanceof Element && target.closest(selector) !== null;
const typing = (target: EventTarget | null): boolean =>
  (target instanceof HTMLElement && target.isContentEditable) ||
  closest(
    target,
    'input:not([type=checkbox]):not([type=radio]), textarea, select, [role=combobox], [role=listbox]',
  );

/** Keys that a control which has the focus uses itself: no shortcut takes them from it. */
const OWN: [keys: ReadonlySet<string>, of: string][] = [
  [
    new Set([' ', 'Enter']),
    'button, a, summary, input, [role=button], [role=radio], [role=checkbox], [role=switch], [role=tab]',
  ],
  [
    new Set(['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight']),
    'input:not([type=checkbox]), [role=radio], [role=slider], [role=tab], [role=menu]',
  ],
];

/** Whether a form or a sheet lies over the page. */
export const isDialogOpen = (): boolean => document.querySelector('.v-overlay--active[role=dialog]') !== null;

function nameOf(event: KeyboardEvent): string {
  const letter = event.key.length === 1 && /[a-z]/i.test(event.key);
  const key = letter ? event.key.toLowerCase() : event.key;
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey && letter ? 'Shift+' : ''}${key}`;
}

const EVERYWHERE: ReadonlySet<string> = new Set(['Ctrl+Enter', 'Ctrl+k']);

/** Listens for keys while the component stands, but not while somebody types or a dialog is open. */
export function useKeys(map: KeyMap): void {
  const on = useShortcuts();
  const listen = (event: KeyboardEvent): void => {
    if (event.defaultPrevented || event.altKey) return;
    if (isDialogOpen()) return;
    const name = nameOf(event);
    const act = map[name];
    if (!act) return;
    // The main action and the search may be called for from within a field; nothing else may.
    if (!EVERYWHERE.has(name) && typing(event.target)) return;
    if (OWN.some(([keys, of]) => keys.has(name) && closest(event.target, of))) return;
    if (name.length === 1 && !on.value) return;
    if (act(event) !== false) event.preventDefault();
  };
  onMounted(() => window.addEventListener('keydown', listen));
  onBeforeUnmount(() => window.removeEventListener('keydown', listen));
}

/**
 * Arrows up and down go along a list; from elsewhere they enter it.
 * @param items what they go along @param enterAt where they enter, if there is such a one; else at the first
 */
export function useArrowsAlong(items: string, enterAt = items): void {
  const go = (by: 1 | -1) => (): boolean => {
    const all = [...document.querySelectorAll<HTMLElement>(items)];
    const at = all.indexOf(document.activeElement as HTMLElement);
    const next = at < 0 ? (document.querySelector<HTMLElement>(enterAt) ?? all[0]) : all[at + by];
    next?.focus();
    return next !== undefined;
  };
  useKeys({ ArrowDown: go(1), ArrowUp: go(-1) });
}
