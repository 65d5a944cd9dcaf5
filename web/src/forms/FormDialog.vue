<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ref, watch } from 'vue';
import { Refused } from '../api/client';
import { useActKey } from './act-key';
import type { AnyDraft } from './draft';
import DraftNotice from './DraftNotice.vue';
import { focusWrong } from '../ui/focus';
import Sheet from '../ui/Sheet.vue';

/**
 * A form over the page: sends it, shows what is refused beside each field, and closes when it is stored. What is typed is kept as a draft
 * when it is closed in any other way; what may not be kept is asked about.
 */
const {
  submit,
  store: storeLabel = 'Add',
  width = 560,
  draft = undefined,
  asks = '',
} = defineProps<{
  title: string;
  /** Sends the form, under the key that was made when it opened. */
  submit: (key: string) => Promise<unknown>;
  store?: string;
  width?: number;
  draft?: AnyDraft;
  /** What would be lost by closing; nothing where a draft keeps it all. */
  asks?: string;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ stored: [result: unknown] }>();
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);
const asking = ref(false);
const form = ref<HTMLFormElement>();

const formKey = useActKey();
watch(open, () => {
  formKey.renew();
  refused.value = undefined;
  failure.value = '';
  asking.value = false;
});
useEventListener(window, 'beforeunload', (event) => {
  if (open.value && asks) event.preventDefault();
});
// From wherever the focus is while the form lies open: a dialog that has just opened has it on itself.
useEventListener(window, 'keydown', (event) => {
  if (!open.value || event.defaultPrevented || event.key !== 'Enter') return;
  if (!event.ctrlKey && !event.metaKey) return;
  event.preventDefault();
  void send();
});
function close(): void {
  if (asks) asking.value = true;
  else open.value = false;
}

/** The sentence for a field, as an array for Vuetify's fields. */
const at = (path: string): string[] => {
  const sentence = refused.value?.at(path);
  return sentence ? [sentence] : [];
};
/** The sentence for a number field. */
const said = (path: string): string | undefined => refused.value?.at(path);

async function send(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    const result = await formKey.once(submit);
    draft?.stored();
    open.value = false;
    emit('stored', result);
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) {
      refused.value = error;
      // Where the sentence has no field of its own on the form it is said below all of them.
      if (!(await focusWrong(form.value)))
        failure.value = error.errors.map(({ message }) => message).join(' ');
    } else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
defineExpose({ send });
</script>

<template>
  <Sheet
    v-model="open"
    :title="title"
    :width="width"
    :persistent="Boolean(asks)"
    @refused-to-close="asking = true"
  >
    <form ref="form" class="form" novalidate @submit.prevent="send">
      <DraftNotice v-if="draft" :draft="draft" />
      <slot :at="at" :said="said" />
      <p v-if="failure" class="miss mb-0" role="alert">{{ failure }}</p>
      <slot name="asked" />
      <p v-if="asking && asks" class="warn mb-0" role="alert">
        {{ asks }}
        <v-btn variant="outlined" class="ml-2" @click="open = false">Close anyway</v-btn>
      </p>
      <div class="buttons">
        <v-btn variant="text" @click="close">Close</v-btn>
        <v-btn type="submit" color="primary" :loading="busy">{{ storeLabel }}</v-btn>
      </div>
    </form>
  </Sheet>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
.form :deep(.two),
.form :deep(.three) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.form :deep(.three) {
  grid-template-columns: repeat(3, 1fr);
}
@media (max-width: 600px) {
  .form :deep(.two),
  .form :deep(.three) {
    grid-template-columns: 1fr;
  }
}
</style>
