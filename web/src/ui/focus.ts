import { nextTick, type ObjectDirective } from 'vue';

/** How long something that is on its way is waited for. */
const PATIENCE = 3000;
let newest = 0;

/**
 * Moves the focus to something that stands or soon will: a heading after a change of page, a row that was just added. The last wish counts.
 * @param find where it is; what cannot take the focus by itself is made to
 */
export function focusSoon(find: () => HTMLElement | null | undefined): void {
  const own = ++newest;
  const from = performance.now();
  const look = (): void => {
    if (own !== newest) return;
    const there = find();
    if (there) {
      if (there.tabIndex < 0 && !there.hasAttribute('tabindex')) there.setAttribute('tabindex', '-1');
      there.focus();
    } else if (performance.now() - from < PATIENCE) requestAnimationFrame(look);
  };
  look();
}
/** The heading of the page. */
export const focusHeading = (): void => focusSoon(() => document.querySelector<HTMLElement>('main h1'));
/** The row of a record in a list: what in it is to be used, or the row itself. */
export const focusRow = (id: string): void =>
  focusSoon(() => {
    const row = document.querySelector<HTMLElement>(`[data-row="${CSS.escape(id)}"]`);
    return row?.querySelector<HTMLElement>('a, button') ?? row;
  });
/** Ends what is waited for: somebody went on. */
export const focusElsewhere = (): void => {
  newest++;
};
/** Goes to the first field with something wrong, also where it stands behind a line. @returns whether there is one */
export async function focusWrong(within: Element | null | undefined): Promise<boolean> {
  // Fields that nobody has opened yet are made, as they are when somebody opens them.
  for (const folded of within?.querySelectorAll('details') ?? []) folded.dispatchEvent(new Event('toggle'));
  await nextTick();
  const wrong = within?.querySelector<HTMLElement>('.v-input--error input');
  wrong?.closest('details')?.setAttribute('open', '');
  wrong?.focus();
  return wrong !== null && wrong !== undefined;
}

const CONTROL =
  'input, textarea, select, button, a[href], summary, [role=button], [role=radio], [tabindex="0"]';
/** For so many frames a page is still coming: a dialog that fades in takes no focus, a heading takes it late. */
const COMING = 30;

/**
 * Gives a field or a button the focus as soon as it is there. Whoever goes to another control meanwhile stays there: Vuetify's own `autofocus` comes late and takes
 * it from them, with what they are typing.
 * @example <v-text-field v-first label="Tag" />
 */
export const vFirst: ObjectDirective<HTMLElement, boolean | undefined> = {
  mounted(el, { value = true }) {
    const own = el.matches(CONTROL) ? el : el.querySelector<HTMLElement>('input, textarea');
    if (!value || !own) return;
    const before = document.activeElement;
    // Somebody types beside it.
    if (before?.matches('input, textarea') && own.closest('[role=dialog]')?.contains(before)) return;
    let frames = COMING;
    let had = false;
    const look = (): void => {
      const now = document.activeElement;
      const over = own.closest('.v-overlay');
      if (!own.isConnected || (over && !over.matches('.v-overlay--active'))) return;
      // Where it came from counts as another control once it has had the focus.
      if (now !== own && now?.matches(CONTROL) && (had || now !== before)) return;
      own.focus();
      had ||= document.activeElement === own;
      if (--frames > 0) requestAnimationFrame(look);
    };
    look();
  },
};
declare module 'vue' {
  interface GlobalDirectives {
    vFirst: typeof vFirst;
  }
}
