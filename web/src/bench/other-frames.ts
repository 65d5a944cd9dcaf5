import { computed, shallowReactive, watch, type Ref } from 'vue';
import { bringTo, type Dress, type KnownSpecs } from '@kevro/core';
import type { FramePage, FrameRow } from '@kevro/contract';
import { api } from '../api/client';
import { useSearch } from '../api/queries';
import { useFitting } from '../stores/fitting';

/** What of a frame an aim is taken from. */
type Measured = Pick<FrameRow, 'id' | 'tag' | 'maker' | 'model' | 'ownerName' | 'shape' | 'newest'>;
const measuredAs = ({ frame, ownerName, measurements }: FramePage): Measured => {
  const newest = measurements.find(
    ({ counts, purpose }) => counts && purpose !== 'trial' && purpose !== 'step',
  );
  return { ...frame, ownerName, newest: newest ?? null };
};

/**
 * Measured frames of the sport that an aim can be taken from: the player's own first, then whatever is searched for.
 * @param chosen the id of the one that is chosen: it is known also where no search finds it
 */
export function useOtherFrames(chosen: Ref<string | null>) {
  const fitting = useFitting();
  const known = shallowReactive(new Map<string, Measured>());
  const one = computed(() => known.get(chosen.value ?? ''));
  const name = computed(() => one.value?.tag ?? '');
  const { rows, text, failure } = useSearch<FrameRow>(
    'measured frames',
    async ({ search, limit }) => {
      const query = {
        sort: 'tag' as const,
        limit,
        ...(fitting.record ? { sport: fitting.record.shape.sport } : {}),
      };
      const owner = fitting.view?.player.id ?? '';
      const [mine, all] = await Promise.all([
        search ? { rows: [] } : api('frames', { query: { ...query, owner } }),
        api('frames', { query: { ...query, search } }),
      ]);
      const found = new Map([...mine.rows, ...all.rows].map((row) => [row.id, row]));
      found.delete(fitting.record?.id ?? '');
      const measured = [...found.values()].filter(({ newest }) => newest !== null);
      for (const row of measured) known.set(row.id, row);
      return { ...all, rows: measured };
    },
    name,
    (frame) => `${frame.tag} ${frame.maker} ${frame.model} ${frame.ownerName ?? ''}`,
  );
  watch(
    chosen,
    async (id) => {
      if (!id || known.has(id)) return;
      const page = await api('frame', { id }).catch(() => undefined);
      if (page) known.set(id, measuredAs(page));
    },
    { immediate: true },
  );

  const items = computed(() => {
    const listed =
      one.value && !rows.value.some(({ id }) => id === one.value?.id)
        ? [one.value, ...rows.value]
        : rows.value;
    return listed.map((f) => ({
      value: f.id,
      title: f.tag,
      subtitle: `${f.maker} ${f.model}, ${f.ownerName ?? 'stock'}`,
    }));
  });
  /** The numbers of the chosen frame in the dress and about the axis of the one in hand. */
  function brought(dress: Dress, axisCm: number): KnownSpecs | undefined {
    const { newest, shape } = one.value ?? {};
    return newest && shape
      ? bringTo({ shape, dress: newest.dress, specs: newest.specs }, dress, axisCm).specs
      : undefined;
  }
  const search = (typed: string): void => {
    text.value = typed;
  };
  /** What a frame was measured as last, where it is known. */
  const measuredOf = (id: string) => known.get(id)?.newest ?? undefined;
  return { items, search, failure, brought, measuredOf };
}
