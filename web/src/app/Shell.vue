<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router';
import { STATIONS, type Station, type StationState } from '@kevro/core';
import type { Shop } from '@kevro/contract';
import { api } from '../api/client';
import { useFitting } from '../stores/fitting';
import { useSaved } from '../stores/saved';
import { useUnits } from '../stores/units';
import { CLOSING_NAMES, ROUND_WORDS, STATION_NAMES, STATION_STATE_WORDS } from '../words';
import { hasPage } from '../stations/pages';
import CloseFitting from '../stations/CloseFitting.vue';
import { dressWords, lengthWords } from '../parts/dress-words';
import KeysSheet from './KeysSheet.vue';
import { useKeys } from './keys';

const route = useRoute();
const router = useRouter();
const fitting = useFitting();
const units = useUnits();
const saved = useSaved();
const showKeys = ref(false);
const shop = ref<Shop>();
onMounted(async () => {
  shop.value = await api('shop').catch(() => undefined);
});

const inFitting = computed(() => route.path.startsWith('/fittings/'));
const view = computed(() => (inFitting.value ? fitting.view : undefined));
/** The place that a page belongs to: a frame's own page to Frames, an instrument's to Settings. */
const placeOf = computed(() => (route.path === '/' ? 'today' : route.path.split('/')[1]));
const places = ['today', 'players', 'frames', 'setups', 'stock', 'settings'];

const stateOf = (station: Station): StationState => fitting.round?.state.stations[station] ?? 'blocked';
const record = computed(() => (view.value ? fitting.record : undefined));
/** The page of a station, for the frame of a set that is worked on. */
const linkTo = (station: Station, frame = fitting.frameId) => ({
  name: station,
  params: { id: view.value?.id ?? '' },
  query: frame ? { frame } : {},
});
const framesOfSet = computed(() => (view.value?.frames ?? []).map(({ frame }) => frame));
const stationNow = computed<Station>(() => STATIONS.find((s) => s === route.name) ?? 'measure');

function go(station: Station | undefined): void {
  if (!view.value || !station || !hasPage(station)) return;
  void router.push(linkTo(station));
}
const closing = ref(false);
useKeys({
  ...Object.fromEntries(STATIONS.map((station, i) => [`${i + 1}`, () => go(station)])),
  u: () => units.next(),
  '?': () => {
    showKeys.value = true;
  },
  m: () => {
    // At the bench itself it takes the reading.
    if (!view.value || route.name === 'measure') return false;
    go('measure');
    return true;
  },
});
</script>

<template>
  <div class="shell">
    <header class="top no-print">
      <RouterLink to="/" class="name">Kevro</RouterLink>
      <template v-if="view && record">
        <span class="who">
          <b>{{ view.player.name }}</b> · {{ record.maker }} {{ record.model }}
          <span class="soft">
            {{ record.tag }} · {{ lengthWords(record.shape.lengthCm) }}
            <template v-if="fitting.measurement">
              · {{ dressWords(fitting.measurement.dress, record.shape.sport) }}</template
            >
            <template v-if="fitting.round && fitting.round.number > 1">
              · round {{ fitting.round.number }}, {{ ROUND_WORDS[fitting.round.why] }}</template
            >
          </span>
          <b v-if="view.closed" class="warn"> {{ CLOSING_NAMES[view.closed.how] }}</b>
        </span>
        <button type="button" class="plain-button" @click="closing = true">
          {{ view.closed ? 'open again' : 'close fitting' }}
        </button>
      </template>
      <span v-else class="soft">{{ shop ? [shop.name, shop.town].filter(Boolean).join(', ') : '' }}</span>
      <span class="spring" />
      <button type="button" class="plain-button" title="Switch units (u)" @click="units.next()">
        {{ units.way.label }} <kbd>u</kbd>
      </button>
      <button type="button" class="plain-button" title="Keys (?)" @click="showKeys = true">
        keys <kbd>?</kbd>
      </button>
    </header>

    <nav class="side no-print" aria-label="Stations and places">
      <template v-if="view">
        <template v-if="framesOfSet.length > 1">
          <RouterLink
            v-for="frame in framesOfSet"
            :key="frame.id"
            :to="linkTo(stationNow, frame.id)"
            class="item"
            :class="{ on: frame.id === record?.id }"
            >{{ frame.tag }}</RouterLink
          >
          <hr />
        </template>
        <template v-for="(station, i) in STATIONS" :key="station">
          <span v-if="!hasPage(station)" class="item later" title="not in this version">
            <span class="dot later" aria-hidden="true" />{{ STATION_NAMES[station] }}
            <span class="digit">{{ i + 1 }}</span>
            <span class="d-sr-only">, not in this version</span>
          </span>
          <RouterLink v-else :to="linkTo(station)" class="item" :class="{ on: route.name === station }">
            <span class="dot" :class="stateOf(station)" aria-hidden="true" />{{ STATION_NAMES[station] }}
            <span class="digit">{{ i + 1 }}</span>
            <span class="d-sr-only">, {{ STATION_STATE_WORDS[stateOf(station)] }}</span>
          </RouterLink>
        </template>
        <hr />
      </template>
      <RouterLink
        v-for="place in places"
        :key="place"
        :to="{ name: place }"
        class="item"
        :class="{ on: placeOf === place }"
      >
        {{ place.charAt(0).toUpperCase() + place.slice(1) }}
      </RouterLink>
    </nav>

    <main class="content"><RouterView /></main>

    <footer class="foot no-print">
      <span id="foot-keys" class="foot-keys" />
      <span class="spring" />
      <span v-if="saved.failure" class="miss" role="alert">{{ saved.failure }}</span>
      <span v-else-if="saved.at">saved {{ saved.at }}</span>
    </footer>
    <KeysSheet v-model="showKeys" />
    <CloseFitting v-if="view" v-model="closing" :view="view" />
  </div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template: 52px 1fr 44px / 148px 1fr;
  height: 100vh;
  background: rgb(var(--v-theme-paper));
  color: rgb(var(--v-theme-ink));
}
.top {
  grid-column: 1 / 3;
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 18px;
  border-bottom: 1px solid rgb(var(--v-theme-line));
  min-width: 0;
}
.name {
  font-weight: 700;
  font-size: 17px;
  color: inherit;
  text-decoration: none;
}
.who {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.plain-button {
  color: rgb(var(--v-theme-soft));
  padding: 8px 4px;
  white-space: nowrap;
}
.side {
  border-right: 1px solid rgb(var(--v-theme-line));
  padding: 10px 0;
  overflow-y: auto;
}
.item {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 9px 14px 9px 18px;
  color: rgb(var(--v-theme-soft));
  text-decoration: none;
}
.item:hover {
  background: rgb(var(--v-theme-sheet));
}
.item.on {
  color: rgb(var(--v-theme-ink));
  font-weight: 700;
  background: rgb(var(--v-theme-sheet));
  box-shadow: inset 4px 0 rgb(var(--v-theme-aim));
}
.item:focus-visible {
  outline-offset: -3px;
}
.digit {
  margin-left: auto;
  font-size: 12.5px;
}
/* Done is filled, due is a ring with a core, blocked an empty ring: told by shape first. */
.dot {
  width: 12px;
  height: 12px;
  border: 1.6px solid rgb(var(--v-theme-soft));
  border-radius: 50%;
  flex: none;
}
.dot.done {
  background: rgb(var(--v-theme-soft));
}
.dot.due {
  border-color: rgb(var(--v-theme-aim));
  background: radial-gradient(rgb(var(--v-theme-aim)) 0 3px, transparent 3.6px);
}
.dot.waiting {
  border-style: double;
  border-width: 4px;
}
.dot.later {
  border-style: dotted;
}
hr {
  border: 0;
  border-top: 1px solid rgb(var(--v-theme-line));
  margin: 12px 18px;
}
.content {
  overflow: auto;
  min-width: 0;
}
.foot {
  grid-column: 1 / 3;
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 20px;
  border-top: 1px solid rgb(var(--v-theme-line));
  color: rgb(var(--v-theme-soft));
  font-size: 13.5px;
  min-width: 0;
}
.foot-keys {
  display: flex;
  gap: 18px;
  white-space: nowrap;
  overflow: hidden;
}
@media (max-width: 700px) {
  .shell {
    grid-template: 52px auto 1fr 44px / 1fr;
  }
  .top,
  .foot {
    grid-column: 1;
  }
  .side {
    display: flex;
    overflow-x: auto;
    border-right: 0;
    border-bottom: 1px solid rgb(var(--v-theme-line));
    padding: 0;
  }
  .digit {
    display: none;
  }
}
@media print {
  .shell {
    display: block;
    height: auto;
  }
}
</style>
