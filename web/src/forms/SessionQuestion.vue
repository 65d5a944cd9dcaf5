<script setup lang="ts" generic="T extends string">
import ChoiceRow from '../ui/ChoiceRow.vue';

/** One question of a session with its answers beside it, so that the whole form is seen at once. */
defineProps<{ label: string; choices: readonly { value: T; title: string }[] }>();
const answer = defineModel<T>({ required: true });
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <ChoiceRow v-model="answer" :label="label" :choices="choices" />
    <slot />
  </fieldset>
</template>

<style scoped>
/* A legend cannot stand in a grid, so it floats. */
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  float: left;
  width: 168px;
  padding: 11px 8px 0 0;
  font-weight: 600;
  line-height: 1.25;
}
fieldset .choices {
  margin-left: 168px;
}
fieldset :slotted(p) {
  clear: left;
  margin: 4px 0 0;
}
@media (max-width: 600px) {
  legend {
    float: none;
    width: auto;
    padding: 0 0 2px;
  }
  fieldset .choices {
    margin-left: 0;
  }
}
</style>
