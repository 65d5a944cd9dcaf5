<script setup lang="ts">
import type { AnyDraft } from './draft';

/** Says that what stands here was typed before, or that something typed before no longer fits. */
const { draft } = defineProps<{ draft: AnyDraft }>();
</script>

<template>
  <p v-if="draft.older.value" class="notice small" role="status">
    This changed since you started typing. Showing the saved version.
    <button type="button" @click="draft.takeUp()">Use what I typed</button>
    <button type="button" @click="draft.forgetOlder()">Discard</button>
  </p>
  <p v-else-if="draft.resumed.value && draft.dirty.value" class="notice small" role="status">
    Kept from before, not stored yet.
    <button type="button" @click="draft.afresh()">Start afresh</button>
  </p>
</template>

<style scoped>
.notice {
  border-left: 4px solid rgb(var(--v-theme-reference));
  padding: 4px 0 4px 10px;
  margin: 0;
}
.notice button {
  text-decoration: underline;
  text-underline-offset: 3px;
  font-weight: 600;
  margin-left: 8px;
}
</style>
