<script setup lang="ts">
import { computedAsync } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import {
  SPECS,
  SHAPED_SPORT,
  SHAPE_FIRSTS,
  SPEC_KEYS,
  sportData,
  type SpecKey,
  type Sport,
} from '@kevro/core';
import { SHAPE_NAMES, type GuideRow } from '@kevro/contract';
import { api } from '../api/client';
import ChoiceRow from '../ui/ChoiceRow.vue';
import FormDialog from '../forms/FormDialog.vue';
import NumberField from '../forms/NumberField.vue';
import { dressWords } from '../words/dress';
import { useDraft } from '../forms/draft';
import { useKept } from '../ui/kept';
import { sentOrNone, type Typed } from '../ui/typed';
import { SPORT_ITEMS } from '../words/players';
import { useGuides } from '../stores/guides';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import { GUIDE_NAMES, SPEC_NAMES } from '../words';

// What a fitter comes here to do: see what suits whom; make a band the shop's own, or have it back as it ships; advise on a paddle's shape.
const guides = useGuides();
const saved = useSaved();
const units = useUnits();
const sport = useKept<Sport>('kevro-guides-sport', 'tennis');
const shape = computed(() => ({ sport: sport.value, lengthCm: sportData(sport.value).lengthCm }));
const rows = computed(() => (guides.rows ?? []).filter((row) => row.sport === sport.value));
const keys = computed(() => SPEC_KEYS.filter((key) => rows.value.some(({ bands }) => bands[key])));

function bandWords(key: SpecKey, row: GuideRow): string {
  const band = row.bands[key];
  if (!band) return '—';
  const say = (value: number): string => units.show(key, value, shape.value);
  if (band.from !== undefined && band.to !== undefined) return `${say(band.from)} to ${say(band.to)}`;
  return band.from === undefined ? `under ${say(band.to ?? 0)}` : `from ${say(band.from)}`;
}
const open = ref(false);
const changing = shallowRef<GuideRow>();
const draft = useDraft<Partial<Record<SpecKey, { from: Typed; to: Typed }>>>(() => ({}));
const ends = draft.value;
function change(row: GuideRow): void {
  changing.value = row;
  const start = Object.fromEntries(
    keys.value.map((key) => [key, { from: row.bands[key]?.from ?? null, to: row.bands[key]?.to ?? null }]),
  );
  draft.begin(`guide ${idOf(row)}`, start);
  open.value = true;
}
const idOf = ({ sport: of, name }: GuideRow): string => `${of}-${name}`;
const dressOf = (key: SpecKey) => rows.value.find(({ bands }) => bands[key])?.bands[key]?.dress ?? {};
function submit(): Promise<unknown> {
  const row = changing.value as GuideRow;
  const body = Object.fromEntries(
    keys.value.flatMap((key) => {
      const { from, to } = ends.value[key] ?? { from: null, to: null };
      if (from === null && to === null) return [];
      const said = Object.entries({ from: sentOrNone(from), to: sentOrNone(to) }).filter(
        ([, value]) => value !== undefined,
      );
      return [[key, { ...Object.fromEntries(said), dress: row.bands[key]?.dress ?? dressOf(key) }]];
    }),
  );
  return api('editGuide', { id: idOf(row), body });
}
async function stored(): Promise<void> {
  saved.stored();
  await guides.load();
}
async function restore(row: GuideRow): Promise<void> {
  try {
    await api('restoreGuide', { id: idOf(row), body: {} });
    await stored();
  } catch (error) {
    saved.failed(error);
  }
}

const FIRST = { hands: 'Quick hands', power: 'Power', forgiveness: 'Forgiveness', reach: 'Reach' } as const;
const firsts = SHAPE_FIRSTS.map((value) => ({ value, title: FIRST[value] }));
const first = ref<(typeof SHAPE_FIRSTS)[number]>('hands');
const misHits = ref<'none' | 'tip' | 'sides'>('none');
const from = ref<'none' | 'other-racket-sport' | 'new'>('none');
const MIS = [
  { value: 'none', title: 'anywhere' },
  { value: 'tip', title: 'toward the tip' },
  { value: 'sides', title: 'toward the sides' },
] as const;
const FROM = [
  { value: 'none', title: 'has played' },
  { value: 'other-racket-sport', title: 'from another racket sport' },
  { value: 'new', title: 'new to it' },
] as const;
const averages = sportData(SHAPED_SPORT).shapeAverages;
/** Of two answers the one that was asked for last counts. */
const advice = computedAsync(() =>
  api('shapeAdvice', {
    body: {
      first: first.value,
      ...(misHits.value === 'none' ? {} : { misHits: misHits.value }),
      ...(from.value === 'none' ? {} : { from: from.value }),
    },
  }).catch(() => undefined),
);
</script>

<template>
  <div class="page">
    <div class="page-top">
      <div>
        <h1>Guides</h1>
        <p class="soft mb-0">
          <router-link :to="{ name: 'setups' }">Setups</router-link> · Typical ranges by player. Common
          practice; your judgement comes first.
        </p>
      </div>
    </div>
    <ChoiceRow v-model="sport" label="Sport" :choices="SPORT_ITEMS" class="choice mb-4" />
    <p v-if="guides.failure" class="miss" role="alert">
      {{ guides.failure }} <v-btn variant="outlined" @click="guides.load()">Try again</v-btn>
    </p>
    <p v-else-if="!guides.rows" class="soft" role="status">Loading…</p>
    <table v-else class="plain">
      <thead>
        <tr>
          <th>Player</th>
          <th v-for="key in keys" :key="key" class="num">
            {{ SPEC_NAMES[key] }}<br /><span class="unit"
              >{{ units.unit(key) }}, {{ dressWords(dressOf(key), sport) }}</span
            >
          </th>
          <th class="no-print"><span class="d-sr-only">Change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <td>
            <b>{{ GUIDE_NAMES[row.name] }}</b><span v-if="row.edited" class="soft small ml-2"
              >changed by the shop</span
            >
          </td>
          <td v-for="key in keys" :key="key" class="num nowrap">{{ bandWords(key, row) }}</td>
          <td class="num no-print nowrap">
            <v-btn
              v-if="row.edited"
              variant="text"
              :aria-label="`${GUIDE_NAMES[row.name]} as it ships`"
              @click="restore(row)"
              >Reset</v-btn
            >
            <v-btn variant="text" :aria-label="`Change ${GUIDE_NAMES[row.name]}`" @click="change(row)"
              >Change</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <section v-if="sport === SHAPED_SPORT" class="mt-6" aria-label="Shape of a paddle">
      <h2 class="heading mb-2">Which shape of paddle</h2>
      <div class="asked">
        <div>
          <p class="soft small mb-1">Priority</p>
          <ChoiceRow v-model="first" label="Priority" :choices="firsts" />
        </div>
        <div>
          <p class="soft small mb-1">Mis-hits toward</p>
          <ChoiceRow v-model="misHits" label="Mis-hits toward" :choices="MIS" />
        </div>
        <div>
          <p class="soft small mb-1">The player</p>
          <ChoiceRow v-model="from" label="The player" :choices="FROM" />
        </div>
      </div>
      <ol class="shapes" role="status">
        <li v-for="{ shape: name, reasons } in advice?.shapes ?? []" :key="name">
          <b>{{ SHAPE_NAMES[name] }}</b> <span class="soft">{{ reasons.join(' ') }}</span>
          <span v-if="averages[name]?.swingWeight !== undefined" class="soft nowrap">
            Class average: {{ SPECS.swingWeight.name }}
            {{ units.show('swingWeight', averages[name].swingWeight, shape) }}
            {{ units.unit('swingWeight') }}.</span
          >
        </li>
      </ol>
    </section>
    <FormDialog
      v-model="open"
      :title="changing ? `Change ${GUIDE_NAMES[changing.name]}` : ''"
      store="Store"
      :submit="submit"
      :draft="draft"
      @stored="stored"
    >
      <template #default="{ said }">
        <div v-for="key in keys.filter((one) => ends[one])" :key="key" class="two">
          <NumberField
            v-model="ends[key]!.from"
            :label="`${SPEC_NAMES[key]} from`"
            :spec="key"
            :shape="shape"
            :error="said(`${key}.from`)"
          />
          <NumberField
            v-model="ends[key]!.to"
            label="to"
            :spec="key"
            :shape="shape"
            :error="said(`${key}.to`)"
          />
        </div>
      </template>
    </FormDialog>
  </div>
</template>

<style scoped>
.choice {
  max-width: 520px;
}
.unit {
  font-weight: 400;
}
.asked {
  display: grid;
  gap: 12px;
  max-width: 640px;
}
.shapes li {
  padding: 4px 0;
}
</style>
