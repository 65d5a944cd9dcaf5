<script setup lang="ts">
import { SPEC_KEYS, type SpecKey } from '@kevro/core';
import type { OfFrame } from '../../ui/typed';
import type { Compared } from '../../stores/beside';
import { useUnits } from '../../stores/units';
import type { Reached } from '../../stores/whole-library';
import { SPEC_NAMES } from '../../words';
import { awayWords, missingWords } from './words';

/** A setup, or what else stands beside the frame, in the list: how far it is and its numbers; with their uncertainty once it is set beside the frame. */
const props = defineProps<{
  near: Compared;
  shape: OfFrame;
  beside: boolean;
  /** What the frame in hand itself lacks. */
  lacks: readonly SpecKey[];
  /** Whether this frame can get there, where that was worked out. */
  reached?: Reached | undefined;
}>();
const emit = defineEmits<{ toggle: []; look: [on: boolean]; explain: [key: SpecKey] }>();
const units = useUnits();
const number = (key: SpecKey): string => {
  const value = props.near.specs[key];
  return value === undefined ? '–' : units.show(key, value, props.shape);
};
</script>

<template>
  <button
    type="button"
    class="row"
    :class="{ beside }"
    :aria-pressed="beside"
    @click="emit('toggle')"
    @focus="emit('look', true)"
    @mouseenter="emit('look', true)"
    @mouseleave="emit('look', false)"
  >
    <span class="line">
      <b>{{ near.name }}</b>
      <span class="num"
        >{{ awayWords(near) }}{{ near.unknown.length === SPEC_KEYS.length ? '' : ' steps' }}</span
      >
    </span>
    <span class="line soft small">
      <span>{{ near.told }}</span>
      <span>{{ missingWords(near, lacks) }}</span>
    </span>
    <span v-if="!beside" class="num small">{{ SPEC_KEYS.map(number).join(' · ') }}</span>
    <span v-if="near.strung" class="soft small d-block">{{ near.strung }}</span>
    <span v-if="reached" class="reached small" :class="reached.reachable ? 'good' : 'soft'">{{
      reached.reachable
        ? reached.addedG < 0.05
          ? 'already within a step'
          : `reachable with ${units.sayWidth('massG', reached.addedG, shape.sport)}`
        : `out of reach by ${reached.leftSteps.toFixed(1)} steps`
    }}</span>
  </button>
  <div v-if="beside" class="values">
    <template v-for="key in SPEC_KEYS" :key="key">
      <span v-if="near.specs[key] !== undefined && !near.brought" class="value">
        <span class="soft">{{ SPEC_NAMES[key].split(' ')[0] }}</span> <b>{{ number(key) }}</b>
      </span>
      <button
        v-else-if="near.specs[key] !== undefined && near.brought"
        type="button"
        class="value"
        @click="emit('explain', key)"
      >
        <span class="soft">{{ SPEC_NAMES[key].split(' ')[0] }}</span>
        <b>{{ number(key) }}</b>
        <span class="soft"
          >±{{ units.showWidth(key, 2 * (near.brought.uncertainty[key] ?? 0), shape.sport) }}</span
        >
        <span class="d-sr-only">of {{ near.name }}: show how it came about</span>
      </button>
    </template>
  </div>
</template>

<style scoped>
.row {
  display: block;
  width: 100%;
  text-align: left;
  padding: 8px 8px 8px 12px;
}
.row:hover {
  background: rgb(var(--v-theme-paper));
}
.row.beside {
  box-shadow: inset 4px 0 rgb(var(--v-theme-reference));
}
.row:focus-visible {
  outline-offset: -3px;
}
.reached {
  display: block;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.line .num {
  white-space: nowrap;
}
.line.small span + span {
  text-align: right;
}
.values {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 10px;
  box-shadow: inset 4px 0 rgb(var(--v-theme-reference));
  padding: 0 8px 8px 12px;
}
.values .value {
  display: flex;
  gap: 6px;
  padding: 4px 0;
  font-size: 13.5px;
}
.values button b:hover {
  text-decoration: underline;
}
</style>
