<script setup lang="ts">
import { ref } from 'vue';
import { DAYS, SEASON_KINDS, type Day, type SeasonKind } from '@kevro/core';
import type { SeasonDateRecord, SeasonPage } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { useDraft } from '../forms/draft';
import ChoiceRow from '../ui/ChoiceRow.vue';
import { shopToday } from '../words/days';
import { items } from '../words/players';
import { SEASON_KIND_WORDS } from '../words/season';
import { DAY_WORDS } from '../words/sessions';

/** Matches or a rest of a player, new or changed. */
const props = defineProps<{ playerId: string }>();
const emit = defineEmits<{ stored: [page: SeasonPage] }>();
const open = ref(false);
const before = ref<SeasonDateRecord>();
const empty = () => ({
  kind: SEASON_KINDS[0] as SeasonKind,
  fromDay: shopToday(),
  toDay: '',
  title: '',
  venue: DAYS[0] as Day,
});
const draft = useDraft(empty);
const form = draft.value;
function show(of?: SeasonDateRecord): void {
  before.value = of;
  const { id, ...date } = of ?? { id: 'new', ...empty() };
  draft.begin(`season ${props.playerId} ${id}`, {
    ...date,
    toDay: date.toDay === date.fromDay ? '' : date.toDay,
  });
  open.value = true;
}
defineExpose({ show });
async function submit(key: string): Promise<void> {
  const body = { ...form.value, toDay: form.value.toDay || form.value.fromDay };
  emit(
    'stored',
    before.value
      ? await api('editSeasonDate', { id: before.value.id, body })
      : await api('addSeasonDate', { id: props.playerId, body: { ...body, key } }),
  );
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="before ? 'Change it' : 'Matches, or a rest'"
    store="Store"
    :submit="submit"
    :draft="draft"
  >
    <template #default="{ at }">
      <ChoiceRow v-model="form.kind" label="What it is" :choices="items(SEASON_KIND_WORDS)" />
      <div class="two">
        <v-text-field
          v-model="form.fromDay"
          v-first
          type="date"
          label="From"
          :error-messages="at('fromDay')"
        />
        <v-text-field
          v-model="form.toDay"
          type="date"
          label="To, if longer than a day"
          :error-messages="at('toDay')"
        />
      </div>
      <v-text-field v-model="form.title" label="What it is called" :error-messages="at('title')" />
      <v-select
        v-if="form.kind === 'match'"
        v-model="form.venue"
        :items="items(DAY_WORDS)"
        label="How it plays there"
      />
    </template>
  </FormDialog>
</template>
