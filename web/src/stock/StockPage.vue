<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { computed, nextTick, reactive, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { PART_KINDS, type PartKind } from '@kevro/core';
import type { PartRecord, PartRow } from '@kevro/contract';
import { api } from '../api/client';
import ListFoot from '../ui/ListFoot.vue';
import ListPage from '../ui/ListPage.vue';
import { focusRow } from '../ui/focus';
import { useListing } from '../api/queries';
import { useCatalogue } from '../stores/catalogue';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import { fieldUnit, PART_WORDS } from '../words';
import AddStarters from '../forms/AddStarters.vue';
import { sampleWords } from '../forms/starters';
import PartForm from './PartForm.vue';
import WeighPart from './WeighPart.vue';
import { vWide } from '../ui/wide-table';

// What a fitter comes here to do: look up what a part weighs; add one that came in, or weigh one anew; take one out of use.
const catalogue = useCatalogue();
const saved = useSaved();
const units = useUnits();
const { rows, failure } = storeToRefs(catalogue);
const { load } = catalogue;
const shelf = useListing('stock', reactive({}), ({ limit, offset }) =>
  api('frames', { query: { owner: 'stock', limit, offset } }),
);
const form = ref<InstanceType<typeof PartForm>>();
const weighing = ref<InstanceType<typeof WeighPart>>();
const withRetired = ref(false);

interface Group {
  kind: PartKind;
  parts: PartRow[];
}
const groups = computed<Group[]>(() =>
  PART_KINDS.map((kind) => ({
    kind,
    parts: (rows.value ?? []).filter(
      ({ part, retired }) => part.kind === kind && (withRetired.value || !retired),
    ),
  })).filter(({ parts }) => parts.length > 0),
);
/** The parts in use: their labels are printed together. */
const labelled = computed(() =>
  (rows.value ?? []).flatMap(({ part, retired }) => (retired ? [] : part.id)).join(','),
);
// A part's label leads to its row.
const route = useRoute();
watch(
  () => [route.query.part, rows.value] as const,
  ([part, known]) => void (typeof part === 'string' && known && nextTick(() => focusRow(part))),
  { immediate: true },
);
const retiredCount = computed(() => (rows.value ?? []).filter(({ retired }) => retired).length);
const valueOf = ({ part }: PartRow, field: string): string => {
  const value = (part as unknown as Record<string, string | number | undefined>)[field];
  if (value === undefined) return '—';
  const of = PART_WORDS[part.kind].fields[field];
  return typeof value === 'number'
    ? units.measureWriting(of?.measure ?? 'number', of && fieldUnit(of)).write(value)
    : value;
};
/** The columns of a group: what every part of the kind has, and what at least one of these is known by. */
const columnsOf = (group: Group) =>
  Object.entries(PART_WORDS[group.kind].fields).filter(
    ([field, of]) => of && (!of.optional || group.parts.some((row) => valueOf(row, field) !== '—')),
  );
const isNumber = ({ parts }: Group, field: string): boolean =>
  parts.some(({ part }) => typeof (part as unknown as Record<string, unknown>)[field] === 'number');

async function stored({ id }: PartRecord): Promise<void> {
  saved.stored();
  await load();
  focusRow(id);
}
async function retire({ part, retired }: PartRow): Promise<void> {
  try {
    await api('retirePart', { id: part.id, body: { retired: !retired } });
    saved.stored();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}
</script>

<template>
  <ListPage
    title="Stock"
    action="Add a part"
    :rows="rows"
    :failure="failure"
    empty="No parts yet. A plan needs one for the hoop and one for the handle: tape and putty, say."
    @act="form?.show()"
    @retry="load"
  >
    <template #filter>
      <router-link class="no-print" :to="{ name: 'learning' }">What your tape really weighs</router-link>
      <router-link v-if="labelled" class="no-print" :to="{ name: 'labels', query: { parts: labelled } }"
        >Print labels</router-link
      >
      <v-checkbox v-if="retiredCount > 0" v-model="withRetired" :label="`Retired ones (${retiredCount})`" />
    </template>
    <template #default>
      <table v-for="group in groups" :key="group.kind" v-wide class="plain wide mb-6">
        <caption class="heading">
          {{
            PART_WORDS[group.kind].many
          }}
        </caption>
        <thead>
          <tr>
            <th class="name">Name</th>
            <th
              v-for="[field, said] in columnsOf(group)"
              :key="field"
              :class="{ num: isNumber(group, field) }"
            >
              {{ said?.label }}<template v-if="said?.unit">, {{ fieldUnit(said) }}</template>
            </th>
            <th class="num"><span class="d-sr-only">Edit</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in group.parts" :key="row.part.id" :data-row="row.part.id">
            <td>
              <b>{{ row.part.name }}</b>
              <span v-if="row.retired" class="warn small"> retired</span>
              <span v-else-if="row.part.typical" class="warn small"> typical: weigh yours</span>
              <div v-if="row.part.note" class="soft small">{{ row.part.note }}</div>
            </td>
            <td
              v-for="[field] in columnsOf(group)"
              :key="field"
              class="nowrap"
              :class="{ num: isNumber(group, field) }"
            >
              {{ valueOf(row, field) }}
            </td>
            <td class="num nowrap">
              <v-btn
                v-if="sampleWords(row.part) && !row.retired"
                variant="text"
                :aria-label="`Weigh ${row.part.name}`"
                @click="weighing?.show(row.part)"
                >Weigh</v-btn
              >
              <v-btn variant="text" :aria-label="`Change ${row.part.name}`" @click="form?.show(row.part)"
                >Change</v-btn
              >
              <v-btn
                variant="text"
                :aria-label="`${row.retired ? 'Bring back' : 'Retire'} ${row.part.name}`"
                @click="retire(row)"
                >{{ row.retired ? 'Bring back' : 'Retire' }}</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <div class="mt-6 mb-2 shelf-head">
        <h2 class="heading">Frames in stock</h2>
        <router-link class="no-print" :to="{ name: 'shelf' }">Which of them suits a player?</router-link>
        <router-link class="no-print" :to="{ name: 'match' }">Match frames</router-link>
      </div>
      <p v-if="shelf.failure.value" class="miss">{{ shelf.failure.value }}</p>
      <p v-else-if="shelf.rows.value?.length === 0" class="soft">None.</p>
      <p v-for="f in shelf.rows.value ?? []" :key="f.id" class="mb-1">
        <RouterLink :to="`/frames/${f.id}`"
          ><b>{{ f.tag }}</b></RouterLink
        >
        {{ f.maker }} {{ f.model }}
      </p>
      <ListFoot :left="shelf.left.value" @more="shelf.more" />
    </template>
    <template #after>
      <AddStarters v-if="rows?.length === 0" @added="load" />
      <PartForm ref="form" @stored="stored" />
      <WeighPart ref="weighing" @stored="stored" />
    </template>
  </ListPage>
</template>

<style scoped>
td {
  vertical-align: middle;
}
caption {
  text-align: left;
  padding: 6px 8px 2px;
}
.shelf-head {
  display: flex;
  gap: 16px;
  align-items: baseline;
}
.name {
  width: 26%;
}
</style>
