<script setup lang="ts">
import { watch } from 'vue';
import FormDialog from '../../forms/FormDialog.vue';
import { useDraft } from '../../forms/draft';

/** A guard speaks against a step: it is overridden only with a reason, which is kept with the aim. */
const props = defineProps<{ guard: string; act: (note: string, key: string) => Promise<unknown> }>();
const open = defineModel<boolean>({ required: true });
const draft = useDraft(() => ({ note: '' }));
const form = draft.value;
watch(open, (now) => now && draft.begin(`override ${props.guard}`, { note: '' }), { immediate: true });
</script>

<template>
  <FormDialog
    v-model="open"
    title="Override the warning?"
    store="Override"
    :submit="(key) => act(form.note, key)"
    :draft="draft"
  >
    <template #default="{ at }">
      <p class="warn mb-0">{{ guard }}</p>
      <v-text-field v-model="form.note" v-first label="Reason to override" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
