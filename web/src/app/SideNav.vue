<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { STATIONS, type Station, type StationState } from '@kevro/core';
import type { FittingView } from '@kevro/contract';
import { useFitting } from '../stores/fitting';
import { STATION_NAMES, STATION_STATE_WORDS } from '../words';
import { useKeys } from '../ui/keys';

/** The ways on: the frames and stations of the fitting that is open, and the places. Each station has a digit. */
const props = defineProps<{ view: FittingView | undefined; open: boolean }>();
const route = useRoute();
const router = useRouter();
const fitting = useFitting();

/** The place that a page belongs to: a frame's own page to Frames, an instrument's to Settings. */
const placeOf = computed(() => (route.path === '/' ? 'today' : route.path.split('/')[1]));
const places = ['today', 'players', 'frames', 'setups', 'stock', 'settings'];

const stateOf = (station: Station): StationState => fitting.round?.state.stations[station] ?? 'blocked';
/** The page of a station, for the frame of a set that is worked on. */
const linkTo = (station: Station, frame = fitting.frameId) => ({
  name: station,
  params: { id: props.view?.id ?? '' },
  query: frame ? { frame } : {},
});
const framesOfSet = computed(() => (props.view?.frames ?? []).map(({ frame }) => frame));
const stationNow = computed<Station>(() => STATIONS.find((s) => s === route.name) ?? 'measure');

function go(station: Station | undefined): boolean {
  // Outside a fitting the digits are the page's own.
  if (!props.view || !station) return false;
  void router.push(linkTo(station));
  return true;
}
useKeys({
  ...Object.fromEntries(STATIONS.map((station, i) => [`${i + 1}`, () => go(station)])),
  m: () => {
    // At the bench itself it takes the reading; the check is measured as such.
    if (!props.view || route.name === 'measure' || route.name === 'check') return false;
    go('measure');
    return true;
  },
});
</script>

<template>
  <nav id="places" class="side no-print" :class="{ open, fitting: view }" aria-label="Stations and places">
    <template v-if="view">
      <template v-if="framesOfSet.length > 1">
        <RouterLink
          v-for="frame in framesOfSet"
          :key="frame.id"
          :to="linkTo(stationNow, frame.id)"
          class="item"
          :class="{ on: route.name !== 'match-set' && frame.id === fitting.record?.id }"
          >{{ frame.tag }}</RouterLink
        >
        <RouterLink
          :to="{ name: 'match-set', params: { id: view.id } }"
          class="item"
          :class="{ on: route.name === 'match-set' }"
          >Match frames</RouterLink
        >
        <hr />
      </template>
      <template v-for="(station, i) in STATIONS" :key="station">
        <RouterLink :to="linkTo(station)" class="item" :class="{ on: route.name === station }">
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
      class="item place"
      :class="{ on: placeOf === place }"
    >
      {{ place.charAt(0).toUpperCase() + place.slice(1) }}
    </RouterLink>
  </nav>
</template>

<style scoped>
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
hr {
  border: 0;
  border-top: 1px solid rgb(var(--v-theme-line));
  margin: 12px 18px;
}
@media (max-width: 820px) {
  .side {
    display: flex;
    flex-wrap: wrap;
    border-right: 0;
    border-bottom: 1px solid rgb(var(--v-theme-line));
    padding: 0;
  }
  .side hr,
  .digit {
    display: none;
  }
  .item {
    flex: 1 1 0;
    flex-direction: column;
    justify-content: center;
    gap: 3px;
    padding: 4px 2px;
    font-size: 14px;
  }
  .item.on {
    box-shadow: inset 0 -4px rgb(var(--v-theme-aim));
  }
  .side:not(.open) .place {
    display: none;
  }
  .item.place {
    flex: 1 1 30%;
  }
}
</style>
