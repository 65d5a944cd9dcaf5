<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { FrameRow } from '@kevro/contract';
import { api } from '../api/client';
import { howMany } from '../words/counted';
import { useSearch } from '../api/queries';
import { isNumber, tagIn, useBurst } from '../ui/bursts';

/** Chooses one frame, or a set of two to six, among however many there are. Those of the owner come first. */
const { ownerId, error } = defineProps<{ label: string; ownerId?: string | null; error?: string }>();
const ids = defineModel<string[]>({ required: true });
/** While the owner's frames are looked for: what is chosen may still change. */
const looking = defineModel<boolean>('looking', { default: false });

type Named = Pick<FrameRow, 'id' | 'tag' | 'maker' | 'model' | 'ownerName'>;
const known = ref(new Map<string, Named>());
const none = ref('');
const scanFailure = ref('');
const { rows, inAll, text, failure, onlyMatch } = useSearch<FrameRow>(
  'frames',
  (query) => api('frames', { query }),
  none,
  (frame) => `${frame.tag} ${frame.maker} ${frame.model} ${frame.ownerName ?? ''}`,
);
const own = ref<FrameRow[]>([]);
watch(
  () => ownerId,
  async (owner) => {
    own.value = [];
    looking.value = Boolean(owner);
    if (!owner) return;
    const found = await api('frames', { query: { owner, limit: 50 } }).catch(() => ({ rows: [] }));
    if (owner !== ownerId) return;
    looking.value = false;
    own.value = found.rows;
    const [only, ...others] = found.rows;
    // Somebody's one frame is the one that they came with.
    if (only && others.length === 0 && ids.value.length === 0) ids.value = [only.id];
  },
  { immediate: true },
);
watch(
  [rows, own],
  () => {
    for (const row of [...rows.value, ...own.value]) known.value.set(row.id, row);
  },
  { immediate: true },
);
/** One that was chosen elsewhere, or was just added, is looked up by its id. */
watch(
  ids,
  async (chosen) => {
    for (const id of chosen.filter((one) => !known.value.has(one))) {
      const page = await api('frame', { id }).catch(() => undefined);
      if (page) known.value.set(id, { ...page.frame, ownerName: page.ownerName });
    }
  },
  { immediate: true },
);
const items = computed(() => {
  const chosen = ids.value.flatMap((id) => known.value.get(id) ?? []);
  const searched = text.value.trim() === '' ? [...own.value, ...rows.value] : rows.value;
  const unique = new Map([...chosen, ...searched].map((row): [string, Named] => [row.id, row]));
  return [...unique.values()].map((f) => ({
    value: f.id,
    title: `${f.tag} · ${f.maker} ${f.model}`,
    subtitle: f.ownerName ?? 'shop stock',
  }));
});
/** A typed tag that fits one frame is chosen by Enter. */
async function chooseOnly(event: KeyboardEvent): Promise<void> {
  const only = await onlyMatch(event);
  if (!only) return;
  known.value.set(only.id, only);
  if (!ids.value.includes(only.id)) ids.value = [...ids.value, only.id];
  text.value = '';
}
/** A scanned label answers which frame. */
useBurst((scanned) => {
  // A tag may be a number; a weight has a point or a unit.
  if (isNumber(scanned) && !/^\d+$/.test(scanned)) return false;
  void api('frames', { query: { tag: tagIn(scanned), limit: 1 } }).then(
    ({ rows: [found] }) => {
      scanFailure.value = found ? '' : `No frame has the tag “${tagIn(scanned)}”.`;
      if (!found) return;
      known.value.set(found.id, found);
      if (!ids.value.includes(found.id)) ids.value = [...ids.value, found.id];
      text.value = '';
    },
    () => undefined,
  );
  return true;
});
const hint = computed(() =>
  inAll.value.total > rows.value.length
    ? `${howMany(inAll.value)} in all: type to find more`
    : 'Choose 2 to 6 to fit as a set',
);
</script>

<template>
  <v-autocomplete
    v-model="ids"
    v-model:search="text"
    :items="items"
    item-props
    :label="label"
    :hint="hint"
    persistent-hint
    multiple
    chips
    no-filter
    clear-on-select
    :error-messages="[error ?? (failure || scanFailure)].filter(Boolean)"
    @keydown.enter.capture="chooseOnly"
  />
</template>
