<script setup lang="ts">
import { reactive, ref } from 'vue';
import { SPECS, type Sport } from '@kevro/core';
import type { Player, PlayerQuery } from '@kevro/contract';
import { api } from '../api/client';
import ListFilter from '../forms/ListFilter.vue';
import ListFoot from '../ui/ListFoot.vue';
import ListPage from '../ui/ListPage.vue';
import { focusRow } from '../ui/focus';
import { useListing } from '../api/queries';
import { useSaved } from '../stores/saved';
import ExportPlayers from './ExportPlayers.vue';
import ErasePlayer from './ErasePlayer.vue';
import PlayerForm from '../forms/PlayerForm.vue';
import { SPORT_NAMES } from '../words';
import { botherWords, ceilingWords } from '../words/players';
import { vWide } from '../ui/wide-table';

// What a fitter comes here to do: find a player; see at a glance what matters about them; change what has changed.
const query = reactive({
  search: '',
  sport: null as Sport | null,
  sort: 'name' as PlayerQuery['sort'],
  archived: false,
});
const { rows, left, failure, load, more } = useListing(
  'players',
  query,
  ({ search, sport, sort, archived, limit, offset }) =>
    api('players', {
      query: { search, sort, archived: archived ? 'yes' : 'no', limit, offset, ...(sport ? { sport } : {}) },
    }),
);
const form = ref<InstanceType<typeof PlayerForm>>();
const erase = ref<InstanceType<typeof ErasePlayer>>();
const exporting = ref(false);
/** A customer may look on: what bothers the others is shown when it is asked for, and not on the next visit. */
const withBothers = ref(false);
const saved = useSaved();

async function stored({ id }: Player): Promise<void> {
  saved.stored();
  await load();
  focusRow(id);
}
async function archive(player: Player): Promise<void> {
  try {
    await api('archivePlayer', { id: player.id, body: { archived: !player.archived } });
    saved.stored();
    await load();
  } catch (error) {
    saved.failed(error);
  }
}
const SORTS: { value: typeof query.sort; title: string }[] = [
  { value: 'name', title: 'by name' },
  { value: 'age', title: 'youngest first' },
  { value: 'level', title: 'highest level first' },
];
</script>

<template>
  <ListPage
    title="Players"
    action="Add a player"
    :rows="rows"
    :failure="failure"
    :empty="
      query.search || query.sport || query.archived
        ? 'No player like that. Search for less, or look among the others.'
        : 'No player is known yet. Add the first one.'
    "
    @act="form?.show()"
    @retry="load"
  >
    <template #filter>
      <ListFilter
        v-model:search="query.search"
        v-model:sport="query.sport"
        v-model:sort="query.sort"
        label="Find a player"
        :sorts="SORTS"
      />
    </template>
    <template #default="{ rows: players }">
      <table v-wide class="plain wide">
        <thead>
          <tr>
            <th>Name</th>
            <th class="num">Born</th>
            <th>Level</th>
            <th>How they play</th>
            <th v-if="withBothers" class="no-print">What bothers them</th>
            <th class="num nowrap">Ceiling</th>
            <th class="no-print"><span class="d-sr-only">Archive</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in players" :key="p.id" :data-row="p.id">
            <td class="named">
              <RouterLink class="row-name" :to="{ name: 'player', params: { id: p.id } }">{{
                p.name
              }}</RouterLink>
              <div class="soft small">{{ p.sports.map((s) => SPORT_NAMES[s]).join(', ') }}</div>
            </td>
            <td class="num">{{ p.birthYear ?? '—' }}</td>
            <td>
              <b v-if="p.levelScale">{{ p.levelScale }}</b> {{ p.level }}
            </td>
            <td>{{ p.style }}</td>
            <td v-if="withBothers" class="no-print">{{ botherWords(p, true) }}</td>
            <td class="num">{{ ceilingWords(p) }}</td>
            <td class="num nowrap no-print">
              <v-btn v-if="p.archived" variant="text" :aria-label="`Erase ${p.name}`" @click="erase?.show(p)"
                >Erase…</v-btn
              >
              <v-btn variant="text" :aria-label="`Change ${p.name}`" @click="form?.show(p)">Change</v-btn>
              <v-btn
                variant="text"
                :aria-label="`${p.archived ? 'Bring back' : 'Archive'} ${p.name}`"
                @click="archive(p)"
                >{{ p.archived ? 'Bring back' : 'Archive' }}</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <ListFoot :left="left" @more="more" />
      <p class="soft small mt-2">
        The ceiling is the highest {{ SPECS.swingWeight.name }}, in {{ SPECS.swingWeight.unit }}, at which the
        player is on time.
      </p>
    </template>
    <template #after>
      <div class="under no-print">
        <v-switch v-model="query.archived" label="Show the archived ones" />
        <v-switch v-model="withBothers" label="Show what bothers them" />
        <v-btn variant="text" @click="exporting = true">Export as CSV</v-btn>
      </div>
      <ErasePlayer ref="erase" @erased="(saved.stored(), load())" />
      <PlayerForm ref="form" @stored="stored" />
      <ExportPlayers v-model="exporting" />
    </template>
  </ListPage>
</template>

<style scoped>
.under {
  display: flex;
  gap: 24px;
  align-items: center;
}
</style>
