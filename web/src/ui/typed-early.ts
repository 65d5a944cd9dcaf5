import { useEventListener } from '@vueuse/core';

/** A field that has not come by then does not come. */
const LONGEST_MS = 3000;

let kept = '';
let stop = (): void => undefined;

/** Keeps what is typed for a field that is still on its way: meanwhile no other field gets it, and no shortcut. */
export function keepTyped(): void {
  takeTyped();
  const unheard = useEventListener(
    window,
    'keydown',
    (event) => {
      if (event.key === 'Escape') return void takeTyped();
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Backspace') kept = kept.slice(0, -1);
      else if (event.key.length === 1) kept += event.key;
      else if (event.key !== 'Enter') return;
      event.preventDefault();
      event.stopImmediatePropagation();
    },
    { capture: true },
  );
  const timer = setTimeout(takeTyped, LONGEST_MS);
  stop = () => {
    clearTimeout(timer);
    unheard();
  };
}

/** What was typed for the field that is there now. From then on it hears its keys itself. */
export function takeTyped(): string {
  stop();
  stop = () => undefined;
  const typed = kept;
  kept = '';
  return typed;
}
