<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue';
import type { FrameRow, NewPart, Parts } from '@kevro/contract';
import { api } from '../api/client';
import AddDialog from '../parts/AddDialog.vue';
import ListPage from '../parts/ListPage.vue';
import { useList } from '../parts/list';
import { typedNumber } from '../parts/typed-number';

const parts = ref<Parts>();
const { rows, failure, load } = useList(async () => {
  parts.value = await api('parts');
  return [...parts.value.tapes, ...parts.value.fillings];
});
const shelf = ref<FrameRow[]>([]);
onMounted(async () => {
  const { rows } = await api('frames', { query: { owner: 'stock', limit: 500 } }).catch(() => ({ rows: [] }));
  shelf.value = rows;
});

const adding = ref(false);
const empty = {
  kind: 'tape' as 'tape' | 'filling',
  name: '',
  tapeMaterial: 'tungsten' as 'tungsten' | 'lead',
  fillingMaterial: 'putty' as 'putty' | 'silicone',
  widthMm: '',
  gPerCm: '',
  stepCm: '0.5',
  dabG: '0.5',
};
const draft = reactive({ ...empty });
function start(): void {
  Object.assign(draft, empty);
  adding.value = true;
}
const body = computed<NewPart>(() =>
  draft.kind === 'tape'
    ? {
        kind: 'tape',
        data: {
          name: draft.name,
          material: draft.tapeMaterial,
          widthMm: typedNumber(draft.widthMm),
          gPerCm: typedNumber(draft.gPerCm),
          stepCm: typedNumber(draft.stepCm),
        },
      }
    : {
        kind: 'filling',
        data: {
          name: draft.name,
          material: draft.fillingMaterial,
          gPerCm: typedNumber(draft.gPerCm),
          dabG: typedNumber(draft.dabG),
        },
      },
);
const submit = () => api('addPart', { body: body.value });
</script>

<template>
  <ListPage
    title="Stock"
    action="Add a part"
    :rows="rows"
    :failure="failure"
    empty="No tape and no filling yet. A plan needs one of each."
    @act="start"
    @retry="load"
  >
    <template v-if="parts" #default>
      <table class="plain">
        <thead>
          <tr>
            <th>Tape</th>
            <th>Material</th>
            <th class="num">Width, mm</th>
            <th class="num">g per cm</th>
            <th class="num">Cut in steps of, cm</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="t in parts.tapes" :key="t.id">
            <td>
              <b>{{ t.name }}</b>
            </td>
            <td>{{ t.material }}</td>
            <td class="num">{{ t.widthMm }}</td>
            <td class="num">{{ t.gPerCm.toFixed(3) }}</td>
            <td class="num">{{ t.stepCm.toFixed(1) }}</td>
          </tr>
        </tbody>
      </table>
      <table class="plain mt-6">
        <thead>
          <tr>
            <th>In the handle</th>
            <th>Material</th>
            <th class="num">g per cm</th>
            <th class="num">In dabs of, g</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in parts.fillings" :key="f.id">
            <td>
              <b>{{ f.name }}</b>
            </td>
            <td>{{ f.material }}</td>
            <td class="num">{{ f.gPerCm.toFixed(2) }}</td>
            <td class="num">{{ f.dabG.toFixed(1) }}</td>
          </tr>
        </tbody>
      </table>
      <div class="mt-6 mb-2"><h2 class="heading">Frames on the shelf</h2></div>
      <p v-if="shelf.length === 0" class="soft">None.</p>
      <p v-for="f in shelf" :key="f.id" class="mb-1">
        <b>{{ f.tag }}</b> {{ f.maker }} {{ f.model }}
      </p>
    </template>
    <template #after>
      <AddDialog v-model="adding" title="Add a part" :submit="submit" @stored="load">
        <template #default="{ at }">
          <v-radio-group v-model="draft.kind" inline hide-details>
            <v-radio label="tape" value="tape" /><v-radio label="filling for the handle" value="filling" />
          </v-radio-group>
          <v-text-field v-model="draft.name" label="Name" :error-messages="at('data.name')" />
          <template v-if="draft.kind === 'tape'">
            <v-select v-model="draft.tapeMaterial" :items="['tungsten', 'lead']" label="Material" />
            <p v-if="draft.tapeMaterial === 'lead'" class="warn small mb-0">
              Lead is poisonous: the build sheet will say how to handle it. Local rules may forbid it.
            </p>
            <v-text-field
              v-model="draft.widthMm"
              label="Width"
              suffix="mm"
              inputmode="decimal"
              :error-messages="at('data.widthMm')"
            />
          </template>
          <v-select v-else v-model="draft.fillingMaterial" :items="['putty', 'silicone']" label="Material" />
          <div class="two">
            <v-text-field
              v-model="draft.gPerCm"
              label="Weight of one cm"
              suffix="g"
              inputmode="decimal"
              :error-messages="at('data.gPerCm')"
            />
            <v-text-field
              v-if="draft.kind === 'tape'"
              v-model="draft.stepCm"
              label="Cut in steps of"
              suffix="cm"
              inputmode="decimal"
              :error-messages="at('data.stepCm')"
            />
            <v-text-field
              v-else
              v-model="draft.dabG"
              label="In dabs of"
              suffix="g"
              inputmode="decimal"
              :error-messages="at('data.dabG')"
            />
          </div>
          <p class="soft small mb-0">Weigh a metre of tape and divide by 100: better than the label.</p>
        </template>
      </AddDialog>
    </template>
  </ListPage>
</template>
