<script setup lang="ts">
import { until } from '@vueuse/core';
import { reactive, ref } from 'vue';
import type { FittingRow } from '@kevro/contract';
import { api } from '../api/client';
import { useKeys } from '../app/keys';
import { dayWords, momentWords } from '../parts/day-words';
import ListFoot from '../parts/ListFoot.vue';
import { later } from '../parts/later';
import { useListing } from '../parts/listing';
import { CLOSING_NAMES, NEXT_WORDS, STATION_NAMES } from '../words';
import { pageOf } from '../stations/pages';

// What a fitter comes here to do: see what each fitting waits for; go there; open a new one.
const query = reactive({ closed: false });
const { rows, total, failure, load, more } = useListing(query, ({ closed, limit, offset }) =>
  api('today', { query: { closed: closed ? 'yes' : 'no', limit, offset } }),
);
// The forms come after the list: most who look at Today go on to a fitting.
const NewFitting = later(() => import('./NewFitting.vue'));
const fitting = ref<{ show: () => void }>();
const openFitting = async (): Promise<void> => (await until(fitting).toBeTruthy()).show();
useKeys({ n: openFitting });

type Frame = FittingRow['frames'][number];
const goTo = (row: FittingRow, frame: Frame): string => {
  const page = pageOf(frame.next?.station ?? 'build');
  return `/fittings/${row.id}/${page}${row.frames.length > 1 ? `?frame=${frame.id}` : ''}`;
};
const reason = ({ next }: Frame): string => {
  if (!next) return 'nothing is left to do';
  return next.until ? `sets until ${momentWords(next.until)}` : NEXT_WORDS[next.because];
};
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Today</h1>
      <span class="spring" />
      <v-checkbox v-model="query.closed" label="Closed ones" />
      <v-btn color="primary" size="large" @click="openFitting">Open a fitting</v-btn>
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!rows" class="soft" role="status">Looking up the fittings…</p>
    <p v-else-if="rows.length === 0 && query.closed" class="soft">No fitting is closed yet.</p>
    <div v-else-if="rows.length === 0">
      <p class="soft">
        No fitting is open. <button type="button" class="link" @click="openFitting">Open one</button> with a
        player and a frame, known or new; measuring comes first.
      </p>
      <p class="soft">
        New here? <RouterLink :to="{ name: 'guide' }">Your first fitting, step by step</RouterLink>. Tape and
        putty are kept under <RouterLink :to="{ name: 'stock' }">Stock</RouterLink>, what others play under
        <RouterLink :to="{ name: 'setups' }">Setups</RouterLink>, the shop’s name under
        <RouterLink :to="{ name: 'settings' }">Settings</RouterLink>.
      </p>
    </div>
    <ul v-else class="fittings">
      <template v-for="row in rows" :key="row.id">
        <li v-for="(frame, i) in row.frames" :key="frame.id">
          <RouterLink :to="goTo(row, frame)" :class="{ more: i > 0 }">
            <span class="who">
              <b v-if="i === 0">{{ row.playerName }}</b>
              <span class="soft"
                >{{ frame.name }} · {{ frame.tag
                }}<template v-if="frame.round > 1">, round {{ frame.round }}</template></span
              >
            </span>
            <span class="soft since">{{ i === 0 ? `since ${dayWords(row.openedAt)}` : '' }}</span>
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
              </template>
            </span>
            <span class="arrow" aria-hidden="true">→</span>
          </RouterLink>
        </li>
      </template>
    </ul>
    <ListFoot v-if="rows && rows.length > 0" :shown="rows.length" :total="total" @more="more" />
    <NewFitting ref="fitting" />
  </div>
</template>

<style scoped>
.fittings {
  list-style: none;
  padding: 0;
}
.fittings a {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 170px 170px 30px;
  align-items: center;
  gap: 16px;
  padding: 14px 10px;
  border-top: 1px solid rgb(var(--v-theme-line));
  color: inherit;
  text-decoration: none;
}
.fittings a:hover {
  background: rgb(var(--v-theme-sheet));
}
.fittings a.more {
  border-top: 0;
  padding-top: 0;
}
.who {
  overflow-wrap: anywhere;
  display: flex;
  flex-direction: column;
}
.who b {
  font-size: 18px;
}
.arrow {
  font-size: 20px;
  text-align: right;
}
@media (max-width: 700px) {
  .fittings a {
    grid-template-columns: minmax(0, 1fr) minmax(0, auto);
  }
  .since,
  .arrow {
    display: none;
  }
}
</style>
