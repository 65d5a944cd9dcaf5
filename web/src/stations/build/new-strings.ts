import { nextTick, ref, type Ref } from 'vue';
import type { BenchStep } from '@kevro/core';
import type { Stringing } from '@kevro/contract';
import { api } from '../../api/client';
import { useFitting } from '../../stores/fitting';

/**
 * New strings noted in the log of the frame that is built, from its bench.
 * @param form where they are typed @param done marks the step that they belong to
 */
export function useNewStrings(form: Ref<{ show: () => void } | null>, done: (step: BenchStep) => void) {
  const fitting = useFitting();
  /** What was in before: new strings are often the same again. */
  const last = ref<Stringing>();
  let of: BenchStep | undefined;

  async function noteStrings(step?: BenchStep): Promise<void> {
    of = step;
    const id = fitting.record?.id;
    // Without what was in before the form is empty, which is no reason to keep it shut.
    const page = id === undefined ? undefined : await api('frame', { id }).catch(() => undefined);
    // Another frame was opened meanwhile: these strings are not its own.
    if (id !== fitting.record?.id || of !== step) return;
    last.value = page?.stringings.find(({ retired }) => !retired);
    await nextTick();
    form.value?.show();
  }
  function stringsNoted(): void {
    if (of) done(of);
  }
  return { last, noteStrings, stringsNoted };
}
