<script setup lang="ts">
import { computed } from 'vue';
import type { Frame, Judgement } from '@kevro/core';
import { judgementLines } from '@kevro/contract';

/** What the readings give away, the gravest first. */
const props = defineProps<{ judgements: readonly Judgement[]; frame: Frame }>();
const WORDS = { wrong: 'Cannot be', warn: 'Look again', note: 'Good to know' };
const lines = computed(() => judgementLines(props.judgements, props.frame));
</script>

<template>
  <ul v-if="lines.length > 0" class="judgements" aria-label="What the readings say" role="list">
    <li v-for="line in lines" :key="line.text" :class="line.weight">
      <b>{{ WORDS[line.weight] }}.</b> {{ line.text }}
    </li>
  </ul>
</template>

<style scoped>
.judgements {
  list-style: none;
  margin: 4px 0 8px;
  padding: 0;
}
li {
  border-left: 4px solid rgb(var(--v-theme-line));
  padding: 3px 0 3px 10px;
  margin-bottom: 4px;
}
li.wrong {
  border-left: 8px double rgb(var(--v-theme-brick));
}
li.wrong b {
  color: rgb(var(--v-theme-brick));
}
li.warn {
  border-left-color: rgb(var(--v-theme-warn));
  border-left-style: dashed;
  color: inherit;
}
li.warn b {
  color: rgb(var(--v-theme-warn));
}
li.note b {
  color: rgb(var(--v-theme-soft));
}
</style>
