import { onBeforeUnmount, onMounted } from 'vue';

/** What a key does; the key as `event.key`, with `Shift+` in front where Shift matters. What answers `false` leaves the key to
 * others that listen. */
export type KeyMap = Record<string, (event: KeyboardEvent) => unknown>;

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.closest(
      'input:not([type=checkbox]):not([type=radio]), textarea, select, [role=combobox], [role=listbox]',
    ) !== null);

/** Listens for keys while the component stands, but not while somebody types or a dialog is open. */
export function useKeys(map: KeyMap): void {
  const listen = (event: KeyboardEvent): void => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || typing(event.target))
      return;
    if (document.querySelector('.v-overlay--active[role=dialog], .v-dialog.v-overlay--active')) return;
    const name =
      event.shiftKey && event.key.length === 1 && /[a-z]/i.test(event.key)
        ? `Shift+${event.key.toLowerCase()}`
        : event.key;
    const act = map[name];
    if (!act) return;
    if (act(event) !== false) event.preventDefault();
  };
  onMounted(() => window.addEventListener('keydown', listen));
  onBeforeUnmount(() => window.removeEventListener('keydown', listen));
}
