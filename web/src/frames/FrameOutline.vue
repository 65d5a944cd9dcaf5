<script setup lang="ts">
import { ref } from 'vue';
import type { FramePage } from '@kevro/contract';
import { api, urlOf } from '../api/client';
import { dayWords } from '../words/days';
import { useSaved } from '../stores/saved';

/** The outline of this frame: where it is from, and how to take it anew, from another of its model, or from the frame again. */
const props = defineProps<{ page: FramePage }>();
const emit = defineEmits<{ stored: [] }>();
const saved = useSaved();
const busy = ref(false);

async function act(run: () => Promise<unknown>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  try {
    await run();
    emit('stored');
  } catch (error) {
    saved.failed(error);
  } finally {
    busy.value = false;
  }
}
const remove = () => act(() => api('removeOutline', { id: props.page.frame.id, body: {} }));
const takeModels = () =>
  act(async () => {
    const of = props.page.modelOutline;
    if (!of) return;
    const outline = { ...of.outline, from: 'model' as const };
    await api('takeOutline', { id: props.page.frame.id, body: { outline } });
  });
</script>

<template>
  <div class="mt-4 mb-1"><h2 class="heading">Outline</h2></div>
  <p v-if="page.frame.shape.outline" class="mb-1">
    {{ page.frame.shape.outline.from === 'model' ? 'From another frame of this model' : 'From a photo'
    }}<template v-if="page.frame.shape.outline.takenOn"
      >, {{ dayWords(page.frame.shape.outline.takenOn) }}</template
    >.
  </p>
  <p v-else class="soft small mb-1">Drawn from its length and head. A photo gives its own.</p>
  <div class="link-row">
    <router-link :to="{ name: 'frame-outline', params: { id: page.frame.id } }" class="link">{{
      page.frame.shape.outline ? 'Take it anew' : 'From a photo'
    }}</router-link>
    <button v-if="page.modelOutline" type="button" class="link" :disabled="busy" @click="takeModels">
      Take that of {{ page.modelOutline.tag }}
    </button>
    <a
      v-if="page.outlinePicture"
      class="link"
      :href="urlOf(`films/${page.outlinePicture}/file`)"
      target="_blank"
      >Photo</a
    >
    <button v-if="page.frame.shape.outline" type="button" class="link" :disabled="busy" @click="remove">
      Remove outline
    </button>
  </div>
</template>
