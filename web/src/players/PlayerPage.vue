<script setup lang="ts">
import { computed, ref } from 'vue';
import { type Programme, programmeTraits, type Sport } from '@kevro/core';
import { PROGRAMME_NAMES, type PlayerPage } from '@kevro/contract';
import { api } from '../api/client';
import { counted } from '../words/counted';
import { dayWords, shopToday, wholeDayWords } from '../words/days';
import { dueWords, stringWords } from '../words/strings';
import { useRecord } from '../api/queries';
import { useSaved } from '../stores/saved';
import { SPORT_NAMES, WAY_WORDS } from '../words';
import LookAgainForm from './LookAgainForm.vue';
import PlayerForm from '../forms/PlayerForm.vue';
import PlayerSessions from './PlayerSessions.vue';
import { LOOK_AGAIN_WORDS } from '../words/players';
import NotOpened from '../ui/NotOpened.vue';

// What a fitter comes here to do: see how this player has been getting on, with what; find a fitting or a frame; see what was advised and when to look again.
const props = defineProps<{ id: string }>();
const { record: page, failure, load } = useRecord('playerPage', () => props.id);
const saved = useSaved();
const form = ref<InstanceType<typeof PlayerForm>>();
const again = ref(false);
async function stored(): Promise<void> {
  saved.stored();
  await load();
}
async function done(id: string, isDone: boolean): Promise<void> {
  try {
    await api('doneLookAgain', { id, body: { done: isDone } });
    await stored();
  } catch (error) {
    saved.failed(error);
  }
}

/** A customer may look on: how the arm was, and what was said in words, is shown when it is asked for. */
const withArm = ref(false);
const ceilings = computed(() =>
  Object.entries(page.value?.ceilings ?? {}).map(([of, { swingWeight, uncertainty, on }]) => {
    // Twice the standard uncertainty, as everywhere on a screen.
    const give = uncertainty === null ? '' : ` ±${(2 * uncertainty).toFixed(uncertainty < 1 ? 1 : 0)}`;
    return `${SPORT_NAMES[of as Sport]} ${swingWeight}${give} kg·cm²${on ? `, found ${dayWords(on)}` : ''}`;
  }),
);
/** Why the strings that are in a frame now are due. */
const due = (stringingId: string): string => {
  const bed = page.value?.beds.find(({ stringing }) => stringing.id === stringingId);
  return bed ? dueWords(bed) : '';
};
const advisedWords = ({ what, words }: PlayerPage['advised'][number]): string =>
  what === 'programme'
    ? `Programme: ${programmeTraits(words as Programme).isPrivate && !withArm.value ? 'step by step' : PROGRAMME_NAMES[words as keyof typeof PROGRAMME_NAMES]}`
    : `Aim, ${WAY_WORDS[words as keyof typeof WAY_WORDS]}`;
</script>

<template>
  <NotOpened v-if="failure" what="player" :why="failure" @again="load" />
  <p v-else-if="!page" class="page soft" role="status">Opening the player…</p>
  <div v-else class="page">
    <div class="page-top">
      <h1>{{ page.player.name }}</h1>
      <span class="spring" />
      <v-btn variant="outlined" size="large" :to="{ name: 'season', params: { id: page.player.id } }"
        >Season</v-btn
      >
      <v-btn variant="outlined" size="large" @click="again = true">Remind me on…</v-btn>
      <v-btn variant="outlined" size="large" @click="form?.show(page.player)">Change</v-btn>
    </div>
    <p class="soft">
      {{ page.player.sports.map((s) => SPORT_NAMES[s]).join(', ')
      }}{{ page.player.birthYear ? ` · born ${page.player.birthYear}` : ''
      }}{{ page.player.level ? ` · ${page.player.level}` : ''
      }}{{ page.player.style ? ` · ${page.player.style}` : '' }}
    </p>
    <p v-if="ceilings.length > 0"><b>Ceiling</b> {{ ceilings.join('; ') }}</p>

    <ul
      v-if="page.lookAgain.some(({ doneAt }) => doneAt === null)"
      class="again"
      aria-label="To look at again"
    >
      <li v-for="one in page.lookAgain.filter(({ doneAt }) => doneAt === null)" :key="one.id">
        <b :class="one.dueOn <= shopToday() ? 'warn' : ''">Follow-up on {{ wholeDayWords(one.dueOn) }}</b>
        <span class="soft">{{ LOOK_AGAIN_WORDS[one.why] }}{{ one.note ? `: ${one.note}` : '' }}</span>
        <v-btn variant="text" @click="done(one.id, true)">Done</v-btn>
      </li>
    </ul>

    <div class="columns">
      <section aria-label="Fittings">
        <h2 class="heading">Fittings</h2>
        <p v-if="page.fittings.length === 0" class="soft">None yet.</p>
        <ul class="plain-list">
          <li v-for="f in page.fittings" :key="f.id">
            <RouterLink
              v-for="one in f.frames"
              :key="one.id"
              :to="`/fittings/${f.id}/play?frame=${one.id}`"
              class="link"
              >{{ one.tag }}, round {{ one.round }}</RouterLink
            >
            <span class="soft small"
              >since {{ dayWords(f.openedAt)
              }}{{ f.closedAt ? `, closed ${dayWords(f.closedAt)}` : '' }}</span
            >
          </li>
        </ul>
      </section>
      <section aria-label="Frames">
        <h2 class="heading">Frames</h2>
        <p v-if="page.frames.length === 0" class="soft">None yet.</p>
        <ul class="plain-list">
          <li v-for="f in page.frames" :key="f.id">
            <RouterLink :to="{ name: 'frame', params: { id: f.id } }" class="link">{{ f.tag }}</RouterLink>
            <span class="soft small">{{ f.maker }} {{ f.model }}</span>
          </li>
        </ul>
      </section>
      <section aria-label="Strings">
        <h2 class="heading">Strings</h2>
        <p v-if="page.strings.length === 0" class="soft">None on record.</p>
        <ul class="plain-list">
          <li v-for="s in page.strings.slice(0, 6)" :key="s.stringing.id">
            <span>{{ s.tag }}: {{ stringWords(s.stringing) }}</span>
            <span class="soft small">{{ dayWords(s.stringing.strungOn) }}</span>
            <span v-if="due(s.stringing.id)" class="warn small d-block"
              >Due for new strings: {{ due(s.stringing.id) }}</span
            >
          </li>
        </ul>
      </section>
    </div>

    <PlayerSessions v-model="withArm" :page="page" />

    <section aria-label="What was advised" class="mt-6">
      <h2 class="heading">What was advised</h2>
      <p v-if="page.advised.length === 0" class="soft">Nothing yet.</p>
      <ol class="advised">
        <li v-for="(a, i) in page.advised" :key="i">
          <span class="soft">{{ dayWords(a.at) }}</span>
          <span>
            <RouterLink :to="`/fittings/${a.fittingId}/play`" class="link">{{ a.tag }}</RouterLink>, round
            {{ a.round }}: {{ advisedWords(a) }}
            <span v-if="a.note && (withArm || a.what === 'aim')" class="soft small d-block"
              >{{ a.note }}{{ a.by ? ` (${a.by})` : '' }}</span
            >
          </span>
        </li>
      </ol>
      <p class="soft small">{{ counted(page.advised.length, 'line', 'lines') }}, the newest first.</p>
    </section>
    <PlayerForm ref="form" @stored="stored" />
    <LookAgainForm v-model="again" :player-id="page.player.id" @stored="stored" />
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 28px;
}
.plain-list,
.advised,
.again {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
}
.plain-list li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  align-items: baseline;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 5px 0;
}
.again li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.advised li {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 8px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 5px 0;
}
@media (max-width: 860px) {
  .columns {
    grid-template-columns: 1fr;
    gap: 12px;
  }
}
</style>
