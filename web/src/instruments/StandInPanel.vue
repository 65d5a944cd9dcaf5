<script setup lang="ts">
import { computed } from 'vue';
import { RODS } from '@kevro/core';
import { KINDS, type FrameRow, type Instrument, type OnStandIn } from '@kevro/contract';
import { useInstruments } from '../stores/instruments';
import { useSaved } from '../stores/saved';

/** What a stand-in simulates: what lies on it, and its cable. */
const props = defineProps<{ instrument: Instrument; frames: readonly FrameRow[] }>();
const instruments = useInstruments();
const saved = useSaved();

const items = computed(() => [
  { value: '', title: 'nothing' },
  ...(KINDS[props.instrument.kind].calibrates
    ? RODS.map((rod) => ({ value: `rod ${rod}`, title: `the ${rod} rod` }))
    : []),
  ...props.frames.map((f) => ({ value: f.id, title: `${f.tag} · ${f.maker} ${f.model}` })),
]);
const value = computed(() => {
  const { on } = props.instrument;
  if (!on) return '';
  return 'rod' in on ? `rod ${on.rod}` : on.frameId;
});
const onOf = (chosen: string): OnStandIn | null => {
  if (chosen === '') return null;
  return chosen.startsWith('rod ') ? { rod: Number(chosen.slice(4)) } : { frameId: chosen };
};
const run = (work: Promise<void>): void => void work.catch((error: unknown) => saved.failed(error));
</script>

<template>
  <div class="stand-in">
    <v-autocomplete
      :model-value="value"
      :items="items"
      :label="`What lies on the ${instrument.name}`"
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
</style>
