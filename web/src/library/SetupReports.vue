<script setup lang="ts">
import { computed } from 'vue';
import {
  type SpecKey,
  isPlanned,
  specsToShow,
  bringTo,
  compareReports,
  explainOutcome,
  sportData,
  type Dress,
  type AnySpecKey,
} from '@kevro/core';
import type { SetupRow } from '@kevro/contract';
import { vWide } from '../ui/wide-table';
import { useWorking } from '../bench/working';
import { useUnits } from '../stores/units';
import WorkingSheet from '../bench/WorkingSheet.vue';
import { SOURCE_NAMES, SPEC_NAMES } from '../words';

/** Every report of one player's frame side by side, how far they lie apart, and which of them is to be offered. */
const props = defineProps<{ reports: readonly SetupRow[]; shown: string }>();
const emit = defineEmits<{ settle: [id: string, use: 'one' | 'average' | 'all'] }>();
const units = useUnits();
const { sheet, show } = useWorking();

const sport = computed(() => sportData(props.reports[0]?.shape.sport ?? 'tennis'));
const shape = computed(() => props.reports[0]?.shape ?? { sport: 'tennis' as const, lengthCm: 0 });
/** Reports are compared as bare frames: whoever told them, whatever was on. */
const DRESS: Dress = {};
const compared = computed(() => compareReports(props.reports, DRESS, sport.value.axisCm));
/** What was told: the average of it is none of the reports that it is made of. */
const told = computed(() =>
  compareReports(
    props.reports.filter(({ averaged }) => !averaged),
    DRESS,
    sport.value.axisCm,
  ),
);
const standing = computed(() => props.reports.filter(({ standsBack }) => !standsBack));
const keys = computed(() => specsToShow(props.reports.map(({ specs }) => specs)));
const number = (key: AnySpecKey, value: number | undefined): string =>
  value === undefined ? '—' : units.show(key, value, shape.value);
function explain(report: SetupRow, key: SpecKey): void {
  const { outcome } = bringTo(report, DRESS, sport.value.axisCm);
  show(
    key,
    explainOutcome(key, outcome, {
      before: 'as published',
      after: 'as a bare frame',
      nameOf: (part) => `${part.name}, ${part.takenOff ? 'taken off' : 'put on'}`,
      assumes: 'typical masses of strings and grips where they were not weighed',
    }),
    `${report.name}${report.year ? ` ${report.year}` : ''}`,
  );
}
</script>

<template>
  <section aria-label="Reports of this frame">
    <h2 class="heading">
      {{
        reports.length === 1
          ? 'The only report of this player’s frame'
          : `${reports.length} reports of this player’s frame`
      }}
    </h2>
    <p class="soft small">
      Shown bare, about {{ units.showMeasure('length', sport.axisCm) }}, so reports can be compared. Click a
      number to see how it was worked out.
    </p>
    <table v-wide class="plain wide">
      <thead>
        <tr>
          <th>Report</th>
          <th v-for="key in keys" :key="key" class="num">
            {{ SPEC_NAMES[key] }}<br /><span class="unit">{{ units.unit(key) }}</span>
          </th>
          <th class="no-print"><span class="d-sr-only">Choose</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(r, i) in reports" :key="r.id" :class="{ back: r.standsBack }">
          <td>
            <router-link
              :to="{ name: 'setup', params: { id: r.id } }"
              :aria-current="r.id === shown ? 'page' : undefined"
            >
              {{ SOURCE_NAMES[r.sourceKind] }}{{ r.year ? ` ${r.year}` : '' }}
            </router-link>
            <div class="soft small">
              {{ r.source }} · {{ r.confidence }} confidence{{ r.standsBack ? ' · not used' : '' }}
            </div>
          </td>
          <td v-for="key in keys" :key="key" class="num nowrap">
            <button
              v-if="isPlanned(key) && compared[key]?.values[i] !== undefined"
              type="button"
              class="value"
              @click="explain(r, key)"
            >
              {{ number(key, compared[key]?.values[i])
              }}<span class="d-sr-only">: show how it came about</span>
            </button>
            <template v-else>{{ number(key, compared[key]?.values[i]) }}</template>
          </td>
          <td class="no-print num">
            <v-btn
              v-if="reports.length > 1 && (standing.length > 1 || r.standsBack)"
              variant="text"
              :aria-label="`Use this: ${r.source || SOURCE_NAMES[r.sourceKind]}`"
              @click="emit('settle', r.id, 'one')"
              >Use this</v-btn
            >
          </td>
        </tr>
      </tbody>
      <tfoot v-if="reports.length > 1">
        <tr>
          <td>Spread</td>
          <td v-for="key in keys" :key="key" class="num nowrap" :class="{ warn: told[key]?.disagree }">
            {{ told[key] ? units.showWidth(key, told[key]!.spread, shape.sport) : '—' }}
            <div v-if="told[key]?.disagree" class="small">disagree</div>
          </td>
          <td class="no-print" />
        </tr>
        <tr>
          <td>Weighted by confidence</td>
          <td v-for="key in keys" :key="key" class="num nowrap">
            {{ number(key, told[key]?.average) }}
          </td>
          <td class="no-print num">
            <v-btn variant="text" @click="emit('settle', shown, 'average')">Use the average</v-btn>
          </td>
        </tr>
      </tfoot>
    </table>
    <p v-if="reports.length > 1 && standing.length < reports.length" class="no-print">
      <v-btn variant="outlined" @click="emit('settle', shown, 'all')">Use all reports</v-btn>
    </p>
    <WorkingSheet
      v-model="sheet.open"
      :title="sheet.title"
      :parts="sheet.parts"
      :length-cm="shape.lengthCm"
    />
  </section>
</template>

<style scoped>
.unit {
  font-weight: 400;
}
.value {
  text-decoration: underline;
  text-decoration-color: rgb(var(--v-theme-line));
  text-underline-offset: 3px;
}
.back td {
  color: rgb(var(--v-theme-soft));
}
tfoot td {
  font-weight: 600;
}
</style>
