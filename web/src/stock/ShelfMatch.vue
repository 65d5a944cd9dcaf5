<script setup lang="ts">
import { partWeight } from '../words/part-weight';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import {
  SPEC_KEYS,
  bestPairs,
  inOneDress,
  rankShelf,
  sportData,
  targetOf,
  type Dress,
  type FrameShape,
  type KnownSpecs,
  type ShelfFrame,
  type Sport,
} from '@kevro/core';
import type { AnswerOf, FrameRow, Player } from '@kevro/contract';
import { api } from '../api/client';
import PickPlayer from '../forms/PickPlayer.vue';
import { counted } from '../words/counted';
import { dressWords } from '../words/dress';
import NewFitting from '../forms/NewFitting.vue';
import { useUnits } from '../stores/units';
import { vWide } from '../ui/wide-table';
import { SPEC_NAMES, ZONE_NAMES } from '../words';

// What a fitter comes here to do: see which frame on the shelf is nearest to the player's own; find two that are alike; see what a set needs.
const units = useUnits();
const playerId = ref<string | null>(null);
const player = ref<Player>();
const ownFrames = shallowRef<FrameRow[]>([]);
const ownId = ref<string | null>(null);
const shelf = shallowRef<FrameRow[]>();
const failure = ref('');
const chosen = ref<string[]>([]);
const fitting = ref<InstanceType<typeof NewFitting>>();
const MOST = 6;

const message = (error: unknown): string => (error instanceof Error ? error.message : String(error));
/** What was measured can be ranked; the rest is counted. */
const measured = (rows: readonly FrameRow[]) => rows.filter(({ newest }) => newest !== null);

/** What stock is compared with: a frame of the player's, or an aim that was set for one. */
interface Against {
  tag: string;
  what: string;
  shape: FrameShape;
  dress: Dress;
  axisCm: number;
  specs: KnownSpecs;
}
/** The aim of a fitting that the page was opened from. */
const AIM = 'aim';
const aimed = shallowRef<Against & { playerId: string }>();
const against = computed((): Against | undefined => {
  if (ownId.value === AIM) return aimed.value;
  const frame = ownFrames.value.find(({ id }) => id === ownId.value);
  if (!frame?.newest) return undefined;
  const { dress, specs } = frame.newest;
  const { tag, shape: of } = frame;
  return { tag, what: `${player.value?.name ?? ''}’s own`, shape: of, dress, axisCm: specs.axisCm, specs };
});
const choices = computed(() => [
  ...(aimed.value && aimed.value.playerId === playerId.value
    ? [{ value: AIM, title: `The aim for ${aimed.value.tag}` }]
    : []),
  ...ownFrames.value.map((f) => ({ value: f.id, title: `${f.tag}, ${f.maker} ${f.model}` })),
]);
const { query } = useRoute();
onMounted(async () => {
  if (typeof query.fitting !== 'string') return;
  try {
    const view = await api('fitting', { id: query.fitting });
    const entry = view.frames.find(({ frame }) => frame.id === query.frame) ?? view.frames[0];
    const round = entry?.rounds.at(-1);
    const aim = round?.aims.find(({ id }) => id === round.state.aimId);
    const start = round?.measurements.find(({ id }) => id === round.startId);
    if (!entry || !aim || !start) return;
    const specs: KnownSpecs = {};
    for (const key of SPEC_KEYS) {
      const target = targetOf(aim.target, key);
      if (target) specs[key] = target.value;
    }
    const { tag, shape: of } = entry.frame;
    aimed.value = {
      playerId: view.player.id,
      tag,
      what: 'the aim',
      shape: of,
      dress: start.dress,
      axisCm: start.specs.axisCm,
      specs,
    };
    playerId.value = view.player.id;
  } catch (error) {
    failure.value = message(error);
  }
});

const looking = ref(false);
// By who it is: the list that the player was picked from is read anew now and then, and gives another object for the same one.
watch(
  () => player.value?.id,
  async (id) => {
    ownFrames.value = [];
    ownId.value = null;
    looking.value = id !== undefined;
    if (id === undefined) return;
    try {
      const { rows } = await api('frames', { query: { owner: id, sort: 'measured', limit: 50 } });
      if (player.value?.id !== id) return;
      ownFrames.value = measured(rows);
      ownId.value = aimed.value?.playerId === id ? AIM : (ownFrames.value[0]?.id ?? null);
    } catch (error) {
      failure.value = message(error);
    }
    looking.value = false;
  },
);
const sport = computed<Sport | undefined>(() => against.value?.shape.sport);
/** The whole shelf of the sport, read part by part: the best may stand on any page of it. */
watch(sport, async (now) => {
  shelf.value = undefined;
  chosen.value = [];
  failure.value = '';
  if (!now) return;
  try {
    const all: FrameRow[] = [];
    for (;;) {
      const { rows, total } = await api('frames', {
        query: { owner: 'stock', sport: now, limit: 500, offset: all.length },
      });
      all.push(...rows);
      if (rows.length === 0 || all.length >= total) break;
    }
    if (sport.value === now) shelf.value = all;
  } catch (error) {
    failure.value = message(error);
  }
});
const shelfFrame = ({ id, shape, newest }: FrameRow): ShelfFrame[] =>
  newest ? [{ id, shape, dress: newest.dress, specs: newest.specs }] : [];
const ranked = computed(() => {
  const { value: to } = against;
  return to && shelf.value
    ? rankShelf({ ...to, sport: to.shape.sport }, shelf.value.flatMap(shelfFrame))
    : [];
});
const rows = computed(() =>
  ranked.value.flatMap((near) => {
    const frame = shelf.value?.find(({ id }) => id === near.id);
    return frame ? [{ ...near, frame }] : [];
  }),
);
const unmeasured = computed(() => (shelf.value?.length ?? 0) - ranked.value.length);
const tagOf = (id: string): string => shelf.value?.find((f) => f.id === id)?.tag ?? '';
const pairs = computed(() => (sport.value ? bestPairs(sport.value, ranked.value, 3) : []));

function toggle(id: string): void {
  chosen.value = chosen.value.includes(id)
    ? chosen.value.filter((one) => one !== id)
    : [...chosen.value, id].slice(-MOST);
}
const set = shallowRef<AnswerOf<'commonAim'>>();
const setFailure = ref('');
let asked = 0;
watch(chosen, async (ids) => {
  const current = ++asked;
  set.value = undefined;
  setFailure.value = '';
  const { value: to } = against;
  if (ids.length < 2 || !to || !shelf.value) return;
  const of = shelf.value.filter(({ id }) => ids.includes(id)).flatMap(shelfFrame);
  try {
    const frames = inOneDress(of, to.dress, to.axisCm);
    const answer = await api('commonAim', { body: { frames } });
    if (current === asked) set.value = answer;
  } catch (error) {
    if (current === asked) setFailure.value = message(error);
  }
});
const shape = computed(
  () => against.value?.shape ?? { sport: 'tennis' as const, lengthCm: sportData('tennis').lengthCm },
);
const number = (key: (typeof SPEC_KEYS)[number], value: number | undefined): string =>
  value === undefined ? '—' : units.show(key, value, shape.value);
</script>

<template>
  <div class="page">
    <div class="page-top">
      <div>
        <h1>Match from stock</h1>
        <p class="soft mb-0">
          <router-link :to="{ name: 'stock' }">Stock</router-link> · best frame for a player, closest pairs,
          matched sets
        </p>
      </div>
    </div>
    <div class="who no-print">
      <PickPlayer v-model="playerId" label="For" @picked="player = $event" />
      <v-select v-if="choices.length > 0" v-model="ownId" :items="choices" label="Compare with" />
    </div>
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <p v-else-if="!player" class="soft">Choose a player: your stock is compared with their frame.</p>
    <p v-else-if="looking" class="soft" role="status">Looking for their frames…</p>
    <p v-else-if="choices.length === 0" class="soft">
      No frame of {{ player.name }} has been measured yet. Measure one first.
    </p>
    <p v-else-if="!shelf" class="soft" role="status">Loading…</p>
    <template v-else-if="against">
      <p class="soft">
        All shown as {{ against.tag }}: {{ dressWords(against.dress, against.shape.sport) }}.<template
          v-if="unmeasured > 0"
        >
          {{ counted(unmeasured, 'frame in stock is', 'frames in stock are') }} not measured yet.</template
        >
      </p>
      <p v-if="rows.length === 0" class="soft">No measured frame of this sport is in stock.</p>
      <table v-else v-wide class="plain wide">
        <thead>
          <tr>
            <th>Frame</th>
            <th v-for="key in SPEC_KEYS" :key="key" class="num">
              {{ SPEC_NAMES[key] }}<br /><span class="unit">{{ units.unit(key) }}</span>
            </th>
            <th class="num">Away, steps</th>
            <th class="no-print">In a set</th>
          </tr>
        </thead>
        <tbody>
          <tr class="own">
            <td>
              <b>{{ against.tag }}</b> <span class="soft">{{ against.what }}</span>
            </td>
            <td v-for="key in SPEC_KEYS" :key="key" class="num">{{ number(key, against.specs[key]) }}</td>
            <td class="num">—</td>
            <td class="no-print" />
          </tr>
          <tr v-for="{ frame, specs, distanceSteps, unknown } in rows" :key="frame.id" :data-row="frame.id">
            <td>
              <router-link class="row-name" :to="{ name: 'frame', params: { id: frame.id } }">{{
                frame.tag
              }}</router-link>
              <span class="soft ml-2">{{ frame.maker }} {{ frame.model }}</span>
            </td>
            <td v-for="key in SPEC_KEYS" :key="key" class="num">{{ number(key, specs[key]) }}</td>
            <td class="num">{{ unknown.length > 0 ? '≥ ' : '' }}{{ distanceSteps.toFixed(1) }}</td>
            <td class="no-print">
              <v-checkbox
                :model-value="chosen.includes(frame.id)"
                :aria-label="`${frame.tag} in the set`"
                hide-details
                density="compact"
                @update:model-value="toggle(frame.id)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <section v-if="pairs.length > 0" class="mt-6" aria-label="Pairs">
        <h2 class="heading">Two that are alike</h2>
        <ol class="pairs">
          <li v-for="pair in pairs" :key="pair.ids.join()">
            <b>{{ pair.ids.map(tagOf).join(' and ') }}</b>
            <span class="soft"
              >{{ pair.betweenSteps.toFixed(1) }} steps from one another, {{ pair.awaySteps.toFixed(1) }} from
              {{ against.tag }} on the mean</span
            >
            <v-btn
              variant="text"
              class="no-print"
              :aria-label="`Make a set of ${pair.ids.map(tagOf).join(' and ')}`"
              @click="chosen = [...pair.ids]"
              >Make a set of them</v-btn
            >
          </li>
        </ol>
      </section>
      <section v-if="chosen.length > 0" class="mt-6" aria-label="The set">
        <h2 class="heading">A set of {{ chosen.length }}, so that all come out alike</h2>
        <p v-if="chosen.length === 1" class="soft">Choose one to five more.</p>
        <p v-if="setFailure" class="miss" role="alert">{{ setFailure }}</p>
        <template v-if="set">
          <p>
            Common aim:
            <b>{{
              SPEC_KEYS.filter((key) => set!.target[key])
                .map(
                  (key) =>
                    `${number(key, set!.target[key]?.value)} ${units.unit(key) === 'points' ? '' : units.unit(key)}`,
                )
                .join(' · ')
            }}</b>
          </p>
          <ul class="pairs">
            <li v-for="f in set.frames" :key="f.id">
              <b>{{ tagOf(f.id) }}</b>
              <span>{{
                f.placements.length === 0
                  ? 'nothing to put on'
                  : f.placements
                      .map((p) => `${ZONE_NAMES[p.zone].toLowerCase()} ${partWeight(p.massG)}`)
                      .join(', ')
              }}</span>
              <span :class="f.withinTolerance ? 'good' : 'miss'">{{
                f.withinTolerance ? 'in tolerance' : 'not reachable'
              }}</span>
            </li>
          </ul>
          <v-btn color="primary" class="no-print" @click="fitting?.show({ playerId, frameIds: [...chosen] })"
            >Open a fitting with these</v-btn
          >
        </template>
      </section>
    </template>
    <NewFitting ref="fitting" />
  </div>
</template>

<style scoped>
.who {
  display: grid;
  grid-template-columns: minmax(220px, 320px) minmax(220px, 380px);
  gap: 12px;
}
/* What is read of a frame stands on the line of its box. */
tbody td {
  vertical-align: middle;
}
.unit {
  font-weight: 400;
}
.own td {
  background: rgb(var(--v-theme-sheet));
}
.pairs {
  list-style: none;
  padding: 0;
  margin: 6px 0 12px;
}
.pairs li {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 0;
}
@media (max-width: 700px) {
  .who {
    grid-template-columns: 1fr;
  }
}
</style>
