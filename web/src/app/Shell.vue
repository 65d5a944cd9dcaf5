<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch, watchEffect } from 'vue';
import { RouterLink, RouterView, useRoute } from 'vue-router';
import { api } from '../api/client';
import { shownAsOf } from '../api/kept-answers';
import { useAsked } from '../api/queries';
import { keepSending, refused, unsent } from '../api/waiting';
import { useFitting } from '../stores/fitting';
import { useSaved } from '../stores/saved';
import { useShop } from '../stores/shop';
import { useStream } from '../stores/stream';
import { useUnits } from '../stores/units';
import { CLOSING_NAMES, ROUND_WORDS } from '../words';
import { timeWords, wholeDayWords } from '../words/days';
import { dressWords } from '../words/dress';
import { focusHeading } from '../ui/focus';
import { later } from '../stores/later';
import KeysSheet from './KeysSheet.vue';
import SideNav from './SideNav.vue';
// There without the server, which it speaks of.
import WaitingSheet from './WaitingSheet.vue';
import { watchBursts } from '../ui/bursts';
import { useKeys } from '../ui/keys';
import { keepTyped } from '../ui/typed-early';
import { openScanned } from './scanned';
import { useTour } from './tour';

// What is stored on another page or device is seen here too.
useStream().keepUp();
const route = useRoute();
const fitting = useFitting();
const units = useUnits();
const saved = useSaved();
const showKeys = ref(false);
const shopOf = useShop();
const shop = computed(() => shopOf.shop);
// Asked for before anything of the page is: paper needs the shop's name, and every day its time zone.
void shopOf.ready().catch(() => undefined);
/** The day on paper is the day of printing. */
const printedOn = ref(new Date().toISOString());
useEventListener(window, 'beforeprint', () => (printedOn.value = new Date().toISOString()));
/** On a narrow screen the places stand behind a button. */
const menu = ref(false);
watch(
  () => route.fullPath,
  () => (menu.value = false),
);

const inFitting = computed(() => route.path.startsWith('/fittings/'));
const view = computed(() => (inFitting.value ? fitting.view : undefined));
const record = computed(() => (view.value ? fitting.record : undefined));
/** A page of a fitting is named for its frame and player, on paper and among the tabs too. */
watchEffect(() => {
  const of = view.value && record.value ? `${record.value.tag}, ${view.value.player.name}` : '';
  const page = String(route.meta.title ?? '');
  document.title = [page, of, 'Kevro'].filter(Boolean).join(' · ');
});
// Only a fitting needs them.
const CloseFitting = later(() => import('../stations/CloseFitting.vue'));
const ChangeFitting = later(() => import('../stations/ChangeFitting.vue'));
const closing = ref(false);
const changing = ref(false);
// Asked for by few: they come when they are.
const SearchSheet = later(() => import('./SearchSheet.vue'));
const TourPanel = later(() => import('./TourPanel.vue'));
const MarksLegend = later(() => import('../bench/MarksLegend.vue'));
const marks = ref(false);
const marked = ref(false);
function showMarks(): void {
  showKeys.value = false;
  marked.value = marks.value = true;
}
const tour = useTour();
const searching = ref(false);
const searched = ref(false);
watch(searching, (now) => {
  if (now) searched.value = true;
});
/** Who signed in by name, and what they may not do. */
const { record: access } = useAsked(
  'access',
  () => 'own',
  () => api('access'),
);
const who = computed(() => {
  const { who: name = '', role } = access.value ?? {};
  return role === 'reader' ? `${name || 'Signed in'}, may look only` : name;
});
keepSending();
const keptOpen = ref(false);
/** The server is away: what is shown was read before, or something waits for it. */
const away = computed(() => {
  if (shownAsOf.value) return `Kevro does not answer. Shown as of ${timeWords(shownAsOf.value)}.`;
  return unsent.value.length > 0 ? 'Kevro does not answer.' : '';
});
/** What this device keeps for the server. */
const kept = computed(() => {
  if (refused.value.length > 0) return `${refused.value.length} to settle`;
  return unsent.value.length > 0 ? `${unsent.value.length} kept on this device` : '';
});
watchBursts(openScanned());
useKeys({
  u: () => units.next(),
  // The one large button of a page is its main action.
  'Ctrl+Enter': () => document.querySelector<HTMLElement>('main .v-btn--size-large.bg-primary')?.click(),
  'Ctrl+k': () => {
    keepTyped();
    searching.value = true;
  },
  '?': () => {
    showKeys.value = true;
  },
});
</script>

<template>
  <div class="shell">
    <a href="#content" class="skip no-print" @click.prevent="focusHeading">Skip to the page</a>
    <header class="print-only paper-head">
      <span>
        <b>{{ shop?.name }}</b><template v-if="shop?.town">, {{ shop.town }}</template>
      </span>
      <span v-if="view && record">
        <b>{{ view.player.name }}</b> · {{ record.maker }} {{ record.model }}, tag {{ record.tag }},
        {{ units.showMeasure('length', record.shape.lengthCm) }}
      </span>
      <span>{{ wholeDayWords(printedOn) }}</span>
    </header>
    <header class="top no-print">
      <RouterLink to="/" class="name">Kevro</RouterLink>
      <template v-if="view && record">
        <span class="who">
          <b>{{ view.player.name }}</b> · {{ record.maker }} {{ record.model }}
          <span class="soft">
            {{ record.tag }} · {{ units.showMeasure('length', record.shape.lengthCm) }}
            <template v-if="fitting.measurement">
              · {{ dressWords(fitting.measurement.dress, record.shape.sport) }}</template
            >
            <template v-if="fitting.round && fitting.round.number > 1">
              · round {{ fitting.round.number }}, {{ ROUND_WORDS[fitting.round.why] }}</template
            >
          </span>
          <b v-if="view.closed" class="warn"> {{ CLOSING_NAMES[view.closed.how] }}</b>
        </span>
        <button v-if="!view.closed" type="button" class="plain-button" @click="changing = true">
          Change<span class="d-sr-only"> fitting</span>
        </button>
        <button type="button" class="plain-button" @click="closing = true">
          {{ view.closed ? 'Reopen' : 'Close fitting' }}
        </button>
      </template>
      <span v-else class="who soft">{{ shop ? [shop.name, shop.town].filter(Boolean).join(', ') : '' }}</span>
      <span class="spring" />
      <RouterLink v-if="who" to="/settings/safety" class="plain-button">{{ who }}</RouterLink>
      <button type="button" class="plain-button" title="Find anything (Ctrl k)" @click="searching = true">
        find <kbd>Ctrl k</kbd>
      </button>
      <RouterLink :to="{ name: 'guide' }" class="plain-button">help</RouterLink>
      <button type="button" class="plain-button" title="Switch units (u)" @click="units.next()">
        {{ units.way.label }} <kbd>u</kbd>
      </button>
      <button type="button" class="plain-button" title="Keys (?)" @click="showKeys = true">
        keys <kbd>?</kbd>
      </button>
      <button
        type="button"
        class="plain-button menu-button"
        aria-controls="places"
        :aria-expanded="menu"
        @click="menu = !menu"
      >
        places
      </button>
    </header>

    <SideNav :view="view" :open="menu" />

    <main id="content" class="content"><RouterView /></main>

    <footer class="foot no-print">
      <span id="foot-keys" class="foot-keys" />
      <span class="spring" />
      <span v-if="away" class="warn" role="status">{{ away }}</span>
      <button
        v-if="kept"
        type="button"
        :class="['link', refused.length > 0 && 'miss']"
        @click="keptOpen = true"
      >
        {{ kept }}
      </button>
      <span v-if="saved.failure" class="miss" role="alert">{{ saved.failure }}</span>
      <span v-else-if="saved.at">saved {{ saved.at }}</span>
    </footer>
    <KeysSheet v-model="showKeys" @marks="showMarks" />
    <MarksLegend v-if="marked" v-model="marks" />
    <WaitingSheet v-model="keptOpen" />
    <SearchSheet v-if="searched" v-model="searching" />
    <TourPanel v-if="tour.at.value !== undefined" />
    <CloseFitting v-if="view" v-model="closing" :view="view" />
    <ChangeFitting v-if="view" v-model="changing" :view="view" />
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
  display: inline-flex;
  align-items: center;
  min-height: 44px;
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
/* What is hidden from sight alone scrolls with its page: else it lengthens the window, which then scrolls too. */
.content {
  position: relative;
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
.skip {
  position: fixed;
  left: 12px;
  top: -60px;
  z-index: 20;
  padding: 12px 16px;
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-paper)) !important;
}
.skip:focus {
  top: 8px;
}
.menu-button {
  display: none;
}
a.plain-button {
  text-decoration: none;
}
/* A tablet held upright, and a phone: one column; the stations in a row, the places behind a button. */
@media (max-width: 820px) {
  .shell {
    display: block;
    height: auto;
    min-height: 100vh;
  }
  .top {
    flex-wrap: wrap;
    gap: 0 12px;
    padding: 4px 12px;
  }
  .who {
    order: 1;
    flex: 1 1 100%;
    white-space: normal;
    overflow-wrap: anywhere;
  }
  .menu-button {
    display: block;
  }
  .top kbd {
    display: none;
  }
  .foot {
    flex-wrap: wrap;
    padding: 8px 12px;
  }
  .foot-keys {
    display: none;
  }
}
@media print {
  .shell {
    display: block;
    height: auto;
  }
  .content {
    overflow: visible;
  }
  .paper-head {
    display: flex !important;
    justify-content: space-between;
    gap: 12pt;
    padding-bottom: 4pt;
    margin-bottom: 8pt;
    border-bottom: 1pt solid #000;
    font-size: 11pt;
  }
}
</style>
