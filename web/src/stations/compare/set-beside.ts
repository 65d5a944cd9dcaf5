import { computed, ref } from 'vue';
import type { BesideKey, FittingView } from '@kevro/contract';
import { api } from '../../api/client';
import { besideId, keyOf } from '../../stores/beside';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';

/** So many stand beside the frame at once: more could not be told apart on the rail. */
export const MOST_BESIDE = 4;

/** What stands beside the frame of the open fitting, setups and others, and how that is changed. */
export function useSetBeside() {
  const fitting = useFitting();
  const saved = useSaved();
  /** Said where no more finds room: none goes without a word. */
  const full = ref('');
  const others = computed(() =>
    (fitting.view?.beside ?? []).map((one) => ({ id: besideId(one), key: keyOf(one) })),
  );
  const ids = computed(() => [...fitting.references, ...others.value.map(({ id }) => id)]);

  function room(): boolean {
    full.value =
      ids.value.length < MOST_BESIDE
        ? ''
        : `${MOST_BESIDE} are set beside it already. Take one of them away first.`;
    return full.value === '';
  }

  /** The choices are sent one after the other; only the answer to the newest is shown. */
  let sending: Promise<unknown> = Promise.resolve();
  let newest = 0;
  async function send(
    shown: FittingView,
    before: FittingView,
    call: () => Promise<FittingView>,
  ): Promise<void> {
    // Shown at once, so that a second click counts from it.
    fitting.view = shown;
    const own = ++newest;
    const sent = sending.then(call);
    sending = sent.catch(() => undefined);
    try {
      const answer = await sent;
      if (own === newest) await fitting.stored(answer);
      else saved.stored();
    } catch (error) {
      // What was not stored is not shown as if it were.
      const { references, beside } = before;
      if (own === newest && fitting.view) fitting.view = { ...fitting.view, references, beside };
      saved.failed(error);
    }
  }

  /** Sets a setup beside the frame, or takes it away. */
  async function toggleSetup(id: string): Promise<void> {
    const { view } = fitting;
    if (!view) return;
    full.value = '';
    const there = view.references.includes(id);
    if (!there && !room()) return;
    const body = there ? view.references.filter((r) => r !== id) : [...view.references, id];
    await send({ ...view, references: body }, view, () => api('setReferences', { id: view.id, body }));
  }
  async function sendOthers(view: FittingView, body: BesideKey[]): Promise<void> {
    // Of what comes only the server knows the numbers; what goes, goes at once.
    const keys = body.map(besideId);
    const beside = view.beside.filter((one) => keys.includes(besideId(one)));
    await send({ ...view, beside }, view, () => api('setBeside', { id: view.id, body }));
  }
  async function add(key: BesideKey): Promise<void> {
    const { view } = fitting;
    if (!view || others.value.some(({ id }) => id === besideId(key)) || !room()) return;
    await sendOthers(view, [...others.value.map((o) => o.key), key]);
  }
  async function takeAway(id: string): Promise<void> {
    const { view } = fitting;
    full.value = '';
    if (view)
      await sendOthers(
        view,
        others.value.filter((o) => o.id !== id).map((o) => o.key),
      );
  }
  /** By the id that it has in the page, whatever it is. */
  const toggle = (id: string): Promise<void> =>
    others.value.some((o) => o.id === id) ? takeAway(id) : toggleSetup(id);

  return { ids, full, add, toggle };
}
