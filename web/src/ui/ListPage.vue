<script setup lang="ts" generic="T">
/** A place: a title, one action, and a list in its four states. */
defineProps<{ title: string; action: string; rows: T[] | undefined; failure: string; empty: string }>();
const emit = defineEmits<{ act: []; retry: [] }>();
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>{{ title }}</h1>
      <slot name="filter" />
      <span class="spring" />
      <v-btn color="primary" size="large" @click="emit('act')">{{ action }}</v-btn>
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="emit('retry')">Try again</v-btn>
    </div>
    <p v-else-if="!rows" class="soft" role="status">Loading…</p>
    <p v-else-if="rows.length === 0" class="soft">{{ empty }}</p>
    <slot v-else :rows="rows" />
    <slot name="after" />
  </div>
</template>

<style scoped>
/* A place is called by one or two words: they are never parted. */
h1 {
  white-space: nowrap;
}
</style>
