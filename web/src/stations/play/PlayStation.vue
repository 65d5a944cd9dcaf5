<script setup lang="ts">
import { partWeight } from '../../words/part-weight';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { programmeTraits, countedSessions, measuredIn } from '@kevro/core';
import { Refused, api } from '../../api/client';
import { useRecord } from '../../api/queries';
import { useKeys } from '../../ui/keys';
import { useActKey } from '../../forms/act-key';
import { useKept } from '../../ui/kept';
import { later } from '../../stores/later';
import WhatWorks from '../../bench/WhatWorks.vue';
import Rail from '../../rail/Rail.vue';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import Bench from '../../bench/Bench.vue';
import NotYet from '../../bench/NotYet.vue';
import PlayChart from './PlayChart.vue';
import ProgrammePart from './ProgrammePart.vue';
import RoundsHistory from './RoundsHistory.vue';
import SessionTable from './SessionTable.vue';
import { useOutlook } from './outlook';

// What a fitter comes here to do: note how it played, in under a minute; see the next step and why, and take it to the bench; go back to what was better.
const fitting = useFitting();
const saved = useSaved();
const router = useRouter();
const by = useKept('kevro-by', '');
const NoteSession = later(() => import('./NoteSession.vue'));
const BeginProgramme = later(() => import('./BeginProgramme.vue'));
const WhyAllTheSame = later(() => import('./WhyAllTheSame.vue'));
const PlayerLink = later(() => import('./PlayerLink.vue'));
const noting = ref(false);
const beginning = ref(false);
const linking = ref(false);
const ending = ref(false);

const closed = computed(() => fitting.view?.closed !== null);
const measured = computed(() => fitting.round && measuredIn(fitting.round));
const weights = computed(() => fitting.record?.weights ?? []);
const labels = computed(() => weights.value.map((p) => partWeight(p.massG / p.sides)));
const { next: ofProgramme, answer } = useOutlook();
const next = computed(() => ofProgramme.value ?? answer.value?.next);
const sessionCount = computed(() =>
  fitting.rounds.reduce((all, round) => all + countedSessions(round.sessions).length, 0),
);

/** Every session of the player, in other fittings too: what works is asked of them all. */
const { record: playedByPlayer, load: loadSessions } = useRecord('playerPage', () => fitting.view?.player.id);
const sessions = computed(() => playedByPlayer.value?.sessions);
watch(sessionCount, loadSessions);

const busy = ref(false);
const canTake = computed(
  () => !closed.value && Boolean(next.value?.ready) && next.value?.ready?.short.length === 0,
);
/** What speaks against the step, where it is gone past only with a reason. */
const guard = ref('');
const explaining = ref(false);
const key = useActKey();
async function takeIt(note: string, own: string): Promise<void> {
  const { view, record } = fitting;
  // Without a programme the one begins whose first step it is.
  const name = answer.value?.programme;
  if (view && record && !fitting.programme && name)
    await fitting.stored(
      await api('beginProgramme', {
        id: view.id,
        body: { key: `begin ${own}`, frameId: record.id, name, note, by: by.value },
      }),
    );
  const { programme } = fitting;
  if (!view || !programme) return;
  await fitting.stored(
    await api('takeStep', {
      id: view.id,
      body: {
        key: own,
        programmeId: programme.id,
        sessions: programme.sessions,
        note,
        by: by.value,
      },
    }),
  );
  await router.push({ name: 'build' });
}
async function take(): Promise<void> {
  if (!canTake.value || busy.value) return;
  busy.value = true;
  try {
    await key.once((own) => takeIt('', own));
  } catch (error) {
    if (error instanceof Refused && error.at('note')) {
      guard.value = error.at('note') ?? '';
      explaining.value = true;
    } else {
      saved.failed(error);
      await fitting.stored().catch(() => undefined);
    }
  } finally {
    busy.value = false;
  }
}
const isOver = computed(
  () =>
    next.value &&
    fitting.programme &&
    next.value.state !== 'go-on' &&
    !next.value.ready &&
    !programmeTraits(fitting.programme.name).asksForDay,
);
const note = (): boolean => {
  if (!closed.value) noting.value = true;
  return !closed.value;
};
useKeys({ n: note, a: () => (canTake.value ? void take() : false) });
</script>

<template>
  <NotYet
    v-if="!fitting.before || !fitting.frame || !fitting.record || !fitting.round"
    missing="Nothing is measured yet"
    station="measure"
  />
  <Bench v-else :title="`Play ${fitting.record.tag}`" aside-label="What is next?">
    <div class="rail">
      <Rail
        :frame="fitting.frame"
        :dress="fitting.record.onIt"
        :measured-balance-cm="measured?.specs.balanceCm"
        :weights="weights"
        :weight-labels="labels"
      />
    </div>
    <PlayChart />
    <SessionTable />
    <RoundsHistory />

    <template #aside>
      <ProgrammePart v-model:ending="ending" @begin="beginning = true" />
      <section aria-label="What works">
        <h2 class="heading">What works</h2>
        <p v-if="!sessions" class="soft small mb-0">Looking up the player’s sessions…</p>
        <WhatWorks v-else class="small" :sport="fitting.record.shape.sport" :sessions="sessions" narrow />
      </section>
      <section v-if="!closed" aria-label="The player’s link">
        <p class="soft small mb-0">
          Player’s link for the next session: opens that form only, ends in 14 days.
          <button type="button" class="link" @click="linking = true">Show the code</button>
        </p>
      </section>
    </template>

    <template v-if="!closed" #action>
      <v-btn v-if="canTake" color="primary" size="large" block :loading="busy" @click="take"
        >Make the build sheet for this step</v-btn
      >
      <v-btn v-else-if="next?.waitsFor === 'build'" color="primary" size="large" block :to="{ name: 'build' }"
        >Go to Build</v-btn
      >
      <v-btn v-else-if="next?.waitsFor === 'check'" color="primary" size="large" block :to="{ name: 'check' }"
        >Go to Check</v-btn
      >
      <v-btn v-else-if="isOver" color="primary" size="large" block @click="ending = true"
        >End the programme…</v-btn
      >
      <v-btn
        :color="canTake || next?.waitsFor || isOver ? undefined : 'primary'"
        :variant="canTake || next?.waitsFor || isOver ? 'outlined' : 'flat'"
        size="large"
        block
        @click="noting = true"
        >Add session</v-btn
      >
    </template>
    <template #keys>
      <span><kbd>n</kbd> add session</span><span v-if="canTake"><kbd>a</kbd> accept</span>
    </template>
  </Bench>
  <NoteSession v-if="noting" v-model="noting" />
  <BeginProgramme v-if="beginning" v-model="beginning" />
  <PlayerLink v-if="linking" v-model="linking" />
  <WhyAllTheSame v-if="explaining" v-model="explaining" :guard="guard" :act="takeIt" />
</template>

<style scoped>
/* The frame says what is on it; what is looked at here is how it played. */
.rail {
  max-width: 520px;
  margin: 0 auto;
}
</style>
