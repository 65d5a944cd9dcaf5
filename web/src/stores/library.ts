import { watchDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef, watch } from 'vue';
import { bringTo, stepDistance, type BroughtSetup } from '@kevro/core';
import type { InAll, Measurement, Setup, SourceKind } from '@kevro/contract';
import { api } from '../api/client';
import { SOURCE_NAMES } from '../words';
import { toldStrings } from '../words/strings';
import type { Compared } from './beside';
import { useFitting } from './fitting';
import { useShop } from './shop';

/** A setup brought to the dress and axis of the frame in hand, with its distance. */
export interface NearSetup extends Compared {
  setup: Setup;
  brought: BroughtSetup;
}

/** How many come at first and with each "more". */
const PART = 60;

/** The part of the library that lies nearest to the frame in hand, as the server finds it, and the setups set beside it. */
export const useLibrary = defineStore('library', () => {
  const fitting = useFitting();
  const shop = useShop();
  const query = reactive<{ search: string; kind: SourceKind | null }>({ search: '', kind: null });
  const found = shallowRef<NearSetup[]>([]);
  const beside = shallowRef<NearSetup[]>([]);
  const inAll = shallowRef<InAll>({ total: 0 });
  const loading = ref(false);
  const failure = ref('');
  let asked = 0;
  /** Only these of the library, nearest first, where that is wanted. */
  const only = shallowRef<readonly string[]>();

  /** Brings a setup to the dress and axis of a measurement: once, when it arrives. */
  function near(setup: Setup, { specs: own, dress }: Measurement): NearSetup {
    const brought = bringTo(setup, dress, own.axisCm);
    const distance = stepDistance(own, brought.specs, shop.sportOf(setup.shape.sport));
    const told = `${SOURCE_NAMES[setup.sourceKind]}${setup.year ? ` ${setup.year}` : ''}`;
    const strung = toldStrings(setup.strings, setup.shape.sport, fitting.bed?.stringing.unit ?? 'kg');
    return {
      id: setup.id,
      name: setup.name,
      told,
      setup,
      brought,
      specs: brought.specs,
      strung,
      ...distance,
    };
  }

  /** What is kept to of the library, nearest first: all of it where undefined. */
  let kept: readonly string[] | undefined;
  async function sift(among: readonly string[], measurementId: string): Promise<readonly string[]> {
    const { search, kind } = query;
    const { ids } = await api('setupIds', {
      id: measurementId,
      query: { search, ...(kind ? { kind } : {}) },
    });
    const found = new Set(ids);
    return among.filter((id) => found.has(id));
  }

  async function load(offset = 0): Promise<void> {
    const { measurement } = fitting;
    const own = ++asked;
    if (!measurement) {
      found.value = [];
      inAll.value = { total: 0 };
      return;
    }
    loading.value = true;
    try {
      const { search, kind } = query;
      // Whatever need not be waited for is asked for at once, before the page is drawn.
      const { value: among } = only;
      if (offset === 0) kept = among && (search || kind) ? await sift(among, measurement.id) : among;
      if (own !== asked) return;
      const part = kept?.slice(offset, offset + PART);
      const answer =
        part === undefined
          ? await api('nearSetups', {
              id: measurement.id,
              query: { search, limit: PART, offset, ...(kind ? { kind } : {}) },
            })
          : part.length === 0
            ? { rows: [], total: 0 }
            : await api('nearSetups', { id: measurement.id, query: { ids: part.join(','), limit: PART } });
      if (own !== asked) return;
      const rows = answer.rows.map(({ setup }) => near(setup, measurement));
      found.value = offset > 0 ? [...found.value, ...rows] : rows;
      inAll.value = kept ? { total: kept.length } : answer;
      failure.value = '';
    } catch (error) {
      if (own === asked) failure.value = error instanceof Error ? error.message : String(error);
    } finally {
      if (own === asked) loading.value = false;
    }
  }
  const more = (): Promise<void> => load(found.value.length);

  /** Setups by their ids, wherever they lie; none where the server does not answer. */
  async function byId(ids: readonly string[], measurement: Measurement): Promise<NearSetup[]> {
    const { rows } = await api('nearSetups', {
      id: measurement.id,
      query: { ids: ids.join(','), limit: ids.length },
    }).catch(() => ({ rows: [] }));
    return rows.map(({ setup }) => near(setup, measurement));
  }

  /** The setups set beside the frame: those that are known already, and those that have to be asked for. */
  let besideAsked = 0;
  async function loadBeside(): Promise<void> {
    const { measurement, references } = fitting;
    const own = ++besideAsked;
    if (!measurement || references.length === 0) {
      beside.value = [];
      return;
    }
    const known = new Map([...found.value, ...beside.value].map((n) => [n.setup.id, n]));
    const missing = references.filter((id) => !known.has(id));
    if (missing.length > 0) {
      const rows = await byId(missing, measurement);
      if (own !== besideAsked) return;
      for (const row of rows) known.set(row.setup.id, row);
    }
    beside.value = references.flatMap((id) => known.get(id) ?? []);
  }

  /** Setups that were asked for by name, wherever they lie. */
  const askedFor = shallowRef<NearSetup[]>([]);
  async function ask(id: string): Promise<void> {
    const { measurement } = fitting;
    if (!measurement || named(id)) return;
    const rows = await byId([id], measurement);
    if (fitting.measurement?.id === measurement.id) askedFor.value = [...askedFor.value, ...rows];
  }

  watch(
    () => fitting.measurement?.id,
    () => {
      found.value = [];
      beside.value = [];
      askedFor.value = [];
      only.value = undefined;
      void load().then(loadBeside);
    },
    { immediate: true },
  );
  watch(() => fitting.references.join(), loadBeside);
  watchDebounced(query, () => load(), { debounce: 200 });
  /** Keeps to these, or to none again. */
  function keepTo(ids: readonly string[] | undefined): void {
    only.value = ids;
    void load();
  }

  /** Everything that is at hand, each once, nearest first. */
  const atHand = computed<NearSetup[]>(() => {
    const all = new Map([...found.value, ...beside.value, ...askedFor.value].map((n) => [n.setup.id, n]));
    return [...all.values()].toSorted((a, b) => a.distanceSteps - b.distanceSteps);
  });
  const named = (id: string | null | undefined): NearSetup | undefined =>
    atHand.value.find((n) => n.setup.id === id);

  return { query, found, beside, inAll, loading, failure, load, more, ask, atHand, named, keepTo };
});
