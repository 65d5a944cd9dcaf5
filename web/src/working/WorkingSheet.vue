<script setup lang="ts">
import type { Working } from '@kevro/core';

/** How a number came about: equation, values put in, source. */
defineProps<{ title: string; parts?: Working }>();
const open = defineModel<boolean>({ required: true });
const figure = (value: number, digits = 2): string => value.toFixed(digits).replace('-', '−');
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card v-if="parts" class="pa-5">
      <h2 class="text-h6">{{ title }}</h2>
      <p class="equation">{{ parts.equation }}</p>
      <table class="plain">
        <tbody>
          <tr v-for="(v, i) in parts.values" :key="i">
            <td class="symbol">{{ v.symbol }}</td>
            <td>{{ v.meaning }}</td>
            <td class="num">{{ figure(v.value, v.digits) }}</td>
            <td class="soft">{{ v.unit }}</td>
          </tr>
          <tr class="result">
            <td class="symbol">{{ parts.result.symbol }}</td>
            <td>{{ parts.result.meaning }}</td>
            <td class="num">{{ figure(parts.result.value, parts.result.digits) }}</td>
            <td>{{ parts.result.unit }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="parts.assumes" class="small mt-3 mb-0">Takes for granted: {{ parts.assumes }}.</p>
      <p class="small soft mt-1 mb-0">Source: {{ parts.source }}.</p>
      <div class="d-flex mt-4">
        <v-spacer /><v-btn color="primary" autofocus @click="open = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.equation {
  font-size: 18px;
  margin: 8px 0 10px;
}
.symbol {
  white-space: nowrap;
  width: 1%;
}
td {
  padding: 5px 8px;
}
.result td {
  border-top: 2px solid rgb(var(--v-theme-ink));
  font-weight: 700;
}
</style>
