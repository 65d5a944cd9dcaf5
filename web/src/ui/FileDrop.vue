<script setup lang="ts">
import { ref } from 'vue';

/** A place where a file is dropped, or chosen by a button in it. */
const props = defineProps<{
  /** What is taken, as a file field says it: `video/*`. */
  accept: string;
  label: string;
}>();
const emit = defineEmits<{ file: [file: File] }>();
const input = ref<HTMLInputElement>();
const isOver = ref(false);
/** What is dropped with others is found by its kind; alone it is taken as it is, so that what is wrong with it is said. */
function drop(event: DragEvent): void {
  isOver.value = false;
  const files = [...(event.dataTransfer?.files ?? [])];
  const kind = props.accept.replace('*', '');
  const file = files.find(({ type }) => type.startsWith(kind)) ?? files[0];
  if (file) emit('file', file);
}
function chosen(): void {
  const [file] = input.value?.files ?? [];
  if (file) emit('file', file);
  // The same one may be chosen again.
  if (input.value) input.value.value = '';
}
const choose = (): void => input.value?.click();
</script>

<template>
  <div
    :class="{ over: isOver }"
    @dragover.prevent="isOver = true"
    @dragleave="isOver = false"
    @drop.prevent="drop"
  >
    <slot :choose="choose" />
    <input
      ref="input"
      type="file"
      :accept="accept"
      class="d-sr-only"
      tabindex="-1"
      :aria-label="label"
      @change="chosen"
    />
  </div>
</template>

<style scoped>
.over {
  outline: 3px dashed rgb(var(--v-theme-reference));
  outline-offset: 4px;
}
</style>
