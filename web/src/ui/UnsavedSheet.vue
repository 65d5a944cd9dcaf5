<script setup lang="ts">
import Sheet from './Sheet.vue';

const { question } = defineProps<{
  question: { open: boolean; answer: (leave: boolean) => void };
  what: string;
}>();
</script>

<template>
  <Sheet
    :model-value="question.open"
    title="Leave without saving?"
    :width="440"
    @update:model-value="!$event && question.answer(false)"
  >
    <p class="my-3">{{ what }} Your draft stays on this device.</p>
    <div class="d-flex ga-2">
      <v-spacer />
      <v-btn variant="outlined" @click="question.answer(true)">Leave</v-btn>
      <v-btn v-first color="primary" @click="question.answer(false)">Stay</v-btn>
    </div>
  </Sheet>
</template>
