<script setup lang="ts">
import { nextTick, ref, watch } from 'vue';
import { Refused } from '../api/client';

/** A form for one new record: sends it, shows what the server refuses beside each field, and closes when it is stored. */
const {
  submit,
  store: storeLabel = 'Add',
  width = 560,
} = defineProps<{ title: string; submit: () => Promise<unknown>; store?: string; width?: number }>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ stored: [] }>();
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);
const form = ref<HTMLFormElement>();

watch(open, () => {
  refused.value = undefined;
  failure.value = '';
});

/** The sentence for a field, as an array for Vuetify's fields. */
const at = (path: string): string[] => {
  const sentence = refused.value?.at(path);
  return sentence ? [sentence] : [];
};

async function send(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  refused.value = undefined;
  failure.value = '';
  try {
    await submit();
    open.value = false;
    emit('stored');
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) {
      refused.value = error;
      await nextTick();
      form.value?.querySelector<HTMLElement>('.v-input--error input')?.focus();
    } else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <v-dialog v-model="open" :max-width="width" scrollable>
    <v-card>
      <form ref="form" class="form" novalidate @submit.prevent="send">
        <h2 class="text-h6">{{ title }}</h2>
        <slot :at="at" />
        <p v-if="failure" class="miss mb-0" role="alert">{{ failure }}</p>
        <div class="d-flex ga-2">
          <v-spacer />
          <v-btn variant="text" @click="open = false">Cancel</v-btn>
          <v-btn type="submit" color="primary" :loading="busy">{{ storeLabel }}</v-btn>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 20px;
  overflow-y: auto;
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
</style>
