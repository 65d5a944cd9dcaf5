<script setup lang="ts">
import { partWeightLabel, partNumber } from '../../words/part-weight';
import { computed } from 'vue';
import { SPEC_KEYS, aimMeaning, recoilWeight, type Aim, type AxisSpecs, type Frame } from '@kevro/core';
import Sheet from '../../ui/Sheet.vue';
import { vWide } from '../../ui/wide-table';
import { useUnits } from '../../stores/units';
import { SPEC_NAMES } from '../../words';

import { percent } from '../../words/chance';

/** A way, or a variant, as it stands in the table. */
export interface Compared {
  id: string;
  name: string;
  specs: AxisSpecs;
  places: number;
  addedG: number;
  chance: number;
  /** After one trim, where a plan can be trimmed. */
  trimmed: number | undefined;
  inside: boolean;
}

/** All ways and variants side by side: where they end, what they take, and what they mean for a hand. */
const props = defineProps<{
  frame: Frame;
  before: AxisSpecs;
  ways: readonly Compared[];
  on: string | undefined;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ pick: [id: string] }>();
const units = useUnits();
const shape = computed(() => ({ sport: props.frame.sport.sport, lengthCm: props.frame.lengthCm }));

/** «+3 %» of what the frame is now, by the meaning that the aim station gives it. */
function meaning(specs: AxisSpecs, of: 'swing' | 'twist' | 'recoil'): string {
  const target = Object.fromEntries(
    SPEC_KEYS.flatMap((key) =>
      specs[key] === undefined ? [] : [[key, { value: specs[key], tolerance: 1 }]],
    ),
  ) as Aim;
  const found = aimMeaning(props.frame.sport.sport, props.before, target).find((m) => m.of === of);
  if (!found) return 'as now';
  return of === 'twist'
    ? `${found.steps > 0 ? '+' : '−'}${Math.abs(found.steps).toFixed(1)} steps`
    : `${found.change > 0 ? '+' : '−'}${Math.abs(100 * found.change).toFixed(1)} %`;
}
function take(id: string): void {
  emit('pick', id);
  open.value = false;
}
</script>

<template>
  <Sheet v-model="open" title="Placements compared" :width="1080">
    <div class="scroll">
      <table v-wide class="plain">
        <thead>
          <tr>
            <th>Way</th>
            <th class="num">Places</th>
            <th class="num">{{ partWeightLabel() }}</th>
            <th v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ SPEC_NAMES[key] }}<br /><span class="unit">{{ units.unit(key) }}</span>
            </th>
            <th class="num">Recoil weight<br /><span class="unit">kg·cm²</span></th>
            <th class="num">Swing effort</th>
            <th class="num">Stability off centre</th>
            <th class="num">First-check pass</th>
            <th class="num">After one trim</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="way in ways" :key="way.id" :class="{ on: on === way.id }">
            <td>
              <button type="button" class="link name" @click="take(way.id)">{{ way.name }}</button>
              <span :class="way.inside ? 'good' : 'miss'" class="small d-block">{{
                way.inside ? 'inside' : 'outside'
              }}</span>
            </td>
            <td class="num">{{ way.places }}</td>
            <td class="num">{{ partNumber(way.addedG) }}</td>
            <td v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ way.specs[key] === undefined ? '–' : units.show(key, way.specs[key], shape) }}
            </td>
            <td class="num">{{ recoilWeight(way.specs).toFixed(0) }}</td>
            <td class="num">{{ meaning(way.specs, 'swing') }}</td>
            <td class="num">{{ meaning(way.specs, 'twist') }}</td>
            <td class="num">{{ percent(way.chance) }}</td>
            <td class="num">{{ way.trimmed === undefined ? '–' : percent(way.trimmed) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft small mt-3 mb-0">
      Swing effort and stability: compared with the racket as measured. Pass: with the readings that each plan
      asks for.
    </p>
    <div class="d-flex mt-2"><v-spacer /><v-btn variant="outlined" @click="open = false">Close</v-btn></div>
  </Sheet>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.unit {
  font-weight: 400;
}
.on td {
  background: rgb(var(--v-theme-paper));
}
.name {
  font-weight: 700;
  min-height: 28px;
  text-align: left;
}
td,
th {
  padding: 5px 7px;
}
</style>
