<script setup lang="ts">
/** How much of a list is shown, and more of it; nothing where all of it is. */
defineProps<{ left: string }>();
const emit = defineEmits<{ more: [] }>();
</script>

<template>
  <p v-if="left" class="mt-3">
    <span class="soft">{{ left }}.</span>
    <v-btn variant="text" @click="emit('more')">Show more</v-btn>
  </p>
</template>
