<script setup lang="ts">
/** A page that somebody comes to by a link from the shop, on a phone: one column, nothing else of the shop. */
defineProps<{ shop: string | undefined; title: string }>();
</script>

<template>
  <main class="by-link">
    <header>
      <b>{{ shop ?? 'Kevro' }}</b>
    </header>
    <h1 tabindex="-1">{{ title }}</h1>
    <slot />
  </main>
</template>

<style scoped>
h1 {
  margin: 0;
}
.by-link {
  max-width: 520px;
  margin: 0 auto;
  padding: 12px 14px 32px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
