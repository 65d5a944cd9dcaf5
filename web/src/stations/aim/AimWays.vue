<script setup lang="ts">
import { computed, useId } from 'vue';
import type { useAimDraft, Way } from './aim-draft';

/** One question: where the target comes from. Each answer says in a line what it does. */
const props = defineProps<{ aim: ReturnType<typeof useAimDraft> }>();
const name = useId();
const SOURCES: readonly { way: Way; title: string; says: string; also?: Way }[] = [
  { way: 'copy', also: 'part-way', title: 'A setup', says: 'copy, or part-way' },
  { way: 'guide', title: 'A guide', says: 'by kind of player' },
  { way: 'complaints', title: 'Complaints', says: 'twists, late, tires' },
  { way: 'frame', title: 'Another frame', says: 'match that one' },
  { way: 'by-hand', title: 'My numbers', says: 'typed, or moved in the lanes' },
];
const chosen = computed(() => {
  const { way } = props.aim.draft.value;
  return SOURCES.find((one) => one.way === way || one.also === way)?.way;
});
</script>

<template>
  <fieldset class="ways">
    <legend class="heading">Where does the target come from?</legend>
    <label v-for="{ way, title, says } in SOURCES" :key="way" :class="{ on: chosen === way }">
      <input
        type="radio"
        :name="name"
        :value="way"
        :checked="chosen === way"
        :aria-label="title"
        :aria-describedby="`${name}-${way}`"
        @change="aim.choose({ way })"
      />
      <b>{{ title }}</b>
      <span :id="`${name}-${way}`" class="soft small">{{ says }}</span>
    </label>
  </fieldset>
</template>

<style scoped>
.ways {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
legend {
  margin-bottom: 6px;
}
label {
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-height: 44px;
  padding: 2px 10px;
  line-height: 1.2;
  border: 1px solid rgb(var(--v-theme-line));
}
label:last-child {
  grid-column: 1 / -1;
  flex-direction: row;
  justify-content: flex-start;
  align-items: center;
  gap: 8px;
}
.on {
  outline: 2px solid rgb(var(--v-theme-ink));
  outline-offset: -1px;
}
label:focus-within {
  outline: 3px solid rgb(var(--v-theme-reference));
}
input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
