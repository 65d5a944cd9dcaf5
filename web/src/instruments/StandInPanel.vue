<script setup lang="ts">
import { computed } from 'vue';
import { RODS } from '@kevro/core';
import { KINDS, type FrameRow, type Instrument, type OnStandIn } from '@kevro/contract';
import { api } from '../api/client';
import { useRecord } from '../api/queries';
import { useSearch } from '../api/queries';
import { useInstruments } from '../stores/instruments';
import { useSaved } from '../stores/saved';

/** What a stand-in simulates: what lies on it, and its cable. */
const props = defineProps<{ instrument: Instrument }>();
const instruments = useInstruments();
const saved = useSaved();

type Named = Pick<FrameRow, 'id' | 'tag' | 'maker' | 'model'>;
const nameOf = (f: Named): string => `${f.tag} · ${f.maker} ${f.model}`;
const { record: page } = useRecord('frame', () => {
  const { on } = props.instrument;
  return on && 'frameId' in on ? on.frameId : undefined;
});
const lying = computed<Named | undefined>(() => page.value?.frame);
const value = computed(() => {
  const { on } = props.instrument;
  if (!on) return '';
  return 'rod' in on ? `rod ${on.rod}` : on.frameId;
});
const rods = computed(() =>
  KINDS[props.instrument.kind].calibrates
    ? RODS.map((rod) => ({ value: `rod ${rod}`, title: `the ${rod} rod` }))
    : [],
);
const shown = computed(() => {
  const name = lying.value?.id === value.value ? nameOf(lying.value) : 'nothing';
  return rods.value.find((rod) => rod.value === value.value)?.title ?? name;
});
const { rows, text, failure } = useSearch<FrameRow>(
  'frames',
  (query) => api('frames', { query }),
  shown,
  nameOf,
);
const items = computed(() => [
  { value: '', title: 'nothing' },
  ...rods.value,
  ...(lying.value && !rows.value.some(({ id }) => id === lying.value?.id)
    ? [{ value: lying.value.id, title: nameOf(lying.value) }]
    : []),
  ...rows.value.map((f) => ({ value: f.id, title: nameOf(f) })),
]);
const onOf = (chosen: string): OnStandIn | null => {
  if (chosen === '') return null;
  return chosen.startsWith('rod ') ? { rod: Number(chosen.slice(4)) } : { frameId: chosen };
};
const run = (work: Promise<void>): void => void work.catch((error: unknown) => saved.failed(error));
</script>

<template>
  <div class="stand-in">
    <v-autocomplete
      v-model:search="text"
      :model-value="value"
      no-filter
      :error-messages="failure ? [failure] : []"
      :items="items"
      label="On it"
      @update:model-value="run(instruments.put(instrument.id, onOf($event ?? '')))"
    />
    <v-switch
      :model-value="instrument.plugged"
      :label="instrument.plugged ? 'cable plugged in' : 'cable pulled'"
      @update:model-value="run(instruments.plug(instrument.id, Boolean($event)))"
    />
  </div>
</template>

<style scoped>
.stand-in {
  display: grid;
  grid-template-columns: minmax(220px, 1fr) auto;
  gap: 18px;
  align-items: center;
}
@media (max-width: 640px) {
  .stand-in {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
