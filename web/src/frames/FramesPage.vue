<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue';
import { CM_PER_INCH } from '@kevro/core';
import type { Player } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import ListPage from '../parts/ListPage.vue';
import { lengthWords } from '../parts/dress-words';
import { useList } from '../parts/list';
import { typedNumber, typedOrNone } from '../parts/typed-number';

const { rows, failure, load } = useList(() => api('frames'));
const players = ref<Player[]>([]);
onMounted(async () => {
  players.value = await api('players').catch(() => []);
});
const ownerOf = (id: string | null): string =>
  id === null ? 'shop stock' : (players.value.find((p) => p.id === id)?.name ?? '');
const squareInches = (cm2: number | undefined): string => (cm2 ? (cm2 / CM_PER_INCH ** 2).toFixed(0) : '—');

const adding = ref(false);
const empty = {
  tag: '',
  maker: '',
  model: '',
  ownerId: null as string | null,
  length: '68.58',
  head: '645.2',
  pattern: '',
  grip: '',
  note: '',
};
const draft = reactive({ ...empty });
function start(): void {
  Object.assign(draft, empty);
  adding.value = true;
}
const owners = computed(() => [
  { value: null, title: 'shop stock' },
  ...players.value.map((p) => ({ value: p.id, title: p.name })),
]);
const submit = () =>
  api('addFrame', {
    body: {
      tag: draft.tag,
      maker: draft.maker,
      model: draft.model,
      ownerId: draft.ownerId,
      shape: { sport: 'tennis', lengthCm: typedNumber(draft.length), headAreaCm2: typedOrNone(draft.head) },
      pattern: draft.pattern,
      gripSize: draft.grip,
      note: draft.note,
    },
  });
</script>

<template>
  <ListPage
    title="Frames"
    action="Add a racket"
    :rows="rows"
    :failure="failure"
    empty="No racket is known yet. Add the first one."
    @act="start"
    @retry="load"
  >
    <template #default="{ rows: frames }">
      <table class="plain">
        <thead>
          <tr>
            <th>Tag</th>
            <th>Maker and model</th>
            <th>Owner</th>
            <th class="num">Length</th>
            <th class="num">Head, in²</th>
            <th>Strings</th>
            <th>Grip</th>
            <th>Note</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in frames" :key="f.id">
            <td>
              <b>{{ f.tag }}</b>
            </td>
            <td>{{ f.maker }} {{ f.model }}</td>
            <td>{{ ownerOf(f.ownerId) }}</td>
            <td class="num">{{ lengthWords(f.shape.lengthCm) }}</td>
            <td class="num">{{ squareInches(f.shape.headAreaCm2) }}</td>
            <td>{{ f.pattern }}</td>
            <td>{{ f.gripSize }}</td>
            <td class="soft">{{ f.note }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <template #after>
      <AddDialog v-model="adding" title="Add a racket" :submit="submit" @stored="load">
        <template #default="{ at }">
          <v-text-field v-model="draft.tag" label="Tag" autofocus :error-messages="at('tag')" />
          <div class="two">
            <v-text-field v-model="draft.maker" label="Maker" :error-messages="at('maker')" />
            <v-text-field v-model="draft.model" label="Model" :error-messages="at('model')" />
          </div>
          <v-select v-model="draft.ownerId" :items="owners" label="Owner" :error-messages="at('ownerId')" />
          <div class="two">
            <v-text-field
              v-model="draft.length"
              label="Length"
              suffix="cm"
              inputmode="decimal"
              :error-messages="at('shape.headAreaCm2').length > 0 ? at('shape.lengthCm') : at('shape')"
            />
            <v-text-field
              v-model="draft.head"
              label="Head"
              suffix="cm²"
              inputmode="decimal"
              :error-messages="at('shape.headAreaCm2')"
            />
          </div>
          <div class="two">
            <v-text-field v-model="draft.pattern" label="String pattern" :error-messages="at('pattern')" />
            <v-text-field v-model="draft.grip" label="Grip size" :error-messages="at('gripSize')" />
          </div>
          <v-text-field v-model="draft.note" label="Note" :error-messages="at('note')" />
        </template>
      </AddDialog>
    </template>
  </ListPage>
</template>
