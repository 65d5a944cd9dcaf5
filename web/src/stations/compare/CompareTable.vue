<script setup lang="ts">
import { computed } from 'vue';
import {
  type SpecKey,
  isPlanned,
  specsToShow,
  type AxisSpecs,
  type Frame,
  type AnySpecKey,
} from '@kevro/core';
import type { Compared } from '../../stores/beside';
import type { Reached } from '../../stores/whole-library';
import { vWide } from '../../ui/wide-table';
import { useUnits } from '../../stores/units';
import { SPEC_NAMES } from '../../words';
import { awayWords } from './words';

/** Numbers side by side: each setup's, and how far that is from this frame, in units and in steps that a hand notices. */
const props = defineProps<{
  frame: Frame;
  own: Partial<AxisSpecs>;
  tag: string;
  setups: readonly Compared[];
  beside: readonly string[];
  /** Whether the frame can get to each, where that was worked out for the whole library. */
  reached?: ((id: string) => Reached | undefined) | undefined;
  /** How this frame is strung. */
  strung?: string | undefined;
}>();
const emit = defineEmits<{ toggle: [id: string]; explain: [setup: Compared, key: SpecKey] }>();
const units = useUnits();
const keys = computed(() => specsToShow([props.own, ...props.setups.map(({ specs }) => specs)]));
/** Shown where this frame or a setup says how it is strung. */
const hasStrings = computed(() => Boolean(props.strung) || props.setups.some(({ strung }) => strung));
const shape = { sport: props.frame.sport.sport, lengthCm: props.frame.lengthCm };

/** «+11.5, 3.8 steps»: nothing where either side is not known. */
function apart({ specs, steps }: Compared, key: AnySpecKey): string {
  const [theirs, ours, step] = [specs[key], props.own[key], steps[key]];
  if (theirs === undefined || ours === undefined) return '';
  const change = units.showChange(key, theirs - ours, shape.sport);
  return step === undefined ? change : `${change}, ${Math.abs(step).toFixed(1)}`;
}
/** The grams that it takes, or how far off it stays. */
function reachWords(id: string): string {
  const found = props.reached?.(id);
  if (!found) return '';
  return found.reachable
    ? units.showWidth('massG', found.addedG, shape.sport)
    : `${found.leftSteps.toFixed(1)} steps short`;
}
</script>

<template>
  <table v-wide class="plain wide">
    <caption class="soft small">
      Difference from this frame, in units and in noticeable steps.
    </caption>
    <thead>
      <tr>
        <th>Setup</th>
        <th v-for="key in keys" :key="key" class="num">
          {{ SPEC_NAMES[key] }}
          <div class="unit">{{ units.unit(key) }}</div>
        </th>
        <th class="num">
          Away
          <div class="unit">steps</div>
        </th>
        <th v-if="hasStrings">Strings</th>
        <th v-if="reached" class="num">
          Reach
          <div class="unit">{{ units.unit('massG') }} to get there</div>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr class="own">
        <td><b>This frame</b> {{ tag }}</td>
        <td v-for="key in keys" :key="key" class="num">
          <b>{{ own[key] === undefined ? '–' : units.show(key, own[key], shape) }}</b>
        </td>
        <td></td>
        <td v-if="hasStrings">
          <b>{{ strung || '–' }}</b>
        </td>
        <td v-if="reached"></td>
      </tr>
      <tr v-for="n in setups" :key="n.id" :class="{ beside: beside.includes(n.id) }">
        <td>
          <button
            type="button"
            class="row name"
            :aria-pressed="beside.includes(n.id)"
            @click="emit('toggle', n.id)"
          >
            <b>{{ n.name }}</b>
          </button>
          <span class="soft small">
            {{ n.told }}
          </span>
        </td>
        <td v-for="key in keys" :key="key" class="num">
          <button
            v-if="n.specs[key] !== undefined && n.brought && isPlanned(key)"
            type="button"
            class="value"
            @click="emit('explain', n, key)"
          >
            {{ units.show(key, n.specs[key], shape) }}
            <span class="d-sr-only">of {{ n.name }}: show how it came about</span>
          </button>
          <template v-else>{{
            n.specs[key] === undefined ? '–' : units.show(key, n.specs[key], shape)
          }}</template>
          <div class="soft small">{{ apart(n, key) }}</div>
        </td>
        <td class="num">{{ awayWords(n) }}</td>
        <td v-if="hasStrings" class="small">{{ n.strung || '–' }}</td>
        <td v-if="reached" class="num">{{ reachWords(n.id) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
caption {
  text-align: left;
  padding: 4px 0;
}
.own td {
  background: rgb(var(--v-theme-sheet));
}
.beside td:first-child {
  box-shadow: inset 4px 0 rgb(var(--v-theme-reference));
}
.name {
  display: block;
  text-align: left;
  min-height: 24px;
}
.value {
  min-height: 24px;
  min-width: 44px;
  text-align: right;
}
.value:hover {
  text-decoration: underline;
}
td {
  padding-left: 10px;
}
@media (max-width: 1199px) {
  .name,
  .value {
    min-height: 44px;
  }
}
</style>
