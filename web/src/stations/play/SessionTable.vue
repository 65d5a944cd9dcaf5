<script setup lang="ts">
import { computed, ref } from 'vue';
import type { RoundView } from '@kevro/contract';
import { api } from '../../api/client';
import FormDialog from '../../forms/FormDialog.vue';
import { dayWords } from '../../words/days';
import { useDraft } from '../../forms/draft';
import { vWide } from '../../ui/wide-table';
import { ARM_WORDS, ENERGY_WORDS, OFTEN_WORDS, aroundWords, ballWords } from '../../words/sessions';
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
type Session = RoundView['sessions'][number];
const marking = ref(false);
const marked = ref<Session>();
const draft = useDraft(() => ({ reason: '' }));
const form = draft.value;
function putRight(session: Session): void {
  marked.value = session;
  draft.begin(`mark session ${session.id}`, { reason: '' });
  marking.value = true;
}
async function mark(): Promise<void> {
  if (!marked.value) return;
  const { id, counts } = marked.value;
  await api('countSession', { id, body: { counts: !counts, reason: form.value.reason } });
  await fitting.stored();
}
</script>

<template>
  <p v-if="rows.length === 0" class="soft">No sessions yet.</p>
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
          <span :class="{ struck: !s.counts }">{{ dayWords(s.playedOn) }}</span>
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
          <div v-if="!s.counts" class="warn small">does not count: {{ s.why }}</div>
          <button type="button" class="link small no-print" @click="putRight(s)">
            {{ s.counts ? 'Discard…' : 'Restore'
            }}<span class="d-sr-only">, the session of {{ dayWords(s.playedOn) }}</span>
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <FormDialog
    v-model="marking"
    :title="marked?.counts ? 'Discard session' : 'Restore session'"
    :store="marked?.counts ? 'Discard' : 'Restore'"
    :submit="mark"
    :draft="draft"
  >
    <template #default="{ at }">
      <p class="mb-0">
        {{
          marked?.counts
            ? 'It stays on record but no longer counts; proposals update. Then add it again correctly.'
            : 'It counts again from now on.'
        }}
      </p>
      <v-text-field v-model="form.reason" v-first label="Why" :error-messages="at('reason')" />
    </template>
  </FormDialog>
</template>

<style scoped>
.struck {
  text-decoration: line-through;
}
</style>
