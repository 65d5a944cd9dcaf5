<script setup lang="ts">
import { ref } from 'vue';

/** Fields that are seldom needed: behind a line, open where something stands in them or is wrong with them. They are made when they are opened first. */
defineProps<{ title: string; open?: boolean }>();
const made = ref(false);
</script>

<template>
  <details class="more" :open="open" @toggle.once="made = true">
    <summary>{{ title }}</summary>
    <div v-if="made || open" class="fields"><slot /></div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 600;
  padding: 6px 0;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.fields {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding-top: 8px;
}
</style>
