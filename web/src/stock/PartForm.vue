<script setup lang="ts">
import { computed, ref } from 'vue';
import { PART_KINDS, type PartKind } from '@kevro/core';
import { PART_SCHEMAS, type NewPart, type PartRecord } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import { typedNumber, typedOrNone } from '../parts/typed-number';
import { PART_WORDS } from '../words';

/** A part, added or changed. Its fields are those that its kind's words name; what can be chosen stands in its schema. */
const emit = defineEmits<{ stored: [] }>();
const open = ref(false);
const part = ref<PartRecord>();
const kind = ref<PartKind>('tape');
const name = ref('');
const note = ref('');
const texts = ref<Record<string, string>>({});

const kinds = PART_KINDS.map((value) => ({ value, title: PART_WORDS[value].name }));
const words = computed(() => PART_WORDS[kind.value]);
/** The choices of a field that takes one of several words; undefined where it takes a number. */
const choicesOf = (field: string): readonly string[] | undefined => {
  const schema = (PART_SCHEMAS[kind.value].shape as Record<string, { options?: readonly string[] }>)[field];
  return schema?.options;
};

/** What is likely, so that least has to be typed. */
const LIKELY: Partial<Record<string, string>> = { stepCm: '0.5', dabG: '0.5' };
const startOf = (field: string): string => choicesOf(field)?.[0] ?? LIKELY[field] ?? '';

function fill(): void {
  const stored = part.value as unknown as Record<string, unknown> | undefined;
  texts.value = Object.fromEntries(
    Object.keys(words.value.fields).map((field) => {
      const value = stored?.[field];
      return [field, stored ? (value === undefined ? '' : String(value)) : startOf(field)];
    }),
  );
}
function show(of?: PartRecord): void {
  part.value = of;
  kind.value = of?.kind ?? 'tape';
  name.value = of?.name ?? '';
  note.value = of?.note ?? '';
  fill();
  open.value = true;
}
defineExpose({ show });
function choose(next: PartKind): void {
  kind.value = next;
  fill();
}

function submit(): Promise<unknown> {
  const fields = Object.entries(words.value.fields).map(([field, of]) => {
    const text = texts.value[field] ?? '';
    if (choicesOf(field)) return [field, text];
    return [field, of?.optional ? typedOrNone(text) : typedNumber(text)];
  });
  // The server checks it by the kind's own schema.
  const body = {
    kind: kind.value,
    name: name.value,
    note: note.value,
    ...Object.fromEntries(fields),
  } as NewPart;
  return part.value ? api('editPart', { id: part.value.id, body }) : api('addPart', { body });
}
</script>

<template>
  <AddDialog
    v-model="open"
    :title="part ? `Change ${part.name}` : 'Add a part'"
    :store="part ? 'Store' : 'Add'"
    :submit="submit"
    @stored="emit('stored')"
  >
    <template #default="{ at }">
      <v-select
        :model-value="kind"
        :items="kinds"
        label="What it is"
        :disabled="part !== undefined"
        @update:model-value="choose"
      />
      <v-text-field v-model="name" label="Name" autofocus :error-messages="at('name')" />
      <div class="two">
        <template v-for="(said, field) in words.fields" :key="field">
          <v-select
            v-if="said && choicesOf(field)"
            v-model="texts[field]"
            :items="choicesOf(field)"
            :label="said.label"
            :error-messages="at(field)"
          />
          <v-text-field
            v-else-if="said"
            v-model="texts[field]"
            :label="said.optional ? `${said.label}, if known` : said.label"
            :suffix="said.unit"
            inputmode="decimal"
            :error-messages="at(field)"
          />
        </template>
      </div>
      <v-text-field v-model="note" label="Note" :error-messages="at('note')" />
      <p v-if="texts.material === 'lead'" class="warn small mb-0">
        Lead is poisonous: the build sheet will say how to handle it. Local rules may forbid it.
      </p>
      <p class="soft small mb-0">{{ words.hint }}</p>
      <p v-if="part" class="soft small mb-0">Plans that were chosen keep it as it was.</p>
    </template>
  </AddDialog>
</template>
