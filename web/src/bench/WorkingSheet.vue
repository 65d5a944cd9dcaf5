<script setup lang="ts">
import { computed } from 'vue';
import { unitScale, type Working, type WorkingValue } from '@kevro/core';
import { useUnits } from '../stores/units';
import Sheet from '../ui/Sheet.vue';

/** How a number came about: equation, values put in, source. */
const props = defineProps<{ title: string; parts?: Working; lengthCm?: number }>();
const units = useUnits();
const open = defineModel<boolean>({ required: true });
const figure = (value: number, digits = 2): string => value.toFixed(digits).replace('-', '−');
/** In the units that the fitter thinks in: the equation holds in any, as long as weights and lengths are each in one. */
const shown = ({ value, unit, digits = 2, ...rest }: WorkingValue) => {
  const { mass, length } = units.way;
  const scale = (measure: 'mass' | 'length', to: string): number => unitScale(measure, to) ?? 1;
  if (unit === 'g' && mass === 'oz')
    return { ...rest, unit: mass, value: value / scale('mass', mass), digits: digits + 1 };
  if (unit === 'cm' && length === 'in')
    return { ...rest, unit: length, value: value / scale('length', length), digits: digits + 1 };
  if (unit === 'g·cm' && mass === 'oz')
    return {
      ...rest,
      unit: `${mass}·${length}`,
      value: value / scale('mass', mass) / scale('length', length),
      digits: digits + 1,
    };
  return { ...rest, unit, value, digits };
};
const rows = computed(() => props.parts?.values.map(shown) ?? []);
const result = computed(() => props.parts && shown(props.parts.result));
/** A balance is said in points too, where the fitter thinks in them. */
const inPoints = computed(() => {
  const { parts, lengthCm } = props;
  if (units.way.balance !== 'points' || !lengthCm || parts?.result.unit !== 'cm') return '';
  return units.show('balanceCm', parts.result.value, { sport: 'tennis', lengthCm }, 1);
});
</script>

<template>
  <Sheet v-model="open" :title="title">
    <template v-if="parts">
      <p class="equation">{{ parts.equation }}</p>
      <table class="plain">
        <tbody>
          <tr v-for="(v, i) in rows" :key="i">
            <td class="symbol">{{ v.symbol }}</td>
            <td>{{ v.meaning }}</td>
            <td class="num">{{ figure(v.value, v.digits) }}</td>
            <td class="soft">{{ v.unit }}</td>
          </tr>
          <tr v-if="result" class="result">
            <td class="symbol">{{ result.symbol }}</td>
            <td>
              {{ result.meaning }}<template v-if="inPoints">, {{ inPoints }}</template>
            </td>
            <td class="num">{{ figure(result.value, result.digits) }}</td>
            <td>{{ result.unit }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="parts.assumes" class="small mt-3 mb-0">Assumes: {{ parts.assumes }}.</p>
      <p class="small soft mt-1 mb-0">Source: {{ parts.source }}.</p>
      <div class="d-flex mt-4">
        <v-spacer /><v-btn v-first color="primary" @click="open = false">Close</v-btn>
      </div>
    </template>
  </Sheet>
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
