<script setup lang="ts">
import { partUnit, partNumber } from '../../words/part-weight';
import type { Cut } from '@kevro/core';
import { ZONE_NAMES } from '../../words';
import { useUnits } from '../../stores/units';
import { placeWords } from '@kevro/contract';
import { vWide } from '../../ui/wide-table';

/** The cut list: what to cut, how long, and where it starts and ends. */
defineProps<{ cuts: readonly Cut[] }>();
const units = useUnits();
</script>

<template>
  <table v-wide class="plain wide">
    <caption class="heading">
      Cut list
    </caption>
    <thead>
      <tr>
        <th>Where</th>
        <th>What</th>
        <th class="num">Pieces</th>
        <th class="num">Length, {{ units.way.length }}</th>
        <th class="num">Each, {{ partUnit() }}</th>
        <th>Start and end</th>
        <th class="num">Sum, {{ partUnit() }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="cut in cuts" :key="cut.placementId">
        <td>
          <b>{{ ZONE_NAMES[cut.zone] }}</b><template v-if="cut.sides === 2">, both sides</template>
        </td>
        <td>
          {{ cut.part?.name ?? 'as it is' }}<template v-if="cut.onBevels">, on every other bevel</template
          ><template v-else-if="cut.layers > 1">, {{ cut.layers }} layers</template>
        </td>
        <td class="num">{{ cut.pieces }}</td>
        <td class="num">{{ cut.lengthCm > 0 ? units.benchLength(cut.lengthCm) : '—' }}</td>
        <td class="num">{{ partNumber(cut.pieceG, 2) }}</td>
        <td>{{ placeWords(cut, units.bench) }}</td>
        <td class="num">
          <b>{{ partNumber(cut.massG) }}</b>
        </td>
      </tr>
      <tr v-if="cuts.length === 0">
        <td colspan="7" class="soft">Nothing to cut in this build.</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
caption {
  text-align: left;
  padding: 6px 8px 0;
}
td {
  padding: 5px 8px;
}
th {
  padding: 3px 8px;
}
</style>
