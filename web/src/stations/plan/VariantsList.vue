<script setup lang="ts">
import { ref } from 'vue';
import type { Frame } from '@kevro/core';
import { doingWords } from '../../words/plan';
import type { Standing } from './standing';

/** What was laid out and kept by a name, to go back to and to compare. Kept on this device. */
export interface Variant {
  name: string;
  standing: Standing;
}
defineProps<{ frame: Frame; variants: readonly Variant[]; stands: boolean }>();
const emit = defineEmits<{ keep: [name: string]; take: [variant: Variant]; drop: [name: string] }>();
const name = ref('');
const error = ref('');
function keep(): void {
  const typed = name.value.trim();
  error.value = typed === '' ? 'Give it a name.' : '';
  if (error.value) return;
  emit('keep', typed);
  name.value = '';
}
</script>

<template>
  <details :open="variants.length > 0">
    <summary class="heading">Variants kept by name ({{ variants.length }})</summary>
    <ul>
      <li v-for="variant in variants" :key="variant.name">
        <button type="button" class="link" @click="emit('take', variant)">
          <b>{{ variant.name }}</b>
        </button>
        <button
          type="button"
          class="link small"
          :aria-label="`Forget ${variant.name}`"
          @click="emit('drop', variant.name)"
        >
          Delete
        </button>
        <div class="soft small">{{ doingWords(variant.standing, frame) }}</div>
      </li>
    </ul>
    <form v-if="stands" class="keep" @submit.prevent="keep">
      <v-text-field
        v-model="name"
        label="Save as variant"
        maxlength="40"
        hide-details="auto"
        :error-messages="error ? [error] : []"
      />
      <v-btn type="submit" variant="outlined">Keep</v-btn>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 10px;
}
li > div {
  flex: 1 0 100%;
}
.keep {
  display: flex;
  gap: 8px;
  align-items: start;
  padding-top: 6px;
}
</style>
