<script setup lang="ts" generic="T extends string">
import { useId } from 'vue';

/** A few choices side by side, of which one holds: radios, so that arrows move between them. */
defineProps<{
  label: string;
  choices: readonly { value: T; title: string }[];
  /** In two rows, where there are many. */
  twoRows?: boolean;
}>();
const chosen = defineModel<T>({ required: true });
const name = useId();
</script>

<template>
  <div class="choices" :class="{ two: twoRows }" role="radiogroup" :aria-label="label">
    <label v-for="choice in choices" :key="choice.value" :class="{ on: chosen === choice.value }">
      <input v-model="chosen" type="radio" :name="name" :value="choice.value" />
      {{ choice.title }}
    </label>
  </div>
</template>

<style scoped>
.choices {
  display: flex;
  border: 1px solid rgb(var(--v-theme-soft));
  border-radius: 4px;
}
label {
  position: relative;
  flex: 1 1 auto;
  display: flex;
  align-items: center;
  justify-content: center;
  min-height: 44px;
  padding: 4px 6px;
  text-align: center;
  color: rgb(var(--v-theme-soft));
}
label + label {
  border-left: 1px solid rgb(var(--v-theme-soft));
}
.two {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
}
.two label:nth-child(3n + 1) {
  border-left: 0;
}
.two label:nth-child(n + 4) {
  border-top: 1px solid rgb(var(--v-theme-soft));
}
.on {
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-paper));
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
/* Paper says which one holds. */
@media print {
  .choices {
    border: 0;
  }
  label {
    display: none;
  }
  .on {
    display: flex;
    justify-content: start;
    border: 0;
    background: none;
    color: inherit;
  }
}
</style>
