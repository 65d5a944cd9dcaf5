<script setup lang="ts">
import { until, useNow } from '@vueuse/core';
import { computed, onMounted, reactive, ref, shallowRef } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { programmeTraits, type Sport } from '@kevro/core';
import { PROGRAMME_NAMES, type AnswerOf, type FittingRow } from '@kevro/contract';
import { api } from '../api/client';
import { useArrowsAlong, useKeys } from '../ui/keys';
import { dayWords, momentWords, shopToday } from '../words/days';
import ListFoot from '../ui/ListFoot.vue';
import { later } from '../stores/later';
import { useListing } from '../api/queries';
import { LOOK_AGAIN_WORDS, SPORT_ITEMS } from '../words/players';
import { useSaved } from '../stores/saved';
import { useShop } from '../stores/shop';
import { CLOSING_NAMES, NEXT_WORDS, STATION_NAMES } from '../words';
import { GROUP_TITLES, grouped, leftWords } from './groups';

// What a fitter comes here to do: see what the day asks for, and what waits by itself; go there by one key; open a new fitting.
const query = reactive({ closed: false, search: '', sport: null as Sport | null });
const { rows, left, failure, load, more } = useListing(
  'today',
  query,
  ({ closed, search, sport, limit, offset }) =>
    api('today', {
      query: { closed: closed ? 'yes' : 'no', search, limit, offset, ...(sport ? { sport } : {}) },
    }),
);
const saved = useSaved();
const router = useRouter();
/** The rest of the day comes after the list: without it the fittings stand all the same. */
const day = shallowRef<AnswerOf<'day'>>();
const loadDay = async (): Promise<void> => {
  try {
    day.value = await api('day');
  } catch (error) {
    saved.failed(error);
  }
};
onMounted(loadDay);
async function looked(id: string): Promise<void> {
  try {
    await api('doneLookAgain', { id, body: { done: true } });
    saved.stored();
    await loadDay();
  } catch (error) {
    saved.failed(error);
  }
}
const now = useNow({ interval: 30_000 });
// The forms come after the list: most who look at Today go on to a fitting.
const NewFitting = later(() => import('../forms/NewFitting.vue'));
const fitting = ref<{ show: () => void }>();
const FirstStart = later(() => import('./FirstStart.vue'));
/** A shop of which nothing was said yet is asked first. */
const shop = useShop();
const isNew = computed(() => shop.shop?.begun === false);
const openFitting = async (): Promise<void> => (await until(fitting).toBeTruthy()).show();
const SPORTS = [{ value: null, title: 'all sports' }, ...SPORT_ITEMS];
const narrowed = computed(() => query.search !== '' || query.sport !== null);

type Frame = FittingRow['frames'][number];
const goTo = (row: FittingRow, frame: Frame): string => {
  const page = frame.next?.station ?? (row.closed ? 'build' : 'play');
  return `/fittings/${row.id}/${page}${row.frames.length > 1 ? `?frame=${frame.id}` : ''}`;
};
const reason = ({ next, programme }: Frame): string => {
  if (!next) return programme ? 'its programme is paused' : 'nothing is left to do';
  if (next.until) return `${leftWords(next.until, now.value.getTime())}, until ${momentWords(next.until)}`;
  const why = NEXT_WORDS[next.because];
  // Whose arm was sore is nobody's business who looks on.
  const named = programme && !programmeTraits(programme).isPrivate ? `${PROGRAMME_NAMES[programme]}: ` : '';
  return next.station === 'play' ? named + why : why;
};

/** Everything of the day in its order, so that one key opens each of the first nine. */
const groups = computed(() => grouped(rows.value ?? []));
const keyed = computed(() => [
  ...groups.value.flatMap(({ entries }) => entries.map(({ row, frame }) => goTo(row, frame))),
  ...(day.value?.lookAgain.rows ?? []).map(({ playerId }) => `/players/${playerId}`),
  ...(day.value?.calibrations ?? []).map(({ id }) => `/settings/instruments/${id}`),
]);
const KEYS = 9;
const keyOf = (path: string): string => {
  const at = keyed.value.indexOf(path);
  return at >= 0 && at < KEYS ? String(at + 1) : '';
};
useKeys({
  n: () => !isNew.value && void openFitting(),
  ...Object.fromEntries(
    Array.from({ length: KEYS }, (_, i) => [
      String(i + 1),
      () => {
        const path = keyed.value[i];
        if (path === undefined) return false;
        void router.push(path);
        return true;
      },
    ]),
  ),
});
useArrowsAlong('.today a.entry');
</script>

<template>
  <FirstStart v-if="isNew" @begun="openFitting" />
  <div v-else class="page today">
    <div class="page-top">
      <h1>Today</h1>
      <v-text-field
        v-model="query.search"
        label="Find a player or a frame"
        clearable
        class="find no-print"
        @click:clear="query.search = ''"
      />
      <v-select v-model="query.sport" :items="SPORTS" label="Sport" class="sport no-print" />
      <v-checkbox v-model="query.closed" label="Closed ones" class="no-print" />
      <span class="spring" />
      <v-btn color="primary" size="large" @click="openFitting">Open a fitting</v-btn>
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!rows" class="soft" role="status">Looking up the fittings…</p>
    <p v-else-if="rows.length === 0 && narrowed" class="soft">
      No fittings found.{{ query.closed ? '' : ' Try Closed.' }}
    </p>
    <p v-else-if="rows.length === 0 && query.closed" class="soft">No closed fittings yet.</p>
    <div v-else-if="rows.length === 0">
      <p class="soft">
        No open fittings. <button type="button" class="link" @click="openFitting">Open one</button> with a
        player and a frame.
      </p>
      <p class="soft">
        New here? <RouterLink :to="{ name: 'guide' }">Your first fitting, step by step</RouterLink>. Tape and
        putty are kept under <RouterLink :to="{ name: 'stock' }">Stock</RouterLink>, what others play under
        <RouterLink :to="{ name: 'setups' }">Setups</RouterLink>.
      </p>
    </div>
    <template v-else>
      <section v-for="{ group, entries } in groups" :key="group" :aria-label="GROUP_TITLES[group]">
        <h2 class="heading">{{ GROUP_TITLES[group] }}</h2>
        <ul class="list fittings">
          <li v-for="{ row, frame, first } in entries" :key="frame.id + row.id">
            <RouterLink :to="goTo(row, frame)" class="entry" :class="{ more: !first }">
              <span class="who">
                <b v-if="first">{{ row.playerName }}</b>
                <span class="soft"
                  >{{ frame.name }} · {{ frame.tag
                  }}<template v-if="frame.round > 1">, round {{ frame.round }}</template></span
                >
              </span>
              <span class="soft since">{{ first ? `since ${dayWords(row.openedAt)}` : '' }}</span>
              <span class="next">
                <template v-if="row.closed">
                  {{ CLOSING_NAMES[row.closed.how] }}
                  <span class="soft small d-block">{{ dayWords(row.closed.at) }}</span>
                </template>
                <template v-else>
                  <template v-if="frame.next"
                    >next: <b>{{ STATION_NAMES[frame.next.station] }}</b></template
                  >
                  <span class="soft small d-block">{{ reason(frame) }}</span>
                  <span v-if="frame.stringsDue.length > 0" class="warn small d-block"
                    >due for new strings</span
                  >
                </template>
              </span>
              <kbd v-if="keyOf(goTo(row, frame))">{{ keyOf(goTo(row, frame)) }}</kbd>
              <span v-else class="arrow" aria-hidden="true">→</span>
            </RouterLink>
          </li>
        </ul>
      </section>
    </template>
    <ListFoot :left="left" @more="more" />

    <section v-if="!query.closed && day && day.matches.length > 0" aria-label="Matches soon">
      <h2 class="heading">Matches soon</h2>
      <ul class="list">
        <li v-for="(one, i) in day.matches" :key="i">
          <RouterLink :to="`/players/${one.playerId}/season`" class="entry">
            <span class="who"
              ><b>{{ one.playerName }}</b> <span class="soft">{{ one.title }}</span></span
            >
            <span class="soft">{{ dayWords(one.fromDay) }}</span>
          </RouterLink>
        </li>
      </ul>
    </section>
    <section v-if="!query.closed && day && day.lookAgain.total > 0" aria-label="To look at again">
      <h2 class="heading">To look at again</h2>
      <ul class="list">
        <li v-for="one in day.lookAgain.rows" :key="one.id" class="beside">
          <RouterLink :to="`/players/${one.playerId}`" class="entry">
            <span class="who"
              ><b>{{ one.playerName }}</b>
              <span class="soft"
                >{{ LOOK_AGAIN_WORDS[one.why] }}{{ one.note ? `: ${one.note}` : '' }}</span
              ></span
            >
            <span :class="one.dueOn <= shopToday() ? 'warn' : 'soft'">{{ dayWords(one.dueOn) }}</span>
            <kbd v-if="keyOf(`/players/${one.playerId}`)">{{ keyOf(`/players/${one.playerId}`) }}</kbd>
          </RouterLink>
          <v-btn variant="text" class="no-print" @click="looked(one.id)"
            >Done<span class="d-sr-only">: {{ one.playerName }}</span></v-btn
          >
        </li>
      </ul>
      <p v-if="day.lookAgain.total > day.lookAgain.rows.length" class="soft small">
        The first {{ day.lookAgain.rows.length }} of {{ day.lookAgain.total }}.
      </p>
    </section>
    <section v-if="!query.closed && day && day.calibrations.length > 0" aria-label="Calibration due">
      <h2 class="heading">Calibration due</h2>
      <ul class="list">
        <li v-for="one in day.calibrations" :key="one.id">
          <RouterLink :to="`/settings/instruments/${one.id}`" class="entry">
            <span class="who"
              ><b>{{ one.name }}</b></span
            >
            <span class="soft">{{
              one.calibratedAt ? `last ${dayWords(one.calibratedAt)}` : 'never calibrated'
            }}</span>
            <kbd v-if="keyOf(`/settings/instruments/${one.id}`)">{{
              keyOf(`/settings/instruments/${one.id}`)
            }}</kbd>
          </RouterLink>
        </li>
      </ul>
    </section>
    <Teleport defer to="#foot-keys">
      <span><kbd>1</kbd> … <kbd>9</kbd> open</span><span><kbd>n</kbd> open a fitting</span>
    </Teleport>
  </div>
  <NewFitting ref="fitting" />
</template>

<style scoped>
.find {
  flex: 1 1 200px;
  max-width: 280px;
}
.sport {
  flex: 0 1 150px;
}
.page-top .v-checkbox {
  flex: none;
}
section {
  margin-top: 14px;
}
.list {
  list-style: none;
  padding: 0;
}
.list .entry {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 140px 250px 30px;
  align-items: center;
  gap: 16px;
  padding: 9px 10px;
  border-top: 1px solid rgb(var(--v-theme-line));
  color: inherit;
  text-decoration: none;
}
.list:not(.fittings) .entry {
  grid-template-columns: minmax(0, 1fr) 250px 30px;
}
.beside {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 80px;
  align-items: center;
}
.list .entry:hover {
  background: rgb(var(--v-theme-sheet));
}
.list .entry.more {
  border-top: 0;
  padding-top: 0;
}
.who {
  overflow-wrap: anywhere;
  display: flex;
  flex-direction: column;
}
.who b {
  font-size: 17px;
}
.entry kbd,
.arrow {
  justify-self: end;
}
.arrow {
  font-size: 20px;
}
@media (max-width: 700px) {
  .list .entry,
  .list:not(.fittings) .entry {
    grid-template-columns: minmax(0, 1fr) minmax(0, auto);
  }
  .since,
  .arrow,
  .entry kbd {
    display: none;
  }
}
</style>
