<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import {
  ALL_SPORTS,
  guidesOf,
  isGrowing,
  sportData,
  type Dress,
  type GuideName,
  type Sport,
} from '@kevro/core';
import type { NewPlayer, Player } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import { typedOrNone, typedOrNull } from '../parts/typed-number';
import { dressWords } from '../parts/dress-words';
import { GUIDE_NAMES, SPEC_NAMES, SPORT_NAMES } from '../words';
import { BOTHER_WORDS, BUILD_WORDS, FIRST_WORDS, HAND_WORDS, LEVEL_WORDS, SPORT_ITEMS, items } from './words';

/** A player, added or changed. The arm history stays hidden until somebody asks for it. */
const emit = defineEmits<{ stored: [] }>();
const open = ref(false);
const player = ref<Player>();
const text = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : String(value);
const draftOf = (p?: Player) => ({
  name: p?.name ?? '',
  sports: (p?.sports ?? ['tennis']) as Sport[],
  birthYear: text(p?.birthYear),
  heightCm: text(p?.heightCm),
  build: p?.build ?? null,
  level: p?.level ?? '',
  levelScale: p?.levelScale ?? null,
  handedness: p?.handedness ?? null,
  style: p?.style ?? '',
  putsFirst: p?.putsFirst ?? null,
  bothers: p?.bothers ?? [],
  botherNote: p?.botherNote ?? '',
  ceilings: Object.fromEntries(ALL_SPORTS.map((s) => [s, text(p?.ceilings[s])])) as Record<Sport, string>,
  sessions: text(p?.sessionsAWeek),
  guides: Object.fromEntries(ALL_SPORTS.map((s) => [s, p?.guides[s] ?? null])) as Record<
    Sport,
    GuideName | null
  >,
});
const draft = reactive(draftOf());
/** Undefined while it is hidden: then it is not sent, and what is stored stays. */
const arm = ref<string>();
const armFailure = ref('');

function show(of?: Player): void {
  player.value = of;
  Object.assign(draft, draftOf(of));
  arm.value = undefined;
  armFailure.value = '';
  open.value = true;
}
defineExpose({ show });

async function showArm(): Promise<void> {
  try {
    arm.value = player.value?.hasArmHistory ? (await api('armHistory', { id: player.value.id })).text : '';
  } catch (error) {
    armFailure.value = error instanceof Error ? error.message : String(error);
  }
}
const sore = computed(
  () => draft.bothers.includes('sore-arm') || Boolean(player.value?.hasArmHistory || arm.value),
);
const growing = computed(() => {
  const year = typedOrNull(draft.birthYear);
  return typeof year === 'number' && isGrowing(year, new Date().getFullYear());
});

function submit() {
  const { ceilings, guides, sessions, birthYear, heightCm, ...same } = draft;
  /** What is said of a sport that they play. */
  const ofSports = <T,>(of: (sport: Sport) => T | null | undefined): Partial<Record<Sport, T>> =>
    Object.fromEntries(draft.sports.map((s) => [s, of(s)]).filter(([, value]) => value ?? false));
  const body: NewPlayer = {
    ...same,
    birthYear: typedOrNull(birthYear),
    heightCm: typedOrNull(heightCm),
    ceilings: ofSports((s) => typedOrNone(ceilings[s])),
    guides: ofSports((s) => guides[s]),
    sessionsAWeek: typedOrNull(sessions),
    ...(arm.value === undefined ? {} : { armHistory: arm.value }),
  };
  return player.value ? api('editPlayer', { id: player.value.id, body }) : api('addPlayer', { body });
}
const band = (from: number | undefined, to: number | undefined): string =>
  from === undefined ? `under ${to}` : to === undefined ? `from ${from}` : `${from}–${to}`;
/** The guides of a sport, each with its bands in the dress that they are said for. */
const guidesFor = (sport: Sport) =>
  guidesOf(sport).map((value) => ({
    value,
    title: GUIDE_NAMES[value],
    subtitle: Object.entries(sportData(sport).guides[value] ?? {})
      .map(
        ([key, { from, to, dress }]: [string, { from?: number; to?: number; dress: Dress }]) =>
          `${SPEC_NAMES[key as keyof typeof SPEC_NAMES].toLowerCase()} ${band(from, to)}, ${dressWords(dress, sport)}`,
      )
      .join('; '),
  }));
const levels = LEVEL_WORDS.map((word, i) => ({ value: i + 1, title: `${i + 1} · ${word}` }));
</script>

<template>
  <AddDialog
    v-model="open"
    :title="player ? player.name : 'Add a player'"
    :store="player ? 'Store' : 'Add'"
    :width="720"
    :submit="submit"
    @stored="emit('stored')"
  >
    <template #default="{ at }">
      <div class="two">
        <v-text-field v-model="draft.name" label="Name" autofocus :error-messages="at('name')" />
        <v-select
          v-model="draft.sports"
          :items="SPORT_ITEMS"
          label="Sports"
          multiple
          :error-messages="at('sports')"
        />
      </div>
      <div class="three">
        <v-text-field
          v-model="draft.birthYear"
          label="Year of birth"
          inputmode="numeric"
          :error-messages="at('birthYear')"
        />
        <v-text-field
          v-model="draft.heightCm"
          label="Height"
          suffix="cm"
          inputmode="decimal"
          :error-messages="at('heightCm')"
        />
        <v-select v-model="draft.build" :items="items(BUILD_WORDS)" label="Build" clearable />
      </div>
      <div class="three">
        <v-select
          v-model="draft.levelScale"
          :items="levels"
          label="Level, 1 to 7"
          clearable
          :error-messages="at('levelScale')"
        />
        <v-text-field
          v-model="draft.level"
          label="Level, in plain words"
          class="wide"
          :error-messages="at('level')"
        />
      </div>
      <div class="three">
        <v-select v-model="draft.handedness" :items="items(HAND_WORDS)" label="Hand" clearable />
        <v-select v-model="draft.putsFirst" :items="items(FIRST_WORDS)" label="Puts first" clearable />
        <v-text-field
          v-model="draft.sessions"
          label="Sessions a week"
          inputmode="decimal"
          :error-messages="at('sessionsAWeek')"
        />
      </div>
      <v-text-field v-model="draft.style" label="How they play" :error-messages="at('style')" />
      <div class="two">
        <v-select
          v-model="draft.bothers"
          :items="items(BOTHER_WORDS)"
          label="What bothers them about it"
          multiple
          chips
        />
        <v-text-field
          v-model="draft.botherNote"
          label="In their own words"
          :error-messages="at('botherNote')"
        />
      </div>
      <div v-for="sport in draft.sports" :key="sport" class="two">
        <v-text-field
          v-model="draft.ceilings[sport]"
          :label="`Swing weight up to, ${SPORT_NAMES[sport]}`"
          suffix="kg·cm²"
          inputmode="decimal"
          :error-messages="at(`ceilings.${sport}`)"
        />
        <v-select
          v-model="draft.guides[sport]"
          :items="guidesFor(sport)"
          item-props
          clearable
          :label="`Guide that suits them in ${SPORT_NAMES[sport]}`"
          :error-messages="at(`guides.${sport}`)"
        />
      </div>
      <p v-if="growing" class="warn small mb-0">
        Still growing: go lighter when in doubt, measure again each season, and do not load a body that is
        changing.
      </p>
      <p v-if="sore" class="warn small mb-0">
        A sore arm: propose less load, not more. Pain that stays belongs to a physician or physiotherapist.
      </p>
      <section class="arm no-print" aria-label="Arm history">
        <template v-if="arm === undefined">
          <span>
            Arm history, private:
            <b>{{ player?.hasArmHistory ? 'something is noted' : 'nothing is noted' }}</b>
          </span>
          <v-btn variant="outlined" size="small" @click="showArm">{{
            player?.hasArmHistory ? 'Show it' : 'Write it'
          }}</v-btn>
        </template>
        <v-textarea
          v-else
          v-model="arm"
          label="Arm history, private: never printed or exported unless chosen"
          rows="3"
          auto-grow
          :error-messages="at('armHistory')"
        />
        <p v-if="armFailure" class="miss mb-0" role="alert">{{ armFailure }}</p>
      </section>
    </template>
  </AddDialog>
</template>

<style scoped>
.arm {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
.arm > :deep(.v-textarea) {
  flex: 1 1 100%;
}
.wide {
  grid-column: span 2;
}
</style>
