import { computed, reactive } from 'vue';
import { ALL_SPEC_KEYS, SPEC_KEYS, byAnySpec, type AnySpecKey, type Sport } from '@kevro/core';
import { boundsOf, type SETUP_SORTS, type SetupRow, type SourceKind } from '@kevro/contract';
import { numberOf, type Typed } from '../ui/typed';
import { dressWords } from '../words/dress';
import { useKept } from '../ui/kept';
import { plainly } from '../ui/same';
import type { useUnits } from '../stores/units';
import { CONFIDENCE_NAMES, SOURCE_NAMES, SPEC_NAMES } from '../words';

/** What the list of setups can show beside the name. */
export const COLUMN_NAMES = {
  source: 'Source',
  dress: 'As published in',
  ...SPEC_NAMES,
  confidence: 'Confidence',
  style: 'Style',
  paint: 'Paint',
  length: 'Length',
  head: 'Head size',
  pattern: 'Pattern',
  strings: 'Strings',
} as const;
export type ColumnKey = keyof typeof COLUMN_NAMES;
export const COLUMNS = Object.keys(COLUMN_NAMES) as ColumnKey[];
const USUAL: ColumnKey[] = ['source', 'dress', ...SPEC_KEYS];
export const isSpec = (key: ColumnKey): key is AnySpecKey =>
  (ALL_SPEC_KEYS as readonly string[]).includes(key);

export type SortKey = (typeof SETUP_SORTS)[number];

export interface Filters {
  search: string;
  sport: Sport | null;
  kind: SourceKind | null;
  style: string;
  retired: boolean;
  ranges: Record<AnySpecKey, [Typed, Typed]>;
  sort: SortKey;
  down: boolean;
}
export interface SavedView {
  name: string;
  filters: Filters;
  columns: ColumnKey[];
}
const noRanges = (): Filters['ranges'] => byAnySpec(() => [null, null]);
export const noFilters = (): Filters => ({
  search: '',
  sport: null,
  kind: null,
  style: '',
  retired: false,
  ranges: noRanges(),
  sort: 'name',
  down: false,
});

/** How the list of setups is looked at: what is asked for, which columns, and the views that were kept under a name on this device. */
export function useSetupView() {
  const filters = reactive(noFilters());
  const columns = useKept<ColumnKey[]>('kevro-setup-columns', USUAL);
  const views = useKept<SavedView[]>('kevro-setup-views', []);

  /** As the server is asked. */
  const query = computed(() => {
    const { search, sport, kind, style, retired, ranges, sort, down } = filters;
    const bounds = ALL_SPEC_KEYS.flatMap((key) =>
      boundsOf(key).flatMap((name, end) => {
        const value = numberOf(ranges[key][end as 0 | 1]);
        return value === undefined ? [] : [[name, value] as const];
      }),
    );
    return {
      search,
      ...(sport ? { sport } : {}),
      ...(kind ? { kind } : {}),
      style,
      retired: retired ? ('yes' as const) : ('no' as const),
      sort,
      down: down ? ('yes' as const) : ('no' as const),
      ...Object.fromEntries(bounds),
    };
  });
  const ranged = computed(
    () => ALL_SPEC_KEYS.filter((key) => filters.ranges[key].some((end) => end !== null)).length,
  );
  const narrowed = computed(() => {
    const { search, sport, kind, style, retired } = filters;
    return Boolean(search || sport || kind || style || retired) || ranged.value > 0;
  });
  /** Keeps what is looked at under a name; one of that name is replaced. */
  function keep(name: string): void {
    const others = views.value.filter((view) => view.name !== name);
    views.value = [...others, { name, filters: plainly(filters), columns: plainly(columns.value) }];
  }
  function show(view: SavedView): void {
    const kept = plainly(view.filters);
    // A view that is older than a spec has no range of it.
    Object.assign(filters, noFilters(), kept, { ranges: { ...noRanges(), ...kept.ranges } });
    columns.value = plainly(view.columns);
  }
  function forget(name: string): void {
    views.value = views.value.filter((view) => view.name !== name);
  }
  const clear = (): void => void Object.assign(filters, noFilters());
  return { filters, columns, views, query, ranged, narrowed, keep, show, forget, clear };
}

/** What a column says of a setup; a spec's own number is missing where it was not published. */
export function cellOf(key: ColumnKey, s: SetupRow, units: ReturnType<typeof useUnits>): string {
  if (isSpec(key)) {
    const value = s.specs[key];
    return value === undefined ? '—' : units.show(key, value, s.shape);
  }
  switch (key) {
    case 'source':
      return `${SOURCE_NAMES[s.sourceKind]}${s.year ? ` ${s.year}` : ''}`;
    case 'dress':
      return dressWords(s.dress, s.shape.sport);
    case 'confidence':
      return CONFIDENCE_NAMES[s.confidence];
    case 'style':
      return s.style;
    case 'paint':
      return s.paint;
    case 'length':
      return units.showMeasure('length', s.shape.lengthCm);
    case 'head':
      return s.shape.headAreaCm2 === undefined ? '' : units.showMeasure('area', s.shape.headAreaCm2);
    case 'pattern':
      return s.facts.pattern ?? '';
    case 'strings':
      return [s.strings.mains, s.strings.crosses].filter(Boolean).join(' / ');
  }
}
