<script setup lang="ts">
import { onMounted, ref } from 'vue';
import type { FittingRow } from '@kevro/contract';
import { api } from '../api/client';
import { STATION_NAMES } from '../words';
import NewFitting from './NewFitting.vue';

const rows = ref<FittingRow[]>();
const failure = ref('');
const opening = ref(false);
async function load(): Promise<void> {
  failure.value = '';
  try {
    rows.value = await api('today');
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(load);
const day = (iso: string): string => new Date(iso).toLocaleDateString([], { day: 'numeric', month: 'long' });
</script>

<template>
  <div class="page">
    <div class="page-top">
      <h1>Today</h1>
      <span class="spring" />
      <v-btn color="primary" size="large" @click="opening = true">Open a fitting</v-btn>
    </div>
    <div v-if="failure" role="alert">
      <p class="miss">{{ failure }}</p>
      <v-btn variant="outlined" @click="load">Try again</v-btn>
    </div>
    <p v-else-if="!rows" class="soft" role="status">Looking up the fittings…</p>
    <p v-else-if="rows.length === 0" class="soft">
      No fitting is open. Open one with a player and a frame; measuring comes first.
    </p>
    <ul v-else class="fittings">
      <li v-for="row in rows" :key="row.id">
        <RouterLink :to="`/fittings/${row.id}/${row.next ?? 'build'}`">
          <span class="who">
            <b>{{ row.playerName }}</b>
            <span class="soft">{{ row.frameName }} · {{ row.frameTag }}</span>
          </span>
          <span class="soft since">since {{ day(row.openedAt) }}</span>
          <span class="next">
            <template v-if="row.next"
              >next: <b>{{ STATION_NAMES[row.next] }}</b></template
            >
            <template v-else>built</template>
          </span>
          <span class="arrow" aria-hidden="true">→</span>
        </RouterLink>
      </li>
    </ul>
    <NewFitting v-model="opening" />
  </div>
</template>

<style scoped>
.fittings {
  list-style: none;
  padding: 0;
}
.fittings a {
  display: grid;
  grid-template-columns: 1fr 170px 170px 30px;
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
.who {
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
    grid-template-columns: 1fr auto;
  }
  .since,
  .arrow {
    display: none;
  }
}
</style>
