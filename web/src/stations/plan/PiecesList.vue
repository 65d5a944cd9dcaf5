<script setup lang="ts">
import { partWeight } from '../../words/part-weight';
import { computed } from 'vue';
import {
  leftRightOf,
  partNamed,
  zoneOf,
  type Change,
  type Frame,
  type HoopPlace,
  type Part,
  type ZoneName,
} from '@kevro/core';
import { pieceWords } from '../../words/pieces';
import { useUnits } from '../../stores/units';
import { HOOP_NAMES, ZONE_NAMES } from '../../words';
import AddPiece from './AddPiece.vue';
import PieceEditor from './PieceEditor.vue';
import { FINE_CM, STEP_CM } from './by-hand';
import { removalWords, swapWords } from '../../words/plan';

/** What stands on the frame, piece by piece, and the buttons that change the chosen one. */
const props = defineProps<{
  frame: Frame;
  change: Change;
  byHand: boolean;
  canUndo: boolean;
  canRedo: boolean;
  /** What another piece may be made of. */
  parts: readonly Part[];
}>();
const selected = defineModel<string | undefined>('selected');
const units = useUnits();
const emit = defineEmits<{
  move: [byCm: number];
  piece: [by: 1 | -1];
  hoop: [place: HoopPlace];
  grams: [massG: number];
  span: [cm: number];
  clock: [hour: number];
  off: [];
  add: [zone: ZoneName, part: Part];
  undo: [];
  redo: [];
}>();
const chosen = computed(() => props.change.placements.find(({ id }) => id === selected.value));
const hoops = computed(() => {
  const { usual, places } = props.frame.sport.hoop;
  return places.map((value) => ({ value, title: HOOP_NAMES[value] + (value === usual ? ' (usual)' : '') }));
});
/** Which side a placement that lies on one side only makes heavier, seen as drawn. */
const lopsided = computed(() => {
  const grams = leftRightOf(props.frame, props.change.placements);
  return Math.abs(grams) < LOPSIDED_G
    ? ''
    : `${partWeight(Math.abs(grams))} heavier on the ${grams > 0 ? 'upper' : 'lower'} side, as drawn.`;
});
/** What a left/right reading can just tell, g. */
const LOPSIDED_G = 0.1;
/** As the keys move it. */
const MOVES = [
  { by: -STEP_CM, sign: '←', says: 'Toward the butt, 5 mm' },
  { by: -FINE_CM, sign: '‹', says: 'Toward the butt, 1 mm' },
  { by: FINE_CM, sign: '›', says: 'Toward the tip, 1 mm' },
  { by: STEP_CM, sign: '→', says: 'Toward the tip, 5 mm' },
];
</script>

<template>
  <h2 class="heading">{{ byHand ? 'Pieces (edited)' : 'What goes on' }}</h2>
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
          <b>{{ ZONE_NAMES[zoneOf(frame, p)] }}</b><span class="num">{{ partWeight(p.massG) }}</span>
        </span>
        <span class="soft small">{{ pieceWords(p, partNamed(change.parts, p.partId), units.bench) }}</span>
      </button>
    </li>
    <li v-for="swap in change.swaps" :key="swap.what" class="piece">Changed to {{ swapWords(swap) }}</li>
    <li v-for="removal in change.removals" :key="removal.of.id" class="piece">
      {{ removalWords(removal, frame) }}
    </li>
  </ul>
  <p
    v-if="change.placements.length + change.swaps.length + change.removals.length === 0"
    class="soft small mb-0"
  >
    No changes
  </p>
  <PieceEditor
    v-if="chosen"
    :frame="frame"
    :placement="chosen"
    :part="partNamed(change.parts, chosen.partId)"
    @grams="emit('grams', $event)"
    @span="emit('span', $event)"
    @clock="emit('clock', $event)"
  />
  <p v-if="lopsided" class="soft small mb-0">{{ lopsided }}</p>
  <v-select
    v-if="change.placements.some(({ path }) => path === 'rim')"
    :model-value="chosen?.path === 'rim' ? (chosen.hoop ?? frame.sport.hoop.usual) : null"
    :disabled="chosen?.path !== 'rim'"
    :items="hoops"
    label="Position on the hoop"
    @update:model-value="$event && emit('hoop', $event)"
  />
  <div class="tools" role="group" aria-label="Change by hand">
    <v-btn
      v-for="m in MOVES"
      :key="m.sign"
      variant="outlined"
      :disabled="selected === undefined"
      :aria-label="m.says"
      :title="m.says"
      @click="emit('move', m.by)"
      >{{ m.sign }}</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="One strip or dab less"
      @click="emit('piece', -1)"
      >−</v-btn
    >
    <v-btn
      variant="outlined"
      :disabled="selected === undefined"
      aria-label="One strip or dab more"
      @click="emit('piece', 1)"
      >+</v-btn
    >
    <v-btn variant="outlined" :disabled="selected === undefined" @click="emit('off')">take off</v-btn>
    <v-btn variant="outlined" :disabled="!canUndo" @click="emit('undo')">undo</v-btn>
    <v-btn variant="outlined" :disabled="!canRedo" @click="emit('redo')">redo</v-btn>
  </div>
  <AddPiece :frame="frame" :parts="parts" @add="(zone, part) => emit('add', zone, part)" />
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
  flex-wrap: wrap;
  gap: 6px;
}
.tools :deep(.v-btn) {
  min-width: 44px;
  padding: 0 10px;
}
</style>
