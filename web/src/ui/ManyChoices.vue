<script setup lang="ts" generic="T extends string">
/** A few choices side by side, of which any number may hold. */
const { choices } = defineProps<{ label: string; choices: readonly { value: T; title: string }[] }>();
const chosen = defineModel<T[]>({ required: true });
/** In the order in which they stand, whatever was chosen first. */
function turn(value: T, on: boolean): void {
  chosen.value = choices
    .map((choice) => choice.value)
    .filter((one) => (one === value ? on : chosen.value.includes(one)));
}
</script>

<template>
  <div class="many" role="group" :aria-label="label">
    <label v-for="{ value, title } in choices" :key="value" :class="{ on: chosen.includes(value) }">
      <input
        type="checkbox"
        :checked="chosen.includes(value)"
        @change="turn(value, ($event.target as HTMLInputElement).checked)"
      />
      {{ title }}
    </label>
  </div>
</template>

<style scoped>
.many {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
label {
  position: relative;
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 4px 14px;
  border: 1px solid rgb(var(--v-theme-soft));
  border-radius: 4px;
}
.on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-paper));
  border-color: rgb(var(--v-theme-ink));
  font-weight: 700;
}
label:focus-within {
  outline: 3px solid rgb(var(--v-theme-reference));
  outline-offset: 2px;
}
input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
</style>
