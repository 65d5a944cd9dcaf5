<script setup lang="ts">
import { SPECS, capital } from '@kevro/core';
import { computed, onMounted, shallowRef, ref } from 'vue';
import type { Learning } from '@kevro/contract';
import { api } from '../api/client';
import { useActKey } from '../forms/act-key';
import { counted } from '../words/counted';
import { dayWords } from '../words/days';
import { vWide } from '../ui/wide-table';
import { useCatalogue } from '../stores/catalogue';
import { useSaved } from '../stores/saved';

// What a fitter comes here to do: see whether a roll is as heavy as it says; take the correction, or take it back; look at the builds that say so.
const saved = useSaved();
const catalogue = useCatalogue();
const learned = shallowRef<Learning>();
const failure = ref('');
const busy = ref('');
async function load(): Promise<void> {
  failure.value = '';
  try {
    learned.value = await api('learning');
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(load);

type Roll = Learning['rolls'][number];
const signed = (value: number, digits: number): string =>
  `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(digits)}`;
const shareWords = ({ share, uncertainty }: Roll): string =>
  `${signed(100 * share, 1)} % ±${(200 * uncertainty).toFixed(1)}`;
/** A correction is worth taking where it is surely none by chance: beyond twice its standard uncertainty. */
const worth = ({ share, uncertainty }: Roll): boolean => Math.abs(share) > 2 * uncertainty;
const key = useActKey();
async function act(roll: Roll, what: 'apply' | 'undo' | 'new-roll'): Promise<void> {
  busy.value = roll.partId;
  try {
    learned.value = await key.once((own) =>
      api('actOnRoll', { id: roll.partId, body: { act: what, key: own } }),
    );
    saved.stored();
    // Plans made from now on count with it.
    await catalogue.load();
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = '';
  }
}
const habit = computed(() => {
  const { value: all } = learned;
  if (!all || all.habit.builds === 0) return '';
  const { alongCm, uncertainty } = all.habit;
  const size = `${Math.abs(10 * alongCm).toFixed(1)} mm ±${(20 * uncertainty).toFixed(1)}`;
  if (Math.abs(alongCm) < 2 * uncertainty)
    return `Pieces end up where they were measured, as far as builds show (${size}).`;
  return alongCm > 0
    ? `Pieces end up ${size} further along than they were measured: further from the tip on the hoop, further from the butt in the handle.`
    : `Pieces end up ${size} short of where they were measured: nearer the tip on the hoop, nearer the butt in the handle.`;
});
const SHOWN = 20;
const all = ref(false);
const builds = computed(
  () => (all.value ? learned.value?.builds : learned.value?.builds.slice(0, SHOWN)) ?? [],
);
const apart = ({ predicted, read }: { predicted: number; read: number }): string =>
  signed(read - predicted, 1);
</script>

<template>
  <div class="page">
    <div class="page-top">
      <div>
        <h1>What builds taught</h1>
        <p class="soft mb-0">
          <router-link :to="{ name: 'stock' }">Stock</router-link> · how heavy each roll really is, and where
          pieces end up, by every build that was checked
        </p>
      </div>
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!learned" class="soft" role="status">Looking at all builds…</p>
    <p v-else-if="learned.builds.length === 0" class="soft">
      No build has been checked yet. The check of a build says how heavy its tape really was.
    </p>
    <template v-else>
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Roll</th>
            <th class="num">Stated<br /><span class="unit">g/cm</span></th>
            <th class="num">It is</th>
            <th class="num">Builds</th>
            <th class="num">Put on<br /><span class="unit">g</span></th>
            <th class="num">Planned with<br /><span class="unit">g/cm</span></th>
            <th class="no-print"><span class="d-sr-only">Do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="roll in learned.rolls" :key="roll.partId">
            <td>
              <b>{{ roll.name }}</b>
              <div v-if="roll.begunAt" class="soft small">this roll since {{ dayWords(roll.begunAt) }}</div>
              <div v-if="roll.applied" class="soft small">
                corrected {{ dayWords(roll.applied.at) }}, after
                {{ counted(roll.applied.builds, 'build', 'builds') }}
              </div>
            </td>
            <td class="num">{{ roll.statedGPerCm.toFixed(3) }}</td>
            <td class="num">
              <b>{{ shareWords(roll) }}</b>
            </td>
            <td class="num">{{ roll.builds }}</td>
            <td class="num">{{ roll.massG.toFixed(1) }}</td>
            <td class="num">{{ roll.gPerCm.toFixed(3) }}</td>
            <td class="num no-print nowrap">
              <v-btn
                v-if="!roll.applied"
                :color="worth(roll) ? 'primary' : undefined"
                :variant="worth(roll) ? 'flat' : 'outlined'"
                :loading="busy === roll.partId"
                :aria-label="`Use this correction: ${roll.name}`"
                @click="act(roll, 'apply')"
                >Use this correction</v-btn
              >
              <v-btn
                v-else
                variant="outlined"
                :loading="busy === roll.partId"
                :aria-label="`Take back: ${roll.name}`"
                @click="act(roll, 'undo')"
                >Take back</v-btn
              >
              <v-btn variant="text" :aria-label="`New roll of ${roll.name}`" @click="act(roll, 'new-roll')"
                >New roll</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft small mt-2">
        ±: 95 % sure. A new roll counts as its label says, ± 4 % unless you set a tolerance. Each checked
        build narrows that (Bayes’ rule, with all errors of measuring, placing and cutting). A roll within its
        ± needs no correction.
      </p>
      <p v-if="habit">{{ habit }}</p>
      <h2 class="heading mt-4">The builds that say so</h2>
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Racket</th>
            <th>Checked</th>
            <th class="num">Weight planned<br /><span class="unit">g</span></th>
            <th class="num">read</th>
            <th class="num">apart</th>
            <th class="num">
              {{ capital(SPECS.swingWeight.name) }} planned<br /><span class="unit">{{
                SPECS.swingWeight.unit
              }}</span>
            </th>
            <th class="num">read</th>
            <th class="num">apart</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="build in builds" :key="build.planId">
            <td>
              <router-link :to="`/fittings/${build.fittingId}/check`">{{ build.tag }}</router-link>
              <span class="soft ml-2">{{ build.playerName }}</span>
            </td>
            <td>{{ dayWords(build.checkedAt) }}</td>
            <td class="num">{{ build.massG.predicted.toFixed(1) }}</td>
            <td class="num">{{ build.massG.read.toFixed(1) }}</td>
            <td class="num">{{ apart(build.massG) }}</td>
            <td class="num">{{ build.swingWeight.predicted.toFixed(1) }}</td>
            <td class="num">{{ build.swingWeight.read.toFixed(1) }}</td>
            <td class="num">{{ apart(build.swingWeight) }}</td>
          </tr>
        </tbody>
      </table>
      <button v-if="learned.builds.length > builds.length" type="button" class="link" @click="all = true">
        {{ learned.builds.length - builds.length }} earlier ones
      </button>
    </template>
  </div>
</template>

<style scoped>
.unit {
  font-weight: 400;
}
</style>
