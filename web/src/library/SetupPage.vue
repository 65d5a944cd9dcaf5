<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { specsToShow, type AnySpecKey } from '@kevro/core';
import { api } from '../api/client';
import { useActKey } from '../forms/act-key';
import { useRecord } from '../api/queries';
import { dayWords } from '../words/days';
import { dressWords } from '../words/dress';
import { useSaved } from '../stores/saved';
import { useWholeLibrary } from '../stores/whole-library';
import { useUnits } from '../stores/units';
import { CONFIDENCE_NAMES, SOURCE_NAMES, SPEC_NAMES } from '../words';
import SetupForm from './SetupForm.vue';
import SetupReports from './SetupReports.vue';

// What a fitter comes here to do: see all that is told of a setup, and of the same frame by others; choose which report counts; put it right.
const props = defineProps<{ id: string }>();
const units = useUnits();
const saved = useSaved();
const whole = useWholeLibrary();
/** What was worked out of the whole library holds no more. */
const changed = (): void => {
  saved.stored();
  whole.forget();
};
const router = useRouter();
const { record: page, failure, load, show } = useRecord('setup', () => props.id);
watch(page, (now) => {
  if (now) document.title = `${now.setup.name} · Kevro`;
});
const form = ref<InstanceType<typeof SetupForm>>();

const shape = computed(() => page.value?.setup.shape ?? { sport: 'tennis' as const, lengthCm: 0 });
const number = (key: AnySpecKey, value: number | undefined): string =>
  value === undefined ? '—' : units.show(key, value, shape.value);

const actKey = useActKey();
async function settle(id: string, use: 'one' | 'average' | 'all'): Promise<void> {
  try {
    const settled = await actKey.once((own) => api('settleReports', { id, body: { use, key: own } }));
    show(settled);
    changed();
    if (settled.setup.id !== props.id)
      await router.replace({ name: 'setup', params: { id: settled.setup.id } });
  } catch (error) {
    saved.failed(error);
  }
}
async function edited(): Promise<void> {
  changed();
  await load();
}
async function retire(): Promise<void> {
  const setup = page.value?.setup;
  if (!setup) return;
  try {
    await api('retireSetup', { id: setup.id, body: { retired: !setup.retired } });
    changed();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}

/** All that is told of it, each in a line; what is not known has none. */
const facts = computed((): [string, string][] => {
  const s = page.value?.setup;
  if (!s) return [];
  const all: [string, string | undefined][] = [
    ['Kind of source', SOURCE_NAMES[s.sourceKind]],
    ['Source', s.source],
    ['Link', s.link],
    ['Year', s.year === null ? undefined : String(s.year)],
    ['Published on', s.reportedOn === null ? undefined : dayWords(s.reportedOn)],
    ['Confidence', CONFIDENCE_NAMES[s.confidence]],
    ['How they play', s.style],
    ['Frame underneath', s.frameName],
    ['Paint says', s.paint],
    ['Shape', s.shape.shape],
    ['Length', units.showMeasure('length', s.shape.lengthCm)],
    [
      'Head size',
      s.shape.headAreaCm2 === undefined ? undefined : units.showMeasure('area', s.shape.headAreaCm2),
    ],
    ['On it', dressWords(s.dress, s.shape.sport)],
    ['Swung about', s.specs.axisCm === undefined ? undefined : units.showMeasure('length', s.specs.axisCm)],
    ['Pattern', s.facts.pattern],
    ['Beam', s.facts.beam && `${s.facts.beam} mm`],
    ['Grip size', s.facts.gripSize],
    ['Note', s.facts.note],
    ['Left side heavier by', s.facts.leftRightG === undefined ? undefined : `${s.facts.leftRightG} g`],
    ['Mains', s.strings.mains],
    ['Crosses', s.strings.crosses],
    ['Gauge', s.strings.gauge],
    ['Tension', s.strings.tension],
  ];
  return all.filter((fact): fact is [string, string] => Boolean(fact[1]));
});
</script>

<template>
  <div v-if="failure" class="page" role="alert">
    <h1>Setup</h1>
    <p class="miss">{{ failure }}</p>
    <v-btn variant="outlined" @click="load">Try again</v-btn>
  </div>
  <div v-else-if="!page" class="page">
    <h1>Setup</h1>
    <p class="soft" role="status">Loading…</p>
  </div>
  <div v-else class="page">
    <div class="page-top">
      <div>
        <h1>{{ page.setup.name }}</h1>
        <p class="soft mb-0">
          <router-link :to="{ name: 'setups' }">Setups</router-link>
          <template v-if="page.setup.retired"> · retired</template>
          <template v-else-if="page.setup.standsBack"> · replaced by another report</template>
        </p>
      </div>
      <span class="spring" />
      <v-btn variant="text" @click="retire">{{ page.setup.retired ? 'Bring back' : 'Retire' }}</v-btn>
      <v-btn color="primary" size="large" @click="form?.show(page.setup)">Change</v-btn>
    </div>
    <div class="columns">
      <section aria-label="Numbers">
        <table class="plain">
          <thead>
            <tr>
              <th>Spec</th>
              <th class="num">Converted</th>
              <th>As published</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="key in specsToShow([page.setup.specs])" :key="key">
              <td>{{ SPEC_NAMES[key] }}</td>
              <td class="num nowrap">
                <b>{{ number(key, page.setup.specs[key]) }}</b>
                <span v-if="page.setup.specs[key] !== undefined" class="soft ml-1">{{
                  units.unit(key) === 'points' ? '' : units.unit(key)
                }}</span>
              </td>
              <td class="soft">{{ page.setup.asReported[key] ?? '' }}</td>
            </tr>
          </tbody>
        </table>
        <dl>
          <template v-for="[name, text] in facts" :key="name"
            ><dt>{{ name }}</dt>
            <dd>{{ text }}</dd></template
          >
        </dl>
      </section>
      <SetupReports :reports="page.reports" :shown="page.setup.id" @settle="settle" />
    </div>
    <SetupForm ref="form" @stored="edited" />
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 36px;
}
dl {
  display: grid;
  grid-template-columns: 128px 1fr;
  gap: 5px 12px;
  margin: 14px 0 0;
}
dt {
  color: rgb(var(--v-theme-soft));
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
