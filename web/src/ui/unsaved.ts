import { useEventListener } from '@vueuse/core';
import { reactive, type Ref } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';

/** Asks before work that is not stored is left. The draft itself is kept in any case. */
export function useUnsaved(dirty: Ref<boolean>) {
  const question = reactive<{ open: boolean; answer: (leave: boolean) => void }>({
    open: false,
    answer: () => undefined,
  });
  useEventListener(window, 'beforeunload', (event) => {
    if (dirty.value) event.preventDefault();
  });
  onBeforeRouteLeave(async () => {
    if (!dirty.value) return true;
    question.open = true;
    const leave = await new Promise<boolean>((resolve) => {
      question.answer = resolve;
    });
    question.open = false;
    return leave;
  });
  return question;
}
