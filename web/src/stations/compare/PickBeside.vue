<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { guidesOf } from '@kevro/core';
import type { BesideKey } from '@kevro/contract';
import { useRecord } from '../../api/queries';
import { shapeName } from '../../words/beside';
import { dayWords } from '../../words/days';
import { besideId } from '../../stores/beside';
import { useFitting } from '../../stores/fitting';
import { GUIDE_NAMES, PURPOSE_NAMES } from '../../words';
import { useOtherFrames } from '../../bench/other-frames';

/** Chooses what besides setups is set beside the frame: how it was before, another frame as it was measured last, a guide, a class of shapes. */
const { there } = defineProps<{ there: readonly string[] }>();
const emit = defineEmits<{ add: [key: BesideKey] }>();
const fitting = useFitting();
const none = ref<string | null>(null);
const { items: frames, search, failure, measuredOf } = useOtherFrames(none);
const { record: page, load } = useRecord('frame', () => fitting.record?.id);
const earlier = computed(() => page.value?.measurements ?? []);
watch(() => fitting.measurement?.id, load);

interface Choice {
  title: string;
  subtitle: string;
  key: BesideKey;
}
const choices = computed((): Choice[] => {
  const { frame, measurement } = fitting;
  if (!frame) return [];
  const own = earlier.value
    .filter(({ id, counts }) => counts && id !== measurement?.id)
    .map((m): Choice => ({
      title: `This frame on ${dayWords(m.takenAt)}`,
      subtitle: PURPOSE_NAMES[m.purpose],
      key: { kind: 'measured', measurementId: m.id },
    }));
  const other = frames.value.flatMap(({ value, title, subtitle }): Choice[] => {
    const newest = measuredOf(value);
    return newest ? [{ title, subtitle, key: { kind: 'measured', measurementId: newest.id } }] : [];
  });
  const guides = guidesOf(frame.sport.sport).map((guide): Choice => ({
    title: `Guide: ${GUIDE_NAMES[guide]}`,
    subtitle: 'the middle of its bands',
    key: { kind: 'guide', guide },
  }));
  const shapes = Object.keys(frame.sport.shapeAverages).map((shape): Choice => ({
    title: `Average ${shapeName(shape)} frame`,
    subtitle: 'class average',
    key: { kind: 'shape', shape },
  }));
  return [...own, ...other, ...guides, ...shapes].filter(({ key }) => !there.includes(besideId(key)));
});
const items = computed(() => choices.value.map((c) => ({ ...c, value: besideId(c.key) })));
const text = ref('');
watch(text, (typed) => search(typed ?? ''));
const words = computed(() => (text.value ?? '').toLowerCase().split(/\s+/).filter(Boolean));
/** Frames are searched by the server, also by their owners; the rest by what is shown of it. */
const found = computed(() =>
  items.value.filter(
    ({ key, title, subtitle }) =>
      frames.value.some(
        ({ value }) => key.kind === 'measured' && measuredOf(value)?.id === key.measurementId,
      ) || words.value.every((word) => `${title} ${subtitle}`.toLowerCase().includes(word)),
  ),
);
function choose(value: string | null): void {
  const choice = items.value.find((one) => one.value === value);
  none.value = null;
  text.value = '';
  if (choice) emit('add', choice.key);
}
const chosen = ref<string | null>(null);
watch(chosen, (value) => {
  if (value === null) return;
  choose(value);
  chosen.value = null;
});
</script>

<template>
  <v-autocomplete
    v-model="chosen"
    v-model:search="text"
    :items="found"
    :item-props="true"
    label="Set a frame or guide beside it"
    hide-details="auto"
    no-filter
    clear-on-select
    :error-messages="failure ? [failure] : []"
  />
</template>
