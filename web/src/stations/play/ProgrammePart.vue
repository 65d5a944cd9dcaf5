<script setup lang="ts">
import { computed, ref } from 'vue';
import { programmeTraits, type Day } from '@kevro/core';
import { PROGRAMME_NAMES, type ProgrammeAct } from '@kevro/contract';
import { api } from '../../api/client';
import ChoiceRow from '../../ui/ChoiceRow.vue';
import { later } from '../../stores/later';
import { useActKey } from '../../forms/act-key';
import { useKept } from '../../ui/kept';
import { items } from '../../words/players';
import { DAY_WORDS } from '../../words/sessions';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import ReadyStep from './ReadyStep.vue';
import { useOutlook } from './outlook';

/** The programme of the frame: what is to be done next and why, ready to be laid on; once more, another step, a pause, an end. */
const fitting = useFitting();
const saved = useSaved();
const by = useKept('kevro-by', '');
const OwnStep = later(() => import('./OwnStep.vue'));
const EndProgramme = later(() => import('./EndProgramme.vue'));
const ownOpen = ref(false);
const ending = defineModel<boolean>('ending', { required: true });
const emit = defineEmits<{ begin: [] }>();

const programme = computed(() => fitting.programme);
const { next, answer, answerFailure, loadAnswer, trouble, failure, load } = useOutlook();
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
</script>

<template>
  <section v-if="!programme" aria-label="Programme">
    <h2 class="heading">Programme</h2>
    <template v-if="answer?.next">
      <ReadyStep :next="answer.next" />
      <p v-if="answer.programme" class="soft small">
        This is the first step of “{{ PROGRAMME_NAMES[answer.programme] }}”.
      </p>
    </template>
    <p v-else-if="answerFailure" class="miss" role="alert">
      {{ answerFailure }} <button type="button" class="link" @click="loadAnswer">Try again</button>
    </p>
    <p v-else-if="!answer && !closed" class="soft" role="status">Working out the next step…</p>
    <template v-else>
      <p class="title">No programme yet</p>
      <p class="soft">
        A programme proposes one change at a time, from how each session felt, and knows when to stop.
      </p>
      <p v-if="answer?.programme">After this session: “{{ PROGRAMME_NAMES[answer.programme] }}”.</p>
    </template>
    <v-btn v-if="!closed" variant="outlined" block @click="emit('begin')">{{
      answer?.next ? 'Another programme…' : 'Begin a programme…'
    }}</v-btn>
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
      <ReadyStep :next="next">
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
      </ReadyStep>
      <div v-if="!closed" class="acts">
        <v-btn
          v-if="next.ready && next.state === 'go-on' && !programmeTraits(programme.name).asksForDay"
          variant="outlined"
          :disabled="busy"
          @click="act('once-more')"
          >Play this once more</v-btn
        >
        <v-btn
          v-if="next.waitsFor === null && !programmeTraits(programme.name).changesStrings"
          variant="outlined"
          @click="ownOpen = true"
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
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
