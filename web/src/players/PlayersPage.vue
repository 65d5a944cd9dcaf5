<script setup lang="ts">
import { reactive, ref } from 'vue';
import { GUIDES, TENNIS_GUIDES, type GuideName } from '@kevro/core';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import ListPage from '../parts/ListPage.vue';
import { useList } from '../parts/list';
import { typedOrNull } from '../parts/typed-number';
import { GUIDE_NAMES } from './guide-names';

const { rows, failure, load } = useList(() => api('players'));
const adding = ref(false);
const empty = {
  name: '',
  birthYear: '',
  level: '',
  style: '',
  bothers: '',
  ceiling: '',
  guide: null as GuideName | null,
};
const draft = reactive({ ...empty });
function start(): void {
  Object.assign(draft, empty);
  adding.value = true;
}
const submit = () =>
  api('addPlayer', {
    body: {
      name: draft.name,
      sport: 'tennis',
      birthYear: typedOrNull(draft.birthYear),
      level: draft.level,
      style: draft.style,
      bothers: draft.bothers,
      ceilingSwingWeight: typedOrNull(draft.ceiling),
      guide: draft.guide,
    },
  });
const guides = GUIDES.map((value) => ({
  value,
  title: GUIDE_NAMES[value],
  subtitle: `swing weight ${TENNIS_GUIDES[value].swingWeight.join('–')} strung, ${TENNIS_GUIDES[value].unstrungG.join('–')} g unstrung`,
}));
</script>

<template>
  <ListPage
    title="Players"
    action="Add a player"
    :rows="rows"
    :failure="failure"
    empty="No player is known yet. Add the first one."
    @act="start"
    @retry="load"
  >
    <template #default="{ rows: players }">
      <table class="plain">
        <thead>
          <tr>
            <th>Name</th>
            <th class="num">Born</th>
            <th>Level</th>
            <th>How they play</th>
            <th>What bothers them</th>
            <th class="num nowrap">Carries up to</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in players" :key="p.id">
            <td class="nowrap">
              <b>{{ p.name }}</b>
            </td>
            <td class="num">{{ p.birthYear ?? '—' }}</td>
            <td>
              {{ p.level }}
              <div v-if="p.guide" class="soft small">guide: {{ GUIDE_NAMES[p.guide] }}</div>
            </td>
            <td>{{ p.style }}</td>
            <td>{{ p.bothers }}</td>
            <td class="num">{{ p.ceilingSwingWeight ?? '—' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft small mt-2">
        “Carries up to” is the highest swing weight, in kg·cm², at which the player is on time.
      </p>
    </template>
    <template #after>
      <AddDialog v-model="adding" title="Add a player" :submit="submit" @stored="load">
        <template #default="{ at }">
          <v-text-field v-model="draft.name" label="Name" autofocus :error-messages="at('name')" />
          <div class="two">
            <v-text-field
              v-model="draft.birthYear"
              label="Year of birth"
              inputmode="numeric"
              :error-messages="at('birthYear')"
            />
            <v-text-field
              v-model="draft.ceiling"
              label="Carries up to"
              suffix="kg·cm²"
              inputmode="decimal"
              :error-messages="at('ceilingSwingWeight')"
            />
          </div>
          <v-text-field v-model="draft.level" label="Level, in plain words" :error-messages="at('level')" />
          <v-text-field v-model="draft.style" label="How they play" :error-messages="at('style')" />
          <v-text-field
            v-model="draft.bothers"
            label="What bothers them about the racket"
            :error-messages="at('bothers')"
          />
          <v-select
            v-model="draft.guide"
            :items="guides"
            item-props
            clearable
            label="Guide that suits them"
            :error-messages="at('guide')"
          />
        </template>
      </AddDialog>
    </template>
  </ListPage>
</template>
