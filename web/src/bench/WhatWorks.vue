<script setup lang="ts">
import { computed } from 'vue';
import {
  LEAST_SESSIONS,
  noticeableStep,
  sportData,
  whatWorks,
  type SpecWorth,
  type Sport,
} from '@kevro/core';
import type { SessionRow } from '@kevro/contract';
import { counted } from '../words/counted';
import { useShop } from '../stores/shop';
import { useUnits } from '../stores/units';
import { SPEC_NAMES } from '../words';

/** What went with better and worse notes of a player in one sport, or how many sessions are missing. */
const props = defineProps<{
  sport: Sport;
  sessions: readonly SessionRow[];
  /** Only what can be said, for beside something else. */
  narrow?: boolean;
}>();
const units = useUnits();
const shop = useShop();
const data = computed(() => shop.sportOf(props.sport));
const own = computed(() => props.sessions.filter(({ sport, counts }) => counts && sport === props.sport));
const found = computed(() =>
  whatWorks(
    data.value,
    // The first played first: players get better with time.
    own.value.toReversed().map((session) => ({ session, specs: session.specs })),
  ),
);
/** A frame of usual length: balances are said in points from its middle. */
const shape = computed(() => ({ sport: props.sport, lengthCm: sportData(props.sport).lengthCm }));
const show = (worth: SpecWorth, group: SpecWorth['better']): string =>
  group
    ? `${units.show(worth.spec, group.mean, shape.value)} ±${units.sayWidth(worth.spec, group.spread, props.sport)}, ${counted(group.count, 'session', 'sessions')}`
    : '—';
const SAYS: Record<SpecWorth['says'], string> = {
  more: 'more of it went with better notes',
  less: 'less of it went with better notes',
  nothing: 'nothing to be said',
};
const stepOf = ({ spec, better, worse }: SpecWorth): string => {
  const around = (better ?? worse)?.mean ?? 0;
  return units.sayWidth(spec, noticeableStep(data.value.noticeable, spec, around), props.sport);
};
const perStep = ({ perStep: { mean, uncertainty } }: SpecWorth): string =>
  `${mean < 0 ? '−' : '+'}${Math.abs(mean).toFixed(2)} ±${(2 * uncertainty).toFixed(2)}`;
</script>

<template>
  <div>
    <p v-if="found.missing > 0" class="soft mb-0">
      {{ counted(found.sessions, 'session', 'sessions') }}: needs {{ found.missing }} more. From
      {{ LEAST_SESSIONS }} on, Kevro shows what went with better notes.
    </p>
    <p v-else-if="found.alike" class="soft mb-0">The specs hardly changed, so there is nothing to compare.</p>
    <template v-else>
      <ul v-if="narrow" class="narrow">
        <li v-for="worth in found.specs" :key="worth.spec">
          <b>{{ SPEC_NAMES[worth.spec] }}</b>
          <span :class="worth.says === 'nothing' ? 'soft' : ''">{{ SAYS[worth.says] }}</span>
          <span class="soft num">{{ perStep(worth) }}</span>
        </li>
      </ul>
      <table v-else class="plain">
        <thead>
          <tr>
            <th>Spec</th>
            <th>Better sessions</th>
            <th>The others</th>
            <th class="num">One step more</th>
            <th>So far</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="worth in found.specs" :key="worth.spec">
            <td>{{ SPEC_NAMES[worth.spec] }}</td>
            <td>{{ show(worth, worth.better) }}</td>
            <td>{{ show(worth, worth.worse) }}</td>
            <td class="num nowrap">
              {{ perStep(worth) }}
              <div class="soft small">a step is {{ stepOf(worth) }}</div>
            </td>
            <td :class="worth.says === 'nothing' ? 'soft' : ''">{{ SAYS[worth.says] }}</td>
          </tr>
        </tbody>
      </table>
      <details class="soft small">
        <summary>How this is worked out</summary>
        A session’s score is the mean of its answers: 1 good, −1 not, 0 between. “One step more” is what one
        noticeable step goes with, the other specs equal (95 %). It comes from a ridge regression over
        {{ counted(found.sessions, 'session', 'sessions') }}. Assumes: effects add up, a step is worth about
        0.15, and scores of one frame scatter by {{ found.scatter.toFixed(2) }}. What goes together need not
        be the cause.
      </details>
    </template>
  </div>
</template>

<style scoped>
.narrow {
  list-style: none;
  padding: 0;
  margin: 0 0 4px;
}
.narrow li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
.narrow b {
  grid-column: 1 / 3;
}
summary {
  cursor: pointer;
}
</style>
