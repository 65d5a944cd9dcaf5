<script setup lang="ts">
/** How much of a list is shown, and more of it. */
defineProps<{ shown: number; total: number }>();
const emit = defineEmits<{ more: [] }>();
</script>

<template>
  <p v-if="shown < total" class="mt-3">
    <span class="soft">{{ shown }} of {{ total }}.</span>
    <v-btn variant="text" @click="emit('more')">Show more</v-btn>
  </p>
</template>
