<script setup lang="ts">
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { ZoneName } from '@kevro/core';
import { ZONE_NAMES } from '@kevro/contract';
import { api } from '../../api/client';
import FormDialog from '../../forms/FormDialog.vue';
import NumberField from '../../forms/NumberField.vue';
import { useDraft } from '../../forms/draft';
import { useKept } from '../../ui/kept';
import { sent, type Typed } from '../../ui/typed';
import { useFitting } from '../../stores/fitting';
import { partUnit } from '../../words/part-weight';

/** Another step than the proposed one, with the reason for it. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const router = useRouter();
const by = useKept('kevro-by', '');
const empty = () => ({ zone: 'tip' as ZoneName, massG: null as Typed, note: '' });
const draft = useDraft(empty);
const form = draft.value;
watch(
  open,
  (now) => {
    if (!now) return;
    draft.begin(`own step ${fitting.programme?.id ?? ''}`, empty());
  },
  { immediate: true },
);
const zones = computed(() => {
  const names = fitting.frame?.sport.zones.map(({ name }) => name) ?? [];
  return [...new Set(names)].map((value) => ({ value, title: ZONE_NAMES[value] }));
});
async function submit(key: string): Promise<void> {
  const { view, programme } = fitting;
  if (!view || !programme) return;
  const { zone, massG, note } = form.value;
  await fitting.stored(
    await api('takeStep', {
      id: view.id,
      body: {
        key,
        programmeId: programme.id,
        sessions: programme.sessions,
        change: [{ zone, massG: sent(massG) }],
        note,
        by: by.value,
      },
    }),
  );
  await router.push({ name: 'build' });
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="Another step than the proposed one"
    store="Make its build sheet"
    :submit="submit"
    :draft="draft"
  >
    <template #default="{ at, said }">
      <div class="two">
        <v-select v-model="form.zone" :items="zones" label="Where" />
        <NumberField
          v-model="form.massG"
          label="How much, less than 0 to take off"
          measure="mass"
          :unit="partUnit()"
          signed
          :error="said('change.0.massG')"
        />
      </div>
      <v-text-field v-model="form.note" label="Why" :error-messages="at('note')" />
    </template>
  </FormDialog>
</template>
