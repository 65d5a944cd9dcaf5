<script setup lang="ts">
import { computed } from 'vue';
import { dayWords } from '../../parts/day-words';
import { vWide } from '../../parts/wide-table';
import { ARM_WORDS, ENERGY_WORDS, OFTEN_WORDS, aroundWords, ballWords } from '../../played/words';
import { useFitting } from '../../stores/fitting';
import { useUnits } from '../../stores/units';
import { playedWith } from './rounds';

/** Every session with this frame in this fitting, the newest first: what it was played with, and how it felt. */
const fitting = useFitting();
const units = useUnits();
const rows = computed(() => {
  const { record } = fitting;
  if (!record) return [];
  return playedWith(record, fitting.rounds)
    .flatMap(({ round, words, specs }) =>
      round.sessions.map((session) => ({
        ...session,
        words,
        swing: specs ? units.show('swingWeight', specs.swingWeight, record.shape) : '—',
      })),
    )
    .toReversed();
});
</script>

<template>
  <p v-if="rows.length === 0" class="soft">No session is noted yet.</p>
  <table v-else v-wide class="plain wide">
    <thead>
      <tr>
        <th>Session</th>
        <th>Played with</th>
        <th class="num">Swing</th>
        <th>Energy left</th>
        <th>Late</th>
        <th>Twists</th>
        <th>Arm</th>
        <th>Words</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="s in rows" :key="s.id">
        <td class="nowrap">
          {{ dayWords(s.playedOn) }}
          <div v-if="aroundWords(s)" class="soft small">{{ aroundWords(s) }}</div>
        </td>
        <td>{{ s.words }}</td>
        <td class="num">{{ s.swing }}</td>
        <td :class="s.energyLeft === 'little' || s.energyLeft === 'none' ? 'warn' : ''">
          {{ ENERGY_WORDS[s.energyLeft] }}
        </td>
        <td>{{ s.late ? OFTEN_WORDS[s.late] : '' }}</td>
        <td>{{ s.twists ? OFTEN_WORDS[s.twists] : '' }}</td>
        <td :class="s.arm === 'sore' ? 'miss' : ''">{{ ARM_WORDS[s.arm] }}</td>
        <td class="soft">
          <template v-if="s.note">“{{ s.note }}”</template>
          <div v-if="ballWords(s)" class="small">{{ ballWords(s) }}</div>
          <div v-if="s.by" class="small">{{ s.by }}</div>
        </td>
      </tr>
    </tbody>
  </table>
</template>
