<script setup lang="ts">
import { partNamed, zoneOf, type Change, type Frame } from '@kevro/core';
import { pieceWords } from '../../parts/parts-words';
import { ZONE_NAMES } from '../../words';
import { removalWords, swapWords } from './plan-words';

/** What stands on the frame, piece by piece, and the buttons that change the chosen one. */
defineProps<{
  frame: Frame;
  change: Change;
  byHand: boolean;
  canUndo: boolean;
}>();
const selected = defineModel<string | undefined>('selected');
const emit = defineEmits<{ back: []; forward: []; less: []; more: []; undo: [] }>();
</script>

<template>
  <h2 class="heading">{{ byHand ? 'Pieces, changed by hand' : 'Pieces of this plan' }}</h2>
  <ul class="pieces">
    <li v-for="p in change.placements" :key="p.id">
      <button
        type="button"
        class="piece"
        :class="{ on: selected === p.id }"
        :aria-pressed="selected === p.id"
        @click="selected = p.id"
      >
        <span class="line">
          <b>{{ ZONE_NAMES[zoneOf(frame, p)] }}</b><span class="num">{{ p.massG.toFixed(1) }} g</span>
        </span>
        <span class="soft small">{{ pieceWords(p, partNamed(change.parts, p.partId)) }}</span>
      </button>
    </li>
    <li v-for="swap in change.swaps" :key="swap.what" class="piece">Changed to {{ swapWords(swap) }}</li>
    <li v-for="removal in change.removals" :key="removal.of.id" class="piece">
      {{ removalWords(removal, frame) }}
    </li>
  </ul>
  <div class="tools" role="group" aria-label="Change by hand">
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="Toward the butt"
      @click="emit('back')"
      >←</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="Toward the tip"
      @click="emit('forward')"
      >→</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="One piece less"
      @click="emit('less')"
      >−</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="One piece more"
      @click="emit('more')"
      >+</v-btn
    >
    <v-btn variant="outlined" :disabled="!canUndo" @click="emit('undo')">undo</v-btn>
  </div>
</template>

<style scoped>
.pieces {
  list-style: none;
  padding: 0;
  margin: 0;
}
.pieces li {
  border-top: 1px solid rgb(var(--v-theme-line));
}
.piece {
  display: block;
  width: 100%;
  text-align: left;
  padding: 7px 6px;
}
.piece.on {
  box-shadow: inset 4px 0 rgb(var(--v-theme-reference));
  padding-left: 12px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.tools {
  display: flex;
  gap: 6px;
}
.tools :deep(.v-btn) {
  min-width: 44px;
  padding: 0 10px;
}
</style>
