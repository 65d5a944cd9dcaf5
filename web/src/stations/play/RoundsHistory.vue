<script setup lang="ts">
import { partUnit } from '../../words/part-weight';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { measuredIn } from '@kevro/core';
import { zoneChangeWords, type RoundView } from '@kevro/contract';
import { Refused, api } from '../../api/client';
import { useActKey } from '../../forms/act-key';
import { dayWords } from '../../words/days';
import { useKept } from '../../ui/kept';
import { useFitting } from '../../stores/fitting';
import { useSaved } from '../../stores/saved';
import { useUnits } from '../../stores/units';
import { ROUND_WORDS, SPEC_NAMES } from '../../words';
import WhyAllTheSame from './WhyAllTheSame.vue';
import { carriedIn, playedWith } from './rounds';
import { changedDress, changedSpecs, changedZones } from './what-changed';

/** The rounds of the frame in this fitting: what changed between any two of them, and the way back to any. */
const fitting = useFitting();
const units = useUnits();
const saved = useSaved();
const router = useRouter();
const by = useKept('kevro-by', '');
const list = computed(() => (fitting.record ? playedWith(fitting.record, fitting.rounds) : []));
const items = computed(() =>
  list.value.map(({ round, words }) => ({
    value: round.id,
    title: `round ${round.number}, ${dayWords(round.begunAt)}: ${words}`,
  })),
);
const from = ref<string>();
const to = ref<string>();
watch(
  list,
  (now) => {
    const known = (id: string | undefined): boolean => now.some(({ round }) => round.id === id);
    if (!known(to.value)) to.value = now.at(-1)?.round.id;
    if (!known(from.value)) from.value = now.at(-2)?.round.id;
  },
  { immediate: true },
);
const named = (id: string | undefined): RoundView | undefined =>
  list.value.find(({ round }) => round.id === id)?.round;
const differences = computed(() => {
  const [a, b] = [named(from.value), named(to.value)];
  const { frame, record } = fitting;
  if (!a || !b || !frame || !record) return undefined;
  const [before, after] = [measuredIn(a)?.specs, measuredIn(b)?.specs];
  const [was, is] = [carriedIn(a), carriedIn(b)];
  return {
    specs:
      before && after
        ? changedSpecs(before, after).map(({ spec, by: amount }) => ({
            spec,
            from: units.show(spec, before[spec] ?? 0, record.shape),
            to: units.show(spec, after[spec] ?? 0, record.shape),
            by: `${units.showChange(spec, amount, record.shape.sport)} ${units.unit(spec)}`,
          }))
        : [],
    zones: was && is ? zoneChangeWords(changedZones(frame, was, is), partUnit()) || 'no weight moved' : '',
    dress: was && is ? changedDress(frame, was, is) : undefined,
  };
});
const busy = ref(false);
/** The way back that a guard spoke against: gone past only with a reason. */
const guarded = ref<{ round: RoundView; which: 'found' | 'built'; guard: string }>();
const explaining = ref(false);
const key = useActKey();
async function goBack(round: RoundView, which: 'found' | 'built', note: string, own: string): Promise<void> {
  const { view, record } = fitting;
  if (!view || !record) return;
  await fitting.stored(
    await api('goBack', {
      id: view.id,
      body: { key: own, frameId: record.id, toRoundId: round.id, which, note, by: by.value },
    }),
  );
  await router.push({ name: 'build' });
}
async function allTheSame(note: string, own: string): Promise<void> {
  if (guarded.value) await goBack(guarded.value.round, guarded.value.which, note, own);
}
async function back(round: RoundView, which: 'found' | 'built'): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    await key.once((own) => goBack(round, which, '', own));
  } catch (error) {
    if (error instanceof Refused && error.at('note')) {
      guarded.value = { round, which, guard: error.at('note') ?? '' };
      explaining.value = true;
    } else saved.failed(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section aria-label="Rounds of this frame" class="history">
    <h2 class="heading">Rounds</h2>
    <ol class="rounds">
      <li v-for="{ round, words, specs } in list" :key="round.id">
        <b>{{ round.number }}</b>
        <span>
          {{ words }}
          <span class="soft small">· {{ ROUND_WORDS[round.why] }}, {{ dayWords(round.begunAt) }}</span>
          <span v-if="round.note" class="soft small d-block">{{ round.note }}</span>
        </span>
        <span class="num nowrap">{{
          specs && fitting.record
            ? `${units.show('swingWeight', specs.swingWeight, fitting.record.shape)} kg·cm²`
            : ''
        }}</span>
        <span class="acts">
          <v-btn
            v-if="round.signOffs.at(-1)?.onFrame && round.id !== fitting.round?.id"
            variant="text"
            :disabled="busy || fitting.view?.closed !== null"
            @click="back(round, 'built')"
            >Back to this<span class="d-sr-only"> build of round {{ round.number }}</span></v-btn
          >
          <v-btn
            v-else-if="round.onFrame && round.number === 1 && list.length > 1"
            variant="text"
            :disabled="busy || fitting.view?.closed !== null"
            @click="back(round, 'found')"
            >Back to as found</v-btn
          >
        </span>
      </li>
    </ol>
    <template v-if="list.length > 1">
      <h2 class="heading">What changed between</h2>
      <div class="pick">
        <v-select v-model="from" :items="items" label="From" />
        <v-select v-model="to" :items="items" label="To" />
      </div>
      <template v-if="differences">
        <p class="mb-1">
          {{ differences.zones
          }}<template v-if="differences.dress?.came.length">
            · on: {{ differences.dress.came.join(', ') }}</template
          ><template v-if="differences.dress?.went.length">
            · off: {{ differences.dress.went.join(', ') }}</template
          >
        </p>
        <table class="plain">
          <tbody>
            <tr v-for="d in differences.specs" :key="d.spec">
              <td>{{ SPEC_NAMES[d.spec] }}</td>
              <td class="num">{{ d.from }}</td>
              <td class="num">{{ d.to }}</td>
              <td class="num nowrap">{{ d.by }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </section>
  <WhyAllTheSame v-if="guarded && explaining" v-model="explaining" :guard="guarded.guard" :act="allTheSame" />
</template>

<style scoped>
.history .heading {
  margin-top: 18px;
}
.rounds {
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
}
.rounds li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto 160px;
  align-items: center;
  gap: 8px;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 4px 0;
}
.acts {
  text-align: right;
}
.pick {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  margin: 8px 0;
}
@media (max-width: 700px) {
  .rounds li {
    grid-template-columns: 24px minmax(0, 1fr) auto;
  }
  .acts {
    grid-column: 2 / 4;
    text-align: left;
  }
  .pick {
    grid-template-columns: 1fr;
  }
}
</style>
