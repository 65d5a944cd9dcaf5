<script setup lang="ts">
defineProps<{ question: { open: boolean; answer: (leave: boolean) => void }; what: string }>();
</script>

<template>
  <v-dialog
    :model-value="question.open"
    max-width="440"
    @update:model-value="!$event && question.answer(false)"
  >
    <v-card class="pa-5">
      <h2 class="text-h6">Leave without storing?</h2>
      <p class="my-3">{{ what }} The draft is kept on this device and is here when you come back.</p>
      <div class="d-flex ga-2">
        <v-spacer />
        <v-btn variant="outlined" @click="question.answer(true)">Leave</v-btn>
        <v-btn color="primary" autofocus @click="question.answer(false)">Stay</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>
