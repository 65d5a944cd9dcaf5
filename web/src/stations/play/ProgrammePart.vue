<script setup lang="ts">
import { partUnit, partWeight } from '../../words/part-weight';
import { computed, ref } from 'vue';
import { programmeTraits, SPECS, zoneOf, type Day, type Placement } from '@kevro/core';
import { PROGRAMME_NAMES, ZONE_NAMES, stepHeading, stepWhy, type ProgrammeAct } from '@kevro/contract';
import { api } from '../../api/client';
import ChoiceRow from '../../ui/ChoiceRow.vue';
import { counted } from '../../words/counted';
import { later } from '../../stores/later';
import { useActKey } from '../../forms/act-key';
import { useKept } from '../../ui/kept';
import { items } from '../../words/players';
import { DAY_WORDS } from '../../words/sessions';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useCatalogue } from '../../stores/catalogue';
import { useUnits } from '../../stores/units';
import { useOutlook } from './outlook';

/** The programme of the frame: what is to be done next and why, ready to be laid on; once more, another step, a pause, an end. */
const fitting = useFitting();
const saved = useSaved();
const units = useUnits();
const catalogue = useCatalogue();
const by = useKept('kevro-by', '');
const OwnStep = later(() => import('./OwnStep.vue'));
const EndProgramme = later(() => import('./EndProgramme.vue'));
const ownOpen = ref(false);
const ending = defineModel<boolean>('ending', { required: true });
const emit = defineEmits<{ begin: [] }>();

const programme = computed(() => fitting.programme);
const { next, trouble, failure, load } = useOutlook();
const sport = computed(() => fitting.record?.shape.sport ?? 'tennis');
const closed = computed(() => fitting.view?.closed !== null);
const busy = ref(false);
const key = useActKey();
async function act(name: ProgrammeAct, day?: Day): Promise<void> {
  const { view } = fitting;
  if (!view || !programme.value || busy.value) return;
  busy.value = true;
  try {
    const { id: programmeId } = programme.value;
    const body = { programmeId, act: name, by: by.value, ...(day ? { day } : {}) };
    await fitting.stored(
      await key.once((own) => api('actOnProgramme', { id: view.id, body: { ...body, key: own } })),
    );
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}
const today = computed<Day>({
  get: () => programme.value?.events.findLast(({ what }) => what === 'day')?.day ?? 'usual',
  set: (day) => void act('day', day),
});

const piece = (p: Placement): string => {
  const part = catalogue.inUse.find(({ id }) => id === p.partId);
  const zone = fitting.frame ? ZONE_NAMES[zoneOf(fitting.frame, p)].toLowerCase() : '';
  return `${partWeight(p.massG, 2)}${part ? ` ${part.name}` : ''}, ${zone}`;
};
const lines = computed(() => {
  const ready = next.value?.ready;
  if (!ready) return [];
  return [
    ...ready.removals.map(({ of, left }) =>
      left ? `shorten to ${partWeight(left.massG, 2)}: ${piece(of)}` : `take off ${piece(of)}`,
    ),
    ...ready.placements.map((p) => `put on ${piece(p)}`),
  ];
});
const becomes = computed(() => {
  const ready = next.value?.ready;
  const { record } = fitting;
  if (!ready || !record) return '';
  const pieces = ready.placements.length + ready.removals.length;
  return `${SPECS.swingWeight.name} ${units.show('swingWeight', ready.before.swingWeight, record.shape)} → ${units.show('swingWeight', ready.specs.swingWeight, record.shape)} kg·cm² · ${counted(pieces, 'piece', 'pieces')}`;
});
const short = computed(() => (next.value?.ready?.short.length ?? 0) > 0);
</script>

<template>
  <section v-if="!programme" aria-label="Programme">
    <h2 class="heading">Programme</h2>
    <p class="title">No programme yet</p>
    <p class="soft">
      A programme proposes one change at a time, from how each session felt, and knows when to stop.
    </p>
    <v-btn v-if="!closed" variant="outlined" block @click="emit('begin')">Begin a programme…</v-btn>
  </section>
  <section v-else aria-label="Programme">
    <h2 class="heading">{{ PROGRAMME_NAMES[programme.name] }}</h2>
    <template v-if="programme.state === 'paused'">
      <p class="title">Paused: no proposals</p>
      <v-btn v-if="!closed" variant="outlined" :disabled="busy" @click="act('resume')">Resume</v-btn>
    </template>
    <template v-else-if="trouble">
      <p class="title">No step can be worked out</p>
      <p class="miss" role="alert">{{ trouble }}</p>
    </template>
    <p v-else-if="failure" class="miss" role="alert">
      {{ failure }} <button type="button" class="link" @click="load">Try again</button>
    </p>
    <p v-else-if="!next" class="soft" role="status">Working out the next step…</p>
    <template v-else>
      <p class="title" :class="{ miss: next.state === 'stopped' }" role="status">
        {{ stepHeading(next, partUnit()) }}
      </p>
      <p class="mb-2">{{ stepWhy(sport, next) }}</p>
      <ChoiceRow
        v-if="programmeTraits(programme.name).asksForDay"
        v-model="today"
        label="The day to come"
        :choices="items(DAY_WORDS)"
        class="mb-2"
      />
      <p v-if="next.waitsFor === 'build'" class="warn">
        Its last step is still at the bench: build it first.
      </p>
      <p v-else-if="next.waitsFor === 'check'" class="warn">Check the last step first.</p>
      <p v-else-if="next.waitsFor === 'measure'" class="warn">Measure the frame first.</p>
      <div v-if="next.ready" class="ready">
        <b>Ready plan</b>
        <ul>
          <li v-for="line in lines" :key="line">{{ line }}</li>
        </ul>
        <p v-if="short" class="warn small mb-0">
          Not enough material in stock for this step. Add some, or choose another.
        </p>
        <p v-else class="soft small mb-0">{{ becomes }}</p>
      </div>
      <div v-if="!closed" class="acts">
        <v-btn
          v-if="next.ready && next.state === 'go-on' && !programmeTraits(programme.name).asksForDay"
          variant="outlined"
          :disabled="busy"
          @click="act('once-more')"
          >Play this once more</v-btn
        >
        <v-btn v-if="next.waitsFor === null" variant="outlined" @click="ownOpen = true"
          >Different step…</v-btn
        >
        <v-btn variant="outlined" :disabled="busy" @click="act('pause')">Pause</v-btn>
        <v-btn variant="outlined" @click="ending = true">End…</v-btn>
      </div>
    </template>
    <p v-if="programme.note" class="soft small mt-2 mb-0">{{ programme.note }}</p>
  </section>
  <OwnStep v-if="programme && ownOpen" v-model="ownOpen" />
  <EndProgramme v-if="programme && ending" v-model="ending" />
</template>

<style scoped>
.title {
  font-size: 23px;
  font-weight: 700;
  line-height: 1.2;
  margin: 4px 0 8px;
}
.ready {
  border: 2px solid rgb(var(--v-theme-ink));
  padding: 8px 12px;
  margin-bottom: 10px;
}
.ready ul {
  list-style: none;
  padding: 0;
  margin: 2px 0 4px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
