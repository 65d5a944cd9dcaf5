<script setup lang="ts">
import { computed } from 'vue';
import { aimMeaning, type Meaning } from '@kevro/core';
import { counted } from '../../words/counted';
import { useShop } from '../../stores/shop';
import { useUnits } from '../../stores/units';
import type { useAimDraft } from './aim-draft';

/** What an aim means for a hand. */
const props = defineProps<{ aim: ReturnType<typeof useAimDraft> }>();
const units = useUnits();
const shop = useShop();
const third = (steps: number): string => {
  const size = Math.abs(steps);
  if (size < 0.4) return 'by a third of a step';
  if (size < 0.75) return 'by half a step';
  return `by ${counted(Number(size.toFixed(size < 1.5 ? 0 : 1)), 'step', 'steps')}`;
};
function meaningWords({ of, change, steps }: Meaning): string {
  const share = `${Math.abs(100 * change).toFixed(0)} %`;
  switch (of) {
    case 'swing':
      return `about ${share} ${change > 0 ? 'harder' : 'easier'} to swing`;
    case 'weight':
      return `${units.sayWidth('massG', Math.abs(change), props.aim.shape.value.sport)} ${change > 0 ? 'heavier' : 'lighter'} in the hand`;
    case 'balance':
      return `more weight toward the ${change > 0 ? 'tip' : 'hand'}, ${third(steps)}`;
    case 'twist':
      return `${change > 0 ? 'steadier' : 'livelier'} off centre ${third(steps)}`;
    case 'recoil':
      return `${change > 0 ? 'steadier' : 'livelier'} against heavy balls by ${share}`;
  }
}
const meaning = computed(() =>
  props.aim.finished.value
    ? aimMeaning(
        shop.sportOf(props.aim.shape.value.sport),
        props.aim.finished.value.specs,
        props.aim.read.value.aim,
      )
    : [],
);
</script>

<template>
  <p v-if="meaning.length > 0" class="small my-0">{{ meaning.map(meaningWords).join('; ') }}.</p>
</template>
