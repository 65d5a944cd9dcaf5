<script setup lang="ts">
import { computed, ref } from 'vue';
import { PART_KINDS, partRule, type PartKind } from '@kevro/core';
import { PART_SCHEMAS, type NewPart, type PartRecord } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import NumberField from '../forms/NumberField.vue';
import { useDraft } from '../forms/draft';
import { sent, sentOrNone, type Typed } from '../ui/typed';
import { fieldUnit, PART_WORDS } from '../words';

/** A part, added or changed. Its fields are those that its kind's words name; what can be chosen stands in its schema. */
const emit = defineEmits<{ stored: [part: PartRecord] }>();
const open = ref(false);
const part = ref<PartRecord>();
interface PartDraft {
  kind: PartKind;
  name: string;
  note: string;
  /** What is chosen from words, and what is a number. */
  words: Record<string, string>;
  numbers: Record<string, Typed>;
}
/** What is likely, so that least has to be typed. */
const LIKELY: Partial<Record<string, number>> = { stepCm: 0.5, dabG: 0.5 };
const draft = useDraft<PartDraft>(() => startOf('tape'));
const form = draft.value;

const kinds = PART_KINDS.map((value) => ({ value, title: PART_WORDS[value].name }));
const words = computed(() => PART_WORDS[form.value.kind]);
/** The choices of a field that takes one of several words; undefined where it takes a number. */
function choicesOf(kind: PartKind, field: string): readonly string[] | undefined {
  const schema = (PART_SCHEMAS[kind].shape as Record<string, { options?: readonly string[] }>)[field];
  return schema?.options;
}

function startOf(kind: PartKind, stored?: PartRecord): PartDraft {
  const start: PartDraft = {
    kind,
    name: stored?.name ?? '',
    note: stored?.note ?? '',
    words: {},
    numbers: {},
  };
  const values = stored as unknown as Record<string, string | number | undefined> | undefined;
  for (const field of Object.keys(PART_WORDS[kind].fields)) {
    const choices = choicesOf(kind, field);
    if (choices) start.words[field] = String(values?.[field] ?? choices[0] ?? '');
    else
      start.numbers[field] = values
        ? ((values[field] as number | undefined) ?? null)
        : (LIKELY[field] ?? null);
  }
  return start;
}
function show(of?: PartRecord): void {
  part.value = of;
  draft.begin(`part ${of?.id ?? 'new'}`, startOf(of?.kind ?? 'tape', of));
  open.value = true;
}
defineExpose({ show });
function choose(kind: PartKind): void {
  const { name, note } = form.value;
  Object.assign(form.value, { ...startOf(kind), name, note });
}

function submit(key: string): Promise<PartRecord> {
  const { kind, name, note, words: chosen, numbers } = form.value;
  const fields = Object.entries(words.value.fields).map(([field, of]) => {
    if (choicesOf(kind, field)) return [field, chosen[field]];
    return [field, of?.optional ? sentOrNone(numbers[field]) : sent(numbers[field])];
  });
  // The server checks it by the kind's own schema.
  const field = part.value && partRule(part.value).sample?.field;
  // Its weight left as it was, it is as typical as it was.
  const typical = part.value?.typical && field && numbers[field] === startOf(kind, part.value).numbers[field];
  const body = {
    kind,
    name,
    note,
    ...(typical ? { typical } : {}),
    ...Object.fromEntries(fields),
  } as NewPart;
  return part.value
    ? api('editPart', { id: part.value.id, body })
    : api('addPart', { body: { ...body, key } });
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="part ? `Change ${part.name}` : 'Add a part'"
    :store="part ? 'Store' : 'Add'"
    :submit="submit"
    :draft="draft"
    @stored="emit('stored', $event as PartRecord)"
  >
    <template #default="{ at, said }">
      <v-select
        :model-value="form.kind"
        :items="kinds"
        label="Kind"
        :disabled="part !== undefined"
        @update:model-value="choose"
      />
      <v-text-field v-model="form.name" v-first label="Name" :error-messages="at('name')" />
      <div class="two">
        <template v-for="(of, field) in words.fields" :key="`${form.kind} ${field}`">
          <v-select
            v-if="of && choicesOf(form.kind, field)"
            v-model="form.words[field]"
            :items="choicesOf(form.kind, field)"
            :label="of.label"
            :error-messages="at(field)"
          />
          <NumberField
            v-else-if="of"
            v-model="form.numbers[field]!"
            :label="of.optional ? `${of.label}, if known` : of.label"
            :measure="of.measure"
            :unit="fieldUnit(of)"
            :error="said(field)"
          />
        </template>
      </div>
      <v-text-field v-model="form.note" label="Note" :error-messages="at('note')" />
      <p v-if="form.words.material === 'lead'" class="warn small mb-0">
        Lead is poisonous: the build sheet will say how to handle it. Local rules may forbid it.
      </p>
      <p class="soft small mb-0">{{ words.hint }}</p>
      <p v-if="part" class="soft small mb-0">Existing plans keep the old values.</p>
    </template>
  </FormDialog>
</template>
