<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { computed, nextTick, ref, useId, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { AnswerOf, FoundKind } from '@kevro/contract';
import { api } from '../api/client';
import { howMany } from '../words/counted';
import Sheet from '../ui/Sheet.vue';
import { takeTyped } from '../ui/typed-early';

// What a fitter comes here to do: type a few letters of anything, see it, and be there.
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const text = ref('');
const found = ref<AnswerOf<'search'>>();
const failure = ref('');
const at = ref(0);
const listId = useId();

const TITLES: Record<FoundKind, string> = {
  player: 'Players',
  frame: 'Frames',
  fitting: 'Fittings',
  setup: 'Setups',
  part: 'Parts',
  instrument: 'Instruments',
};
const PATHS: Record<FoundKind, (id: string) => string> = {
  player: (id) => `/players/${id}`,
  frame: (id) => `/frames/${id}`,
  fitting: (id) => `/fittings/${id}/play`,
  setup: (id) => `/setups/${id}`,
  part: () => '/stock',
  instrument: (id) => `/settings/instruments/${id}`,
};
const PLACES = [
  { title: 'Today', path: '/' },
  { title: 'Players', path: '/players' },
  { title: 'Frames', path: '/frames' },
  { title: 'Setups', path: '/setups' },
  { title: 'Guides', path: '/setups/guides' },
  { title: 'Stock', path: '/stock' },
  { title: 'Match frames', path: '/match' },
  { title: 'Match from stock', path: '/stock/match' },
  { title: 'What builds taught', path: '/stock/learning' },
  { title: 'Settings', path: '/settings' },
  { title: 'Instruments and calibration', path: '/settings/instruments' },
  { title: 'Backups and devices', path: '/settings/safety' },
  { title: 'Change log', path: '/settings/changes' },
  { title: 'Your first fitting', path: '/guide' },
];
interface Option {
  path: string;
  title: string;
  detail: string;
}
const groups = computed(() => {
  const words = text.value.trim().toLowerCase();
  const places = PLACES.filter(({ title }) => words !== '' && title.toLowerCase().includes(words));
  const own = places.map(({ title, path }): Option => ({ title, path, detail: '' }));
  return [
    ...(found.value ?? []).map(({ kind, rows, ...inAll }) => ({
      title: TITLES[kind],
      more: inAll.total > rows.length ? howMany(inAll, rows.length) : '',
      options: rows.map(({ id, title, detail }): Option => ({ title, detail, path: PATHS[kind](id) })),
    })),
    ...(own.length > 0 ? [{ title: 'Places', more: '', options: own }] : []),
  ];
});
const options = computed(() => groups.value.flatMap((group) => group.options));
const idOf = (option: Option): string => `${listId}-${options.value.indexOf(option)}`;
const chosen = computed(() => options.value[at.value]);

let asked = 0;
watchDebounced(
  text,
  async (now) => {
    const own = ++asked;
    failure.value = '';
    if (now.trim() === '') {
      found.value = undefined;
      return;
    }
    try {
      const answer = await api('search', { query: { q: now.trim() } });
      if (own !== asked) return;
      found.value = answer;
      at.value = 0;
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    }
  },
  { debounce: 120 },
);
watch(open, (now) => {
  if (!now) return;
  text.value = '';
  found.value = undefined;
  at.value = 0;
});
async function move(by: 1 | -1): Promise<void> {
  const count = options.value.length;
  if (count === 0) return;
  at.value = (at.value + by + count) % count;
  await nextTick();
  document.getElementById(`${listId}-${at.value}`)?.scrollIntoView({ block: 'nearest' });
}
async function go(option: Option | undefined): Promise<void> {
  if (!option) return;
  open.value = false;
  await router.push(option.path);
}
</script>

<template>
  <Sheet v-model="open" title="Find anything" :width="620">
    <v-text-field
      v-model="text"
      v-first
      label="A player, a frame, a fitting, a setup, a part"
      autocomplete="off"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="options.length > 0"
      :aria-controls="listId"
      :aria-activedescendant="chosen ? idOf(chosen) : undefined"
      @focus="text += takeTyped()"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(chosen)"
    />
    <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    <p v-else-if="text.trim() !== '' && found && options.length === 0" class="soft" role="status">
      Nothing found.
    </p>
    <p v-else-if="text.trim() === ''" class="soft small">
      Also finds closed fittings, archived frames and retired parts.
    </p>
    <div :id="listId" role="listbox" aria-label="Found">
      <div v-for="group in groups" :key="group.title" role="group" :aria-label="group.title">
        <div class="heading group" aria-hidden="true">{{ group.title }}</div>
        <div
          v-for="option in group.options"
          :id="idOf(option)"
          :key="option.path + option.title"
          role="option"
          class="option"
          :class="{ on: option === chosen }"
          :aria-selected="option === chosen"
          @click="go(option)"
        >
          <span>{{ option.title }}</span>
          <span class="soft small">{{ option.detail }}</span>
        </div>
        <p v-if="group.more" class="soft small mb-0 pl-3">{{ group.more }} more: add a word</p>
      </div>
    </div>
  </Sheet>
</template>

<style scoped>
.group {
  padding-top: 10px;
}
.option {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 7px 12px;
  cursor: pointer;
}
.option.on {
  background: rgb(var(--v-theme-paper));
  box-shadow: inset 4px 0 rgb(var(--v-theme-ink));
}
</style>
