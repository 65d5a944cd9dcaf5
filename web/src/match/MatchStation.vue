<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { commonDress, sameDress, type Matched } from '@kevro/core';
import { api } from '../api/client';
import { useActKey } from '../forms/act-key';
import { useCatalogueBeside } from '../stores/catalogue';
import { useFitting } from '../stores/fitting';
import { useSaved } from '../stores/saved';
import { useKept } from '../ui/kept';
import { counted } from '../words/counted';
import MatchFrames from './MatchFrames.vue';
import { aimedAt, type Named, type To } from './matching';

/** The frames of a fitting's set, brought to one target: each gets the common target and its own build sheet. */
const fitting = useFitting();
useCatalogueBeside();
const saved = useSaved();
const router = useRouter();
const by = useKept('kevro-by', '');

const entries = computed(() =>
  (fitting.view?.frames ?? []).map(({ frame, rounds }) => {
    const round = rounds.at(-1);
    return { frame, round, start: round?.measurements.find(({ id }) => id === round.startId) };
  }),
);
const frames = computed((): Named[] =>
  entries.value.flatMap(({ frame, start }) => {
    if (!start) return [];
    const instruments = fitting.instrumentsFrom(start);
    const { id, tag, shape } = frame;
    return [
      { id, tag, shape, specs: start.specs, dress: start.dress, ...(instruments ? { instruments } : {}) },
    ];
  }),
);
const missing = computed(() => entries.value.flatMap(({ frame, start }) => (start ? [] : [frame.tag])));
/** A target that was set for any of them. */
const own = computed(() => {
  const target = entries.value
    .flatMap(({ round }) => round?.aims.filter(({ id }) => id === round.state.aimId) ?? [])
    .at(0)?.target;
  return target && aimedAt(target);
});

const toBuild = ({ frames: all }: Matched) =>
  all.filter(({ plan }) => plan.places > 0 && plan.withinTolerance);
const action = (matched: Matched): string => {
  const count = toBuild(matched).length;
  return count === 0 ? 'Set the common target' : `Make ${counted(count, 'build sheet', 'build sheets')}`;
};
const busy = ref(false);
const key = useActKey();
async function take(matched: Matched, to: To): Promise<void> {
  const { view } = fitting;
  if (!view || busy.value) return;
  busy.value = true;
  const sheets = toBuild(matched);
  const dress = commonDress(frames.value);
  try {
    // One frame after the other: what is stored of the first stands, whatever comes of the next.
    await key.once(async (own) => {
      for (const { id, plan } of matched.frames) {
        const entry = entries.value.find(({ frame }) => frame.id === id);
        if (!entry?.round || !entry.start) continue;
        const roundId = entry.round.id;
        const like = typeof to === 'object' && to.frameId !== id ? { frameId: to.frameId } : {};
        const aim = await api('setAim', {
          id: view.id,
          body: {
            key: `${own} aim ${id}`.slice(0, 80),
            roundId,
            way: 'frameId' in like ? 'frame' : 'by-hand',
            source: like,
            target: matched.target,
            finish: sameDress(entry.start.dress, dress) ? null : dress,
            note: 'to match the set',
            by: by.value,
          },
        });
        if (!sheets.some((sheet) => sheet.id === id)) continue;
        await api('choosePlan', {
          id: view.id,
          body: {
            key: `${own} plan ${id}`.slice(0, 80),
            roundId,
            startId: entry.start.id,
            aimId: aim.id,
            school: plan.school,
            placements: [...plan.placements],
            swaps: [...plan.swaps],
            removals: [...plan.removals],
          },
        });
      }
    });
    await fitting.stored();
    const [first] = sheets;
    if (first) await router.push({ name: 'build', query: { frame: first.id } });
  } catch (error) {
    saved.failed(error);
    await fitting.stored().catch(() => undefined);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <MatchFrames
    :frames="frames"
    :missing="missing"
    :own="own"
    :part-ids="fitting.view?.parts ?? []"
    :action="action"
    :busy="busy"
    @take="take"
  >
    <template #frame="{ id, tag }">
      <RouterLink :to="{ name: 'plan', query: { frame: id } }">{{ tag }}</RouterLink>
    </template>
  </MatchFrames>
</template>
