<script setup lang="ts">
import { computed, ref } from 'vue';
import type { FramePage, Stringing } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { sent, type Typed } from '../ui/typed';
import { dayWords, shopToday } from '../words/days';
import { dueWords, leftWords, stringWords, useWords } from '../words/strings';

/** The strings that are in now: how long, what is left of their tension, whether they are due; and a tension that was measured. */
const props = defineProps<{ page: FramePage }>();
const emit = defineEmits<{ stored: []; restring: []; correct: [stringing: Stringing] }>();
const bed = computed(() => props.page.bed);
const left = computed(() => (bed.value ? leftWords(bed.value) : ''));
const due = computed(() => (bed.value ? dueWords(bed.value) : ''));

const open = ref(false);
const draft = useDraft(() => ({ on: shopToday(), kg: null as Typed, with: '' }));
const form = draft.value;
function show(): void {
  const last = bed.value?.stringing.readings.at(-1);
  draft.begin(`tension of ${props.page.frame.id}`, { on: shopToday(), kg: null, with: last?.with ?? '' });
  open.value = true;
}
/** The strings as they are, with one tension more, in the order of their days. */
function submit(): Promise<unknown> {
  const { id, retired: _, readings, ...rest } = bed.value?.stringing as Stringing;
  const { on, with: by, kg } = form.value;
  const all = [...readings, { on, kg: sent(kg), with: by }].toSorted((a, b) => a.on.localeCompare(b.on));
  return api('editStringing', { id, body: { ...rest, readings: all } });
}
</script>

<template>
  <div class="mt-4 mb-1"><h2 class="heading">Strings</h2></div>
  <p v-if="!bed" class="soft small mb-1">None on record.</p>
  <template v-else>
    <p class="mb-1">{{ stringWords(bed.stringing) }}</p>
    <p class="soft small mb-1">Strung {{ dayWords(bed.stringing.strungOn) }}: {{ useWords(bed) }}.</p>
    <p v-if="left" class="small mb-1">Tension {{ left }}.</p>
    <p v-else class="soft small mb-1">
      Say what they are made of to see what is left of the tension:
      <button type="button" class="link" @click="emit('correct', bed.stringing)">correct the strings</button>
    </p>
    <p v-if="due" class="warn small mb-1">Due for new strings: {{ due }}.</p>
  </template>
  <div class="link-row">
    <button type="button" class="link" @click="emit('restring')">New strings</button>
    <button v-if="bed" type="button" class="link" @click="show">Enter a measured tension</button>
  </div>
  <FormDialog
    v-model="open"
    title="Measured tension"
    store="Store"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored')"
  >
    <template #default="{ at, said }">
      <NumberField
        v-model="form.kg"
        v-first
        label="Tension"
        measure="tension"
        :unit="bed?.stringing.unit ?? 'kg'"
        :error="said(`readings.${bed?.stringing.readings.length ?? 0}.kg`)"
      />
      <v-text-field v-model="form.on" type="date" label="Date" :error-messages="at('readings')" />
      <v-text-field
        v-model="form.with"
        label="Tester"
        hint="From then on the estimate counts from here."
        persistent-hint
      />
    </template>
  </FormDialog>
</template>
