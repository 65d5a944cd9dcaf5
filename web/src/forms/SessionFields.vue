<script setup lang="ts">
import BallFields from './BallFields.vue';
import { shopToday } from '../words/days';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from './NumberField.vue';
import SessionQuestion from './SessionQuestion.vue';
import { items } from '../words/players';
import type { SessionDraft } from './session-draft';
import {
  ARM_WORDS,
  COMPARED_WORDS,
  DAY_WORDS,
  ENERGY_WORDS,
  FIRM_WORDS,
  OFTEN_WORDS,
  PLAY_WORDS,
} from '../words/sessions';

/** What is asked of a session: first what every programme looks at; the rest behind a line. */
defineProps<{
  at: (path: string) => string[];
  who: string;
  /** What goes on looks at the ball: that is asked first. */
  asksOfBall?: boolean;
}>();
const form = defineModel<SessionDraft>({ required: true });
const LENGTHS = [45, 60, 90, 120];
</script>

<template>
  <SessionQuestion v-model="form.energyLeft" label="Energy left at the end" :choices="items(ENERGY_WORDS)">
    <p v-for="said in at('energyLeft')" :key="said" class="miss small" role="alert">{{ said }}</p>
  </SessionQuestion>
  <SessionQuestion v-model="form.arm" label="Arm" :choices="items(ARM_WORDS)">
    <p v-for="said in at('arm')" :key="said" class="miss small" role="alert">{{ said }}</p>
    <p v-if="form.arm === 'sore'" class="warn small" role="status">
      Rest, and don’t play anything heavier. If pain persists or returns, see a physician or physiotherapist.
    </p>
  </SessionQuestion>
  <SessionQuestion v-model="form.late" label="Late contact" :choices="items(OFTEN_WORDS)" />
  <SessionQuestion v-model="form.twists" label="Twists off centre" :choices="items(OFTEN_WORDS)" />
  <SessionQuestion v-model="form.firmVolleys" label="Volleys and returns" :choices="items(FIRM_WORDS)" />
  <BallFields v-if="asksOfBall" v-model="form" />
  <div class="minutes">
    <NumberField v-model="form.minutes" label="Played for" unit="min" :error="at('minutes')[0]" />
    <v-btn
      v-for="length in LENGTHS"
      :key="length"
      variant="outlined"
      :aria-label="`${length} minutes`"
      @click="form.minutes = length"
      >{{ length }}</v-btn
    >
  </div>
  <v-textarea v-model="form.note" label="In your own words" rows="1" auto-grow :error-messages="at('note')" />
  <MoreFields title="What was played, and the ball">
    <SessionQuestion v-model="form.play" label="What was played" :choices="items(PLAY_WORDS)" />
    <SessionQuestion v-model="form.day" label="The day" :choices="items(DAY_WORDS)" />
    <SessionQuestion v-model="form.energyStart" label="Energy at the start" :choices="items(ENERGY_WORDS)" />
    <BallFields v-if="!asksOfBall" v-model="form" />
    <SessionQuestion v-model="form.serve" label="Serve or smash power" :choices="items(COMPARED_WORDS)" />
  </MoreFields>
  <div class="two">
    <v-text-field
      v-model="form.playedOn"
      type="date"
      :max="shopToday()"
      label="Played on"
      :error-messages="at('playedOn')"
    />
    <v-text-field v-model="form.by" :label="who" :error-messages="at('by')" />
  </div>
</template>

<style scoped>
.minutes {
  display: grid;
  grid-template-columns: minmax(110px, 1fr) repeat(4, auto);
  gap: 6px;
  align-items: start;
}
.minutes .v-btn {
  min-width: 46px;
  min-height: 48px;
  padding: 0 8px;
}
</style>
