<script setup lang="ts">
import { ref } from 'vue';
import { savePdf } from './paper-pdf';

/** Saves a part of the page that is meant for paper as a PDF file. */
const props = defineProps<{
  /** Where on the page it stands. */
  of: string;
  title: string;
  label: string;
}>();
const working = ref(false);
const failure = ref('');
async function save(): Promise<void> {
  const article = document.querySelector<HTMLElement>(props.of);
  if (!article || working.value) return;
  working.value = true;
  failure.value = '';
  try {
    await savePdf(article, props.title);
  } catch (error) {
    console.error(error);
    failure.value = 'The file could not be made. Print the page instead.';
  } finally {
    working.value = false;
  }
}
</script>

<template>
  <button type="button" class="link" :aria-busy="working" @click="save">
    {{ working ? 'Making the PDF…' : label }}
  </button>
  <span v-if="failure" class="miss" role="alert">{{ failure }}</span>
</template>
