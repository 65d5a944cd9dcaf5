<script setup lang="ts">
import { watch } from 'vue';
import FormDialog from '../../forms/FormDialog.vue';
import { useDraft } from '../../forms/draft';

/** A guard speaks against a step: it is gone past only with a reason, which stands with the aim. */
const props = defineProps<{ guard: string; act: (note: string, key: string) => Promise<unknown> }>();
const open = defineModel<boolean>({ required: true });
const draft = useDraft(() => ({ note: '' }));
const form = draft.value;
watch(open, (now) => now && draft.begin(`all the same ${props.guard}`, { note: '' }), { immediate: true });
</script>

<template>
  <FormDialog
    v-model="open"
    title="All the same?"
    store="Take it all the same"
    :submit="(key) => act(form.note, key)"
    :draft="draft"
  >
    <template #default="{ at }">
      <p class="warn mb-0">{{ guard }}</p>
      <v-text-field v-model="form.note" label="Why all the same" autofocus :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
