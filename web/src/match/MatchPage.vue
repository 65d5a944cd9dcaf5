<script setup lang="ts">
import { computed, ref, shallowReactive, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { FramePage } from '@kevro/contract';
import { api } from '../api/client';
import NewFitting from '../forms/NewFitting.vue';
import PickFrames from '../forms/PickFrames.vue';
import { useCatalogueBeside } from '../stores/catalogue';
import { useSaved } from '../stores/saved';
import MatchFrames from './MatchFrames.vue';
import type { Named } from './matching';

/** Any two to six measured frames, brought to one target; a fitting is opened with them to build it. */
const route = useRoute();
const router = useRouter();
const saved = useSaved();
useCatalogueBeside();

const asked = route.query.frames;
const ids = ref<string[]>(typeof asked === 'string' && asked ? asked.split(',') : []);
const pages = shallowReactive(new Map<string, FramePage>());
watch(
  ids,
  async (now) => {
    void router.replace({ query: now.length > 0 ? { frames: now.join() } : {} });
    for (const id of now.filter((one) => !pages.has(one)))
      await api('frame', { id }).then(
        (page) => void pages.set(id, page),
        (error: unknown) => saved.failed(error),
      );
  },
  { immediate: true },
);
const standing = ({ measurements }: FramePage) =>
  measurements.find(({ counts, purpose }) => counts && purpose !== 'trial' && purpose !== 'step');
const chosen = computed(() => ids.value.flatMap((id) => pages.get(id) ?? []));
const sport = computed(() => chosen.value[0]?.frame.shape.sport);
const frames = computed((): Named[] =>
  chosen.value.flatMap((page) => {
    const newest = standing(page);
    const { id, tag, shape } = page.frame;
    return newest && shape.sport === sport.value
      ? [{ id, tag, shape, specs: newest.specs, dress: newest.dress }]
      : [];
  }),
);
const missing = computed(() => chosen.value.filter((page) => !standing(page)).map(({ frame }) => frame.tag));
const others = computed(() =>
  chosen.value.filter(({ frame }) => frame.shape.sport !== sport.value).map(({ frame }) => frame.tag),
);
const fitting = ref<InstanceType<typeof NewFitting>>();
const open = (): void => {
  const owners = new Set(chosen.value.map(({ frame }) => frame.ownerId));
  const [owner] = owners;
  fitting.value?.show({ playerId: owners.size === 1 && owner ? owner : null, frameIds: [...ids.value] });
};
</script>

<template>
  <MatchFrames :frames="frames" :missing="missing" :action="() => 'Open a fitting with these'" @take="open">
    <template #pick>
      <div class="pick">
        <PickFrames v-model="ids" label="Frames to match" />
        <router-link
          v-if="ids.length > 0"
          class="small"
          :to="{ name: 'labels', query: { frames: ids.join(',') } }"
          >Print their labels</router-link
        >
        <p v-if="others.length > 0" class="warn small mb-0">
          {{ others.join(', ') }}: another sport. Choose frames of one sport.
        </p>
      </div>
    </template>
  </MatchFrames>
  <NewFitting ref="fitting" />
</template>

<style scoped>
.pick {
  flex: 1 1 300px;
  max-width: 520px;
}
</style>
