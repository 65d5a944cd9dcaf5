<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  specName,
  SPECS,
  type AnySpecKey,
  ALL_SPORTS,
  guidesOf,
  isGrowing,
  sportData,
  type Dress,
  type GuideName,
  type Sport,
} from '@kevro/core';
import type { NewPlayer, Player } from '@kevro/contract';
import { api, urlOf } from '../api/client';
import FormDialog from './FormDialog.vue';
import { shopYear } from '../words/days';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from './NumberField.vue';
import { useDraft } from './draft';
import { numberOf, sentOrNone, sentOrNull, type Typed } from '../ui/typed';
import { useShop } from '../stores/shop';
import { dressWords } from '../words/dress';
import { GUIDE_NAMES, SPORT_NAMES } from '../words';
import {
  BOTHER_WORDS,
  BUILD_WORDS,
  FIRST_WORDS,
  HAND_WORDS,
  LEVEL_WORDS,
  SPORT_ITEMS,
  items,
} from '../words/players';

/** A player, added or changed: what is needed first, the rest behind lines. The arm history stays hidden until somebody asks for it. */
const emit = defineEmits<{ stored: [player: Player] }>();
const open = ref(false);
const player = ref<Player>();
const shop = useShop();
const typed = (value: number | null | undefined): Typed => value ?? null;
const draftOf = (p?: Player) => ({
  name: p?.name ?? '',
  sports: (p?.sports ?? [shop.usualSport]) as Sport[],
  birthYear: typed(p?.birthYear),
  heightCm: typed(p?.heightCm),
  build: p?.build ?? null,
  level: p?.level ?? '',
  levelScale: p?.levelScale ?? null,
  handedness: p?.handedness ?? null,
  style: p?.style ?? '',
  putsFirst: p?.putsFirst ?? null,
  bothers: p?.bothers ?? [],
  botherNote: p?.botherNote ?? '',
  ceilings: Object.fromEntries(ALL_SPORTS.map((s) => [s, typed(p?.ceilings[s])])) as Record<Sport, Typed>,
  sessions: typed(p?.sessionsAWeek),
  guides: Object.fromEntries(ALL_SPORTS.map((s) => [s, p?.guides[s] ?? null])) as Record<
    Sport,
    GuideName | null
  >,
});
const draft = useDraft(() => draftOf());
const form = draft.value;
/** Undefined while it is hidden: then it is not sent, and what is stored stays. Private: no draft of it is kept. */
const arm = ref<string>();
const storedArm = ref('');
const armFailure = ref('');
const asks = computed(() =>
  arm.value === undefined || arm.value === storedArm.value
    ? ''
    : 'The arm history is private: what you typed there is not kept on this device.',
);

function show(of?: Player): void {
  player.value = of;
  draft.begin(`player ${of?.id ?? 'new'}`, draftOf(of));
  arm.value = undefined;
  armFailure.value = '';
  open.value = true;
}
defineExpose({ show });

async function showArm(): Promise<void> {
  const of = player.value;
  try {
    const text = of?.hasArmHistory ? (await api('armHistory', { id: of.id })).text : '';
    // The form may be another player's by now.
    if (of?.id !== player.value?.id) return;
    storedArm.value = text;
    arm.value = text;
  } catch (error) {
    if (of?.id === player.value?.id)
      armFailure.value = error instanceof Error ? error.message : String(error);
  }
}
const sore = computed(
  () => form.value.bothers.includes('sore-arm') || Boolean(player.value?.hasArmHistory || arm.value),
);
const growing = computed(() => {
  const year = numberOf(form.value.birthYear);
  return year !== undefined && isGrowing(year, shopYear());
});

function submit(key: string) {
  const { ceilings, guides, sessions, birthYear, heightCm, ...same } = form.value;
  /** What is said of a sport that they play. */
  const ofSports = <T,>(of: (sport: Sport) => T | null | undefined): Partial<Record<Sport, T>> =>
    Object.fromEntries(form.value.sports.map((s) => [s, of(s)]).filter(([, value]) => value ?? false));
  const body: NewPlayer = {
    ...same,
    birthYear: sentOrNull(birthYear),
    heightCm: sentOrNull(heightCm),
    ceilings: ofSports((s) => sentOrNone(ceilings[s])),
    guides: ofSports((s) => guides[s]),
    sessionsAWeek: sentOrNull(sessions),
    ...(arm.value === undefined ? {} : { armHistory: arm.value }),
  };
  return player.value
    ? api('editPlayer', { id: player.value.id, body })
    : api('addPlayer', { body: { ...body, key } });
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
          `${specName(key as AnySpecKey)} ${band(from, to)}, ${dressWords(dress, sport)}`,
      )
      .join('; '),
  }));
const levels = LEVEL_WORDS.map((word, i) => ({ value: i + 1, title: `${i + 1} · ${word}` }));
</script>

<template>
  <FormDialog
    v-model="open"
    :title="player ? player.name : 'Add a player'"
    :store="player ? 'Store' : 'Add'"
    :width="720"
    :submit="submit"
    :draft="draft"
    :asks="asks"
    @stored="emit('stored', $event as Player)"
  >
    <template #default="{ at, said }">
      <div class="two">
        <v-text-field v-model="form.name" v-first label="Name" :error-messages="at('name')" />
        <v-select
          v-model="form.sports"
          :items="SPORT_ITEMS"
          label="Sports"
          multiple
          :error-messages="at('sports')"
        />
        <v-select
          v-model="form.levelScale"
          :items="levels"
          label="Level, 1 to 7"
          clearable
          :error-messages="at('levelScale')"
        />
        <NumberField v-model="form.birthYear" label="Year of birth" :error="said('birthYear')" />
      </div>
      <p v-if="growing" class="warn small mb-0">
        Still growing: when in doubt go lighter, and measure again each season.
      </p>
      <p v-if="sore" class="warn small mb-0">
        A sore arm: propose less load, not more. If pain persists, see a physician or physiotherapist.
      </p>
      <v-select v-model="form.bothers" :items="items(BOTHER_WORDS)" label="Complaints" multiple chips />
      <MoreFields title="How they play, and what suits them" :open="player !== undefined">
        <div class="two">
          <v-text-field v-model="form.level" label="Level, in plain words" :error-messages="at('level')" />
          <v-text-field v-model="form.style" label="How they play" :error-messages="at('style')" />
          <v-text-field
            v-model="form.botherNote"
            label="In their own words"
            :error-messages="at('botherNote')"
          />
          <v-select v-model="form.putsFirst" :items="items(FIRST_WORDS)" label="Priority" clearable />
        </div>
        <div v-for="sport in form.sports" :key="sport" class="two">
          <NumberField
            v-model="form.ceilings[sport]"
            :label="`Ceiling of ${SPECS.swingWeight.name}, ${SPORT_NAMES[sport]}`"
            measure="inertia"
            :error="said(`ceilings.${sport}`)"
          />
          <v-select
            v-model="form.guides[sport]"
            :items="guidesFor(sport)"
            item-props
            clearable
            :label="`Guide, ${SPORT_NAMES[sport]}`"
            :error-messages="at(`guides.${sport}`)"
          />
        </div>
        <div class="three">
          <v-select v-model="form.handedness" :items="items(HAND_WORDS)" label="Hand" clearable />
          <v-select v-model="form.build" :items="items(BUILD_WORDS)" label="Build" clearable />
          <NumberField v-model="form.heightCm" label="Height" measure="length" :error="said('heightCm')" />
          <NumberField v-model="form.sessions" label="Sessions a week" :error="said('sessionsAWeek')" />
        </div>
      </MoreFields>
      <section class="arm no-print" aria-label="Arm history">
        <template v-if="arm === undefined">
          <span>
            Arm history, private:
            <b>{{ player?.hasArmHistory ? 'something is noted' : 'nothing is noted' }}</b>
          </span>
          <v-btn variant="outlined" @click="showArm">{{
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
      <p v-if="player" class="small mb-0">
        <a :href="urlOf(`players/${player.id}/data`)" download>Export everything about this player</a>, arm
        history and notes included: for them, not for others.
      </p>
    </template>
  </FormDialog>
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
</style>
