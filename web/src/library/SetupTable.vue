<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual';
import { SPECS } from '@kevro/core';
import { computed, ref, watch } from 'vue';
import type { SetupRow } from '@kevro/contract';
import { useUnits } from '../stores/units';
import { COLUMN_NAMES, cellOf, isSpec, type ColumnKey, type SortKey } from './setup-view';

/** A list of setups of any length: only the rows that are seen are drawn, and read. */
const props = defineProps<{
  total: number;
  row: (i: number) => SetupRow | undefined;
  columns: readonly ColumnKey[];
  sort: SortKey;
  down: boolean;
}>();
const emit = defineEmits<{ look: [from: number, to: number]; sort: [key: SortKey] }>();
const units = useUnits();
const scroller = ref<HTMLElement>();
const virtualizer = useVirtualizer(
  computed(() => ({
    count: props.total,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => 59,
    overscan: 10,
  })),
);
const items = computed(() => virtualizer.value.getVirtualItems());
watch(
  () => [items.value[0]?.index ?? 0, items.value.at(-1)?.index ?? 0, props.total] as const,
  ([from, to, total]) => {
    if (total > 0) emit('look', from, to);
  },
  { immediate: true },
);
const above = computed(() => items.value[0]?.start ?? 0);
const below = computed(() => virtualizer.value.getTotalSize() - (items.value.at(-1)?.end ?? 0));

const sorts = computed((): { key: ColumnKey; sort: SortKey | undefined }[] =>
  props.columns.map((key) => ({
    key,
    sort: isSpec(key) ? SPECS[key].short : key === 'source' ? 'year' : undefined,
  })),
);
const sorted = (key: SortKey | undefined) => {
  if (key === undefined || key !== props.sort) return undefined;
  return props.down !== (key === 'year') ? 'descending' : 'ascending';
};
const ARROW = { ascending: '↑', descending: '↓' };
const arrow = (key: SortKey | undefined): string => {
  const way = sorted(key);
  return way ? ARROW[way] : '';
};
</script>

<template>
  <div ref="scroller" class="scroller" tabindex="0" role="region" aria-label="Setups">
    <table class="plain wide" :aria-rowcount="total + 1">
      <thead>
        <tr aria-rowindex="1">
          <th :aria-sort="sorted('name')">
            <button type="button" class="sorter" @click="emit('sort', 'name')">
              Name {{ arrow('name') }}
            </button>
          </th>
          <th
            v-for="{ key, sort: by } in sorts"
            :key="key"
            :class="{ num: isSpec(key) }"
            :aria-sort="sorted(by)"
          >
            <button v-if="by" type="button" class="sorter" @click="emit('sort', by)">
              {{ COLUMN_NAMES[key] }} {{ arrow(by) }}
            </button>
            <template v-else>{{ COLUMN_NAMES[key] }}</template>
            <template v-if="isSpec(key)"
              ><br /><span class="unit">{{ units.unit(key) }}</span></template
            >
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="above > 0" class="gap" aria-hidden="true">
          <td :style="{ height: `${above}px` }" />
        </tr>
        <tr
          v-for="item in items"
          :key="item.index"
          :ref="(el) => virtualizer.measureElement(el as Element | null)"
          :data-index="item.index"
          :data-row="row(item.index)?.id"
          :aria-rowindex="item.index + 2"
        >
          <template v-for="s in [row(item.index)]" :key="s?.id ?? 'coming'">
            <template v-if="s">
              <td>
                <router-link class="row-name" :to="{ name: 'setup', params: { id: s.id } }">{{
                  s.name
                }}</router-link>
                <div class="soft small">{{ s.frameName }}</div>
              </td>
              <td
                v-for="key in columns"
                :key="key"
                :class="isSpec(key) ? 'num nowrap' : 'small'"
                :data-head="COLUMN_NAMES[key]"
              >
                {{ cellOf(key, s, units) }}
                <div v-if="key === 'source' && s.source" class="soft">{{ s.source }}</div>
                <div v-if="key === 'dress' && s.specs.axisCm" class="soft">
                  swung about {{ units.showMeasure('length', s.specs.axisCm) }}
                </div>
              </td>
            </template>
            <td v-else :colspan="columns.length + 1" class="soft coming">…</td>
          </template>
        </tr>
        <tr v-if="below > 0" class="gap" aria-hidden="true">
          <td :style="{ height: `${below}px` }" />
        </tr>
      </tbody>
    </table>
  </div>
  <p class="print-only soft small">
    On paper: the rows that were on the screen. The whole list goes out as a file.
  </p>
</template>

<style scoped>
.scroller {
  max-height: calc(100vh - 268px);
  min-height: 240px;
  overflow: auto;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
thead th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: rgb(var(--v-theme-paper));
}
.sorter {
  text-decoration: underline;
  text-decoration-color: rgb(var(--v-theme-line));
  text-underline-offset: 3px;
  font-weight: 600;
  white-space: nowrap;
}
.unit {
  font-weight: 400;
}
.gap td {
  border: 0 !important;
  padding: 0 !important;
}
/* Rows of one height, so that the end of the list is where it is looked for. */
tbody tr:not(.gap) td {
  height: 59px;
}
/* Cards say their heads themselves. */
@media (max-width: 640px) {
  thead {
    display: none;
  }
}
@media print {
  .scroller {
    max-height: none;
    overflow: visible;
  }
  .gap {
    display: none;
  }
}
</style>
