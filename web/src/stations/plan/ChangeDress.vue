<script setup lang="ts">
import { computed, ref } from 'vue';
import { newStrings, type Change, type Dress, type Frame, type StringingJob, type Swap } from '@kevro/core';
import NumberField from '../../forms/NumberField.vue';
import { numberOf, type OfFrame, type Typed } from '../../ui/typed';
import { BASE_GRIP_NAMES } from '../../words';
import { swapWords } from '../../words/plan';
import { KIND_ITEMS } from '../../words/strings';

/** Changes grips, dampener or strings by hand, one way each; what is chosen counts at once. */
const props = defineProps<{
  frame: Frame;
  shape: OfFrame;
  dress: Dress;
  change: Pick<Change, 'swaps'>;
  bed?: StringingJob | undefined;
}>();
const emit = defineEmits<{ swap: [what: Swap['what'], swap: Swap | undefined] }>();

/** Its fields are made when they are opened first. */
const made = ref(false);
const MOST_OVERGRIPS = 3;
const ways = computed((): { what: Swap['what']; label: string; now: string; choices: Swap[] }[] => {
  const { overgrips = 0, baseGrip = 'none', dampener = false } = props.dress;
  const worn = Array.from({ length: MOST_OVERGRIPS + 1 }, (_, to): Swap => ({ what: 'overgrips', to }));
  return [
    {
      what: 'overgrips' as const,
      label: 'Overgrips',
      now: swapWords({ what: 'overgrips', to: overgrips }),
      choices: worn.filter(({ to }) => to !== overgrips),
    },
    {
      what: 'baseGrip' as const,
      label: 'Base grip',
      now: swapWords({ what: 'baseGrip', to: baseGrip }),
      choices: (Object.keys(BASE_GRIP_NAMES) as (keyof typeof BASE_GRIP_NAMES)[])
        .filter((to) => to !== baseGrip)
        .map((to): Swap => ({ what: 'baseGrip', to })),
    },
    {
      what: 'dampener' as const,
      label: 'Dampener',
      now: swapWords({ what: 'dampener', to: dampener }),
      choices: [{ what: 'dampener', to: !dampener } as Swap],
    },
    {
      what: 'strings' as const,
      label: 'Strings',
      now: props.dress.strings ? 'the strings that are in' : 'unstrung',
      choices: [{ what: 'strings', to: true } as Swap],
    },
  ].filter(({ what }) => props.frame.sport.dress.components.includes(what));
});
const chosenOf = (what: Swap['what']): Swap | undefined => props.change.swaps.find((s) => s.what === what);
const AS_IT_IS = 'as it is';
const titleOf = (swap: Swap): string => (swap.what === 'strings' ? 'new strings' : swapWords(swap));
const strings = computed(() => newStrings(props.change.swaps));
/** The one swap of strings with something of it changed. */
function changeStrings(change: { to?: true | { massG: number }; job?: StringingJob | undefined }): void {
  if (!strings.value) return;
  const { to, job } = { ...strings.value, ...change };
  emit('swap', 'strings', { what: 'strings', to, ...(job ? { job } : {}) });
}
function weighed(value: Typed): void {
  const massG = numberOf(value);
  changeStrings({ to: massG && massG > 0 ? { massG } : true });
}
/** New strings go in as those that are in, until somebody says otherwise. */
const job = computed<StringingJob>(() => strings.value?.job ?? {});
const tensionUnit = computed(() => job.value.unit ?? props.bed?.unit ?? 'kg');
function said(part: Partial<StringingJob>): void {
  const next = { ...job.value, unit: tensionUnit.value, ...part };
  changeStrings({ job: next });
}
const positive = (value: Typed): number | undefined => {
  const number = numberOf(value);
  return number && number > 0 ? number : undefined;
};
function choose(what: Swap['what'], choices: readonly Swap[], title: string): void {
  const found = choices.find((one) => titleOf(one) === title);
  const swap: Swap | undefined =
    found?.what === 'strings' && props.bed ? { ...found, job: { ...props.bed } } : found;
  emit('swap', what, swap);
}
</script>

<template>
  <details class="dress" @toggle.once="made = true">
    <summary>Change grips{{ ways.some(({ what }) => what === 'strings') ? ' or strings' : '' }}</summary>
    <div v-if="made" class="fields">
      <v-select
        v-for="{ what, label, now, choices } in ways"
        :key="what"
        :model-value="chosenOf(what) ? titleOf(chosenOf(what) as Swap) : AS_IT_IS"
        :items="[{ value: AS_IT_IS, title: `${now}, ${AS_IT_IS}` }, ...choices.map(titleOf)]"
        :label="label"
        hide-details
        @update:model-value="choose(what, choices, $event)"
      />
      <NumberField
        v-if="strings"
        :model-value="strings.to === true ? null : strings.to.massG"
        label="Weight"
        spec="massG"
        :shape="shape"
        width
        hint="Empty: typical weight"
        @update:model-value="weighed"
      />
      <template v-if="strings">
        <NumberField
          :model-value="job.mainsKg ?? null"
          label="Mains tension"
          measure="tension"
          :unit="tensionUnit"
          @update:model-value="said({ mainsKg: positive($event) })"
        />
        <NumberField
          :model-value="job.crossesKg ?? null"
          label="Crosses tension"
          measure="tension"
          :unit="tensionUnit"
          @update:model-value="said({ crossesKg: positive($event) })"
        />
        <v-select
          :model-value="job.mainsKind ?? null"
          :items="KIND_ITEMS"
          label="Mains are"
          clearable
          @update:model-value="said({ mainsKind: $event ?? undefined, mains: undefined, mainsMm: undefined })"
        />
        <NumberField
          :model-value="job.preStretchPercent ?? null"
          label="Pre-stretch"
          measure="percent"
          @update:model-value="said({ preStretchPercent: positive($event) })"
        />
      </template>
    </div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
}
.fields {
  display: grid;
  padding: 4px 0 8px;
  gap: 8px;
}
</style>
