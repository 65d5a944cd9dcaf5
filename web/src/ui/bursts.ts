import { useEventListener } from '@vueuse/core';
import { onScopeDispose } from 'vue';
import { useKept } from './kept';

/** Whether fast typing counts as a scale or a scanner. */
export const useTypingDevices = () => useKept('kevro-typing-devices', true);

/** A device sends its keys faster than fingers do: gap between two, ms; and to the Enter at the end. */
const FAST_MS = 35;
const ENTER_MS = 80;
/** So few keys may come together by chance. */
const LEAST = 3;
/** How long a key outside of a field waits for the next before it is a person's, ms. */
const HOLD_MS = 45;
/** On a busy page keys come late, and the next ones later still: the wait grows with that, up to this. */
const LONGEST_HOLD_MS = 600;

/** Takes what a device typed. @returns whether it was taken */
export type TakeBurst = (text: string) => boolean;
const takers: TakeBurst[] = [];

/** Takes what a device types while the component is there; the component that came last is asked first. */
export function useBurst(take: TakeBurst): void {
  takers.push(take);
  onScopeDispose(() => takers.splice(takers.indexOf(take), 1));
}
const isTaken = (text: string): boolean => takers.toReversed().some((take) => take(text));

/** Whether it is a number, maybe with its sign and unit, as a scale types one. @example isNumber('+ 312.4 g') // true */
export const isNumber = (text: string): boolean => /^[+-]?\s*\d[\d.,]*\s*[a-z]{0,6}$/i.test(text);

/** The tag of a frame, or the id of a part, in what was scanned: of a label's picture the address holds it. @example tagIn('http://10.0.0.5:4780/tag/BD-040') // 'BD-040' */
export function tagIn(text: string): string {
  const tag = /^https?:\/\/[^/]+\/(?:tag\/|stock\?part=)([^/?#&]+)/i.exec(text)?.[1];
  if (tag === undefined) return text;
  try {
    return decodeURIComponent(tag);
  } catch {
    return tag;
  }
}

type Field = HTMLInputElement | HTMLTextAreaElement;
const TEXTLESS = new Set(['checkbox', 'radio', 'button', 'submit', 'range', 'color', 'file']);
/** The field that keys would be typed into. A list to choose from looks like one and is none. */
function fieldOf(target: EventTarget | null): Field | undefined {
  if (target instanceof HTMLTextAreaElement) return target;
  if (!(target instanceof HTMLInputElement) || TEXTLESS.has(target.type) || target.readOnly) return undefined;
  return target.closest('.v-select') ? undefined : target;
}

/** Puts a field back to what it held, as if nothing had been typed. */
function putBack({ field, value, at }: { field: Field; value: string; at: number | null }): void {
  if (field.value === value) return;
  const proto =
    field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  if (at !== null) field.setSelectionRange(at, at);
}

/**
 * Tells devices from people, for the whole page: a quick burst of keys that ends with Enter goes to what takes it, wherever the focus is, and never into a
 * field that somebody types in. Into a field that is still empty it is typed as it comes: somebody pointed at it.
 * @param otherwise takes what nothing on the page does
 */
export function watchBursts(otherwise: TakeBurst): void {
  const on = useTypingDevices();
  let keys: KeyboardEvent[] = [];
  let before: { field: Field; value: string; at: number | null } | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const replayed = new WeakSet<Event>();

  const forget = (): void => {
    clearTimeout(timer);
    keys = [];
    before = undefined;
  };
  /** They were a person's after all: what was held back is let through. */
  const letThrough = (): void => {
    const held = before ? [] : keys;
    forget();
    for (const key of held) {
      const again = new KeyboardEvent('keydown', key);
      replayed.add(again);
      key.target?.dispatchEvent(again);
    }
  };
  const take = (text: string): boolean => {
    // Into an empty field it goes as it comes; but no tag into a field for numbers, and a form that asks for one takes it itself.
    const fits = before?.value === '' && (before.field.inputMode !== 'decimal' || isNumber(text));
    if (fits) return !isNumber(text) && isTaken(text);
    return isTaken(text) || otherwise(text);
  };

  useEventListener(
    window,
    'keydown',
    (event) => {
      if (replayed.has(event) || event.isComposing || !on.value) return;
      if (['Shift', 'CapsLock', 'AltGraph', 'NumLock'].includes(event.key)) return;
      const last = keys.at(-1);
      const gap = last ? event.timeStamp - last.timeStamp : Infinity;
      const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
      if (event.key === 'Enter' && plain && keys.length >= LEAST && gap <= ENTER_MS) {
        const typed = keys.map(({ key }) => key).join('');
        const was = before;
        if (take(typed.trim())) {
          event.preventDefault();
          event.stopImmediatePropagation();
          forget();
          if (was) putBack(was);
        } else {
          // A device sends no form off.
          if (was && was.field.form) event.preventDefault();
          letThrough();
        }
        return;
      }
      if (event.key.length !== 1 || !plain) return letThrough();
      if (last && (gap > FAST_MS || last.target !== event.target)) letThrough();
      if (keys.length === 0) {
        // A blank presses buttons and scrolls; no device begins with one.
        if (event.key === ' ') return;
        const field = fieldOf(event.target);
        before = field && { field, value: field.value, at: field.selectionStart };
      }
      keys.push(event);
      if (before) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      clearTimeout(timer);
      const late = Math.max(0, performance.now() - event.timeStamp);
      timer = setTimeout(letThrough, Math.min(LONGEST_HOLD_MS, HOLD_MS + 3 * late));
    },
    { capture: true },
  );
}
