import {
  QueryClient,
  keepPreviousData,
  useInfiniteQuery,
  useQuery,
  type InfiniteData,
  type QueryKey,
} from '@tanstack/vue-query';
import { refDebounced, until } from '@vueuse/core';
import { computed, effectScope, ref, type ComputedRef, type Ref } from 'vue';
import type { AnswerOf, CallName, InAll } from '@kevro/contract';
import { onChanged } from '../ui/changes';
import { howMany } from '../words/counted';
import { api } from './client';

/** How often what could not be read is asked for again, ms: a server that was away is back without anybody pressing anything. */
const AGAIN_MS = 3000;
/** How long typing rests before the server is asked, ms. */
const REST_MS = 150;

/**
 * What the page has read of the server. Of two answers on their way the one that was asked for last counts. Nothing is kept once no page shows it: what is shown
 * is never older than the page.
 */
export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: false,
      gcTime: 0,
      // The server stands in the shop: whether the browser thinks it is online says nothing of it.
      networkMode: 'always',
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      refetchInterval: ({ state }) => (state.status === 'error' ? AGAIN_MS : false),
    },
  },
});
/** Drops what is on its way: it was asked for before what has changed since. Asking anew alone would wait for a first answer, and take it for the new one. */
const drop = (queryKey?: QueryKey): Promise<void> => queries.cancelQueries(queryKey ? { queryKey } : {});
// What was stored elsewhere: everything that is shown is read anew, and drawn anew where it differs.
effectScope(true).run(() =>
  onChanged(() => {
    void drop();
    return queries.invalidateQueries();
  }),
);

const said = (error: Ref<Error | null>): ComputedRef<string> => computed(() => error.value?.message ?? '');

/**
 * Something of the server, asked for by its key. Nothing of another key is shown, not even until the answer comes.
 * @param kind what it is, by which it is told from others with the same key
 * @param key what is asked for; nothing is while it is undefined
 * @param ask gets it
 */
export function useAsked<T>(
  kind: string,
  key: () => string | null | undefined,
  ask: (key: string) => Promise<T>,
) {
  const queryKey = computed(() => [kind, key() ?? null] as const);
  const { data, error, refetch } = useQuery(
    {
      queryKey,
      queryFn: ({ queryKey: [, own] }) => ask(own ?? ''),
      enabled: () => queryKey.value[1] !== null,
      shallow: true,
    },
    queries,
  );
  /** Asks anew: what is shown stays until the answer comes. */
  async function load(): Promise<void> {
    if (queryKey.value[1] === null) return;
    void drop(queryKey.value);
    await refetch();
  }
  /** Shows what a call that stored something answered: it is newer than whatever is on its way. */
  async function show(found: T): Promise<void> {
    const { value: own } = queryKey;
    await drop(own);
    queries.setQueryData<T>(own, found);
  }
  return { record: data as Readonly<Ref<T | undefined>>, failure: said(error), load, show };
}

/**
 * What a call of the contract answers for one record.
 * @example const { record: page, failure, load } = useRecord('playerPage', () => props.id);
 */
export const useRecord = <N extends CallName>(name: N, id: () => string | null | undefined) =>
  useAsked(name, id, (own) => (api as unknown as Reading<N>)(name, { id: own }));
/** A call by which a record is read: it needs nothing but its id. */
type Reading<N extends CallName> = (name: N, input: { id: string }) => Promise<AnswerOf<N>>;

interface Part<R> extends InAll {
  rows: R[];
}
/** How many rows come at first and with each "more". */
const PART = 100;

/** A list that the server searches, sorts and counts, read part by part; what was found before stands until the answer to another query comes. */
export function useListing<Q extends object, R>(
  name: string,
  query: Q,
  fetch: (query: Q & { limit: number; offset: number }) => Promise<Part<R>>,
  part = PART,
) {
  const asked = refDebounced(
    computed((): Q => ({ ...query })),
    REST_MS,
  );
  const queryKey = computed(() => [name, asked.value]);
  const { data, error, refetch, fetchNextPage } = useInfiniteQuery<
    Part<R>,
    Error,
    InfiniteData<Part<R>, number>,
    QueryKey,
    number
  >(
    {
      queryKey,
      queryFn: ({ pageParam }) => fetch({ ...asked.value, limit: part, offset: pageParam }),
      initialPageParam: 0,
      getNextPageParam: (_, parts) => parts.reduce((sum, { rows }) => sum + rows.length, 0),
      placeholderData: keepPreviousData,
      shallow: true,
    },
    queries,
  );
  const rows = computed(() => data.value?.pages.flatMap((one) => one.rows));
  const inAll = computed((): InAll => data.value?.pages.at(-1) ?? { total: 0 });
  /** «100 of 240», as long as not all of it is shown. */
  const left = computed(() => {
    const shown = rows.value?.length ?? 0;
    return shown < inAll.value.total || inAll.value.orMore ? `${shown} of ${howMany(inAll.value)}` : '';
  });
  /** Reads again as many as are shown, after something was stored. */
  async function load(): Promise<void> {
    void drop(queryKey.value);
    await refetch();
  }
  const more = async (): Promise<void> => void (await fetchNextPage());
  return { rows, inAll, left, failure: said(error), load, more };
}

/** How many records to choose from are offered at once; the rest is found by typing. */
const OFFERED = 50;

/**
 * Records to choose from that the server searches: however many there are, each can be found by typing.
 * @param name what they are
 * @param fetch what the server finds for a search
 * @param chosenName what stands in the field while a record is chosen: it is not searched for
 * @param wordsOf what of a record is shown: until the server answers, only those are offered that show what was typed
 */
export function useSearch<R>(
  name: string,
  fetch: (query: { search: string; limit: number }) => Promise<Part<R>>,
  chosenName: Ref<string>,
  wordsOf: (row: R) => string,
) {
  const text = ref('');
  const wanted = computed(() => (text.value === chosenName.value ? '' : text.value));
  const asked = refDebounced(wanted, REST_MS);
  const { data, error, isPlaceholderData } = useQuery(
    {
      queryKey: ['search', name, asked],
      queryFn: () => fetch({ search: asked.value, limit: OFFERED }),
      placeholderData: keepPreviousData,
      shallow: true,
    },
    queries,
  );
  const answered = computed(
    () => data.value !== undefined && !isPlaceholderData.value && asked.value === wanted.value,
  );
  // Who types and presses Enter at once must not choose from a list of before.
  const rows = computed(() => {
    const found = (data.value as Part<R> | undefined)?.rows ?? [];
    const words = wanted.value.toLowerCase().split(/\s+/).filter(Boolean);
    return answered.value
      ? found
      : found.filter((row) => words.every((word) => wordsOf(row).toLowerCase().includes(word)));
  });
  const inAll = computed((): InAll => data.value ?? { total: 0 });
  const failure = said(error);
  /**
   * Enter in the field, with something typed: waits for the answer to it and gives the one record that it fits.
   * @returns undefined where nothing is typed, or where it fits none or several
   */
  async function onlyMatch(event: KeyboardEvent): Promise<R | undefined> {
    const { value: typed } = wanted;
    if (typed.trim() === '' || event.ctrlKey || event.metaKey) return undefined;
    // Neither the list nor the form takes this Enter.
    event.preventDefault();
    event.stopImmediatePropagation();
    await until(() => answered.value || failure.value !== '').toBe(true);
    return wanted.value === typed && rows.value.length === 1 ? rows.value[0] : undefined;
  }
  return { rows, inAll, text, failure, onlyMatch };
}
