<script setup lang="ts">
/** A box that shows what is stored and nothing else: ticking it asks, and it follows when that is done. */
defineProps<{ checked: boolean; label: string; waiting?: boolean; disabled?: boolean }>();
const emit = defineEmits<{ tick: [] }>();
</script>

<template>
  <label class="tick" :class="{ disabled }">
    <input type="checkbox" :checked="checked" :disabled="disabled" @click.prevent="emit('tick')" />
    <span>{{ label }}<em v-if="waiting" class="soft small" role="status"> storing…</em></span>
  </label>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
.disabled {
  cursor: default;
}
input {
  width: 24px;
  height: 24px;
  flex: none;
  margin: 0;
  accent-color: rgb(var(--v-theme-ink));
}
em {
  font-style: normal;
  font-weight: 400;
}
</style>
