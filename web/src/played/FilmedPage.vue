<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { paths, sentence, type AnswerOf, type ErrorCode } from '@kevro/contract';
import { api } from '../api/client';
import { PHOTO_STEPS } from '../words/photo-steps';
import LinkPage from './LinkPage.vue';

// What somebody at the bench comes here to do, by a link on a phone: film the swing or take the photo, and send it.
const props = defineProps<{ code: string }>();
const page = ref<AnswerOf<'filmPage'>>();
const FILM_STEPS = [
  'Lean the phone against something: it must not move.',
  'All of the frame is in the picture, and nothing else moves.',
  'Film 20 swings, about half a minute.',
];
const isPhoto = computed(() => page.value?.takes === 'photo');
const failure = ref('');
const input = ref<HTMLInputElement>();
/** How much of it has gone; undefined while nothing is sent. */
const share = ref<number>();
const sent = ref(0);

async function look(): Promise<void> {
  failure.value = '';
  try {
    page.value = await api('filmPage', { id: props.code });
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(look);

/** A film takes a while: how far it is is seen, which a plain call does not tell. */
function put(file: File): Promise<void> {
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    const query = new URLSearchParams({ name: file.name.slice(0, 120) }).toString();
    request.open('PUT', `/api/v1${paths.sendFilm.path.replace(':code', props.code)}?${query}`);
    request.setRequestHeader('content-type', file.type || (isPhoto.value ? 'image/jpeg' : 'video/mp4'));
    request.upload.onprogress = ({ loaded, total }) => (share.value = total > 0 ? loaded / total : 0);
    request.onerror = () => fail(new Error(sentence('cannot-reach-server')));
    request.onload = () => {
      if (request.status < 300) return done();
      const answer = JSON.parse(request.responseText || '{}') as { detail?: string; code?: ErrorCode };
      fail(new Error(answer.detail ?? sentence(answer.code ?? 'internal')));
    };
    request.send(file);
  });
}
async function send(): Promise<void> {
  const [file] = input.value?.files ?? [];
  if (!file || share.value !== undefined) return;
  failure.value = '';
  share.value = 0;
  try {
    await put(file);
    sent.value++;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    share.value = undefined;
    if (input.value) input.value.value = '';
  }
}
</script>

<template>
  <LinkPage :shop="page?.shop" :title="isPhoto ? 'Photo of the frame' : 'Film the swing'">
    <template v-if="page">
      <p class="soft">{{ page.frame.maker }} {{ page.frame.model }}, {{ page.frame.tag }}</p>
      <ol>
        <li v-for="step in isPhoto ? PHOTO_STEPS : FILM_STEPS" :key="step">{{ step }}</li>
      </ol>
      <input
        ref="input"
        type="file"
        :accept="isPhoto ? 'image/*' : 'video/*'"
        capture="environment"
        class="d-sr-only"
        tabindex="-1"
        :aria-label="isPhoto ? 'Photo' : 'Film'"
        @change="send"
      />
      <v-btn color="primary" size="large" block :loading="share !== undefined" @click="input?.click()">{{
        isPhoto ? (sent > 0 ? 'Take another' : 'Take the photo') : sent > 0 ? 'Film again' : 'Film it'
      }}</v-btn>
      <p v-if="share !== undefined" role="status">Sending… {{ Math.round(100 * share) }} %</p>
      <p v-else-if="sent > 0 && !failure" class="good" role="status">
        Sent. See the bench for what it came to.
      </p>
      <p v-if="failure" class="miss" role="alert">{{ failure }}</p>
    </template>
    <template v-else-if="failure">
      <p class="miss" role="alert">{{ failure }}</p>
      <v-btn variant="outlined" @click="look">Try again</v-btn>
    </template>
    <p v-else class="soft" role="status">Looking up the link…</p>
  </LinkPage>
</template>

<style scoped>
ol {
  padding-left: 22px;
}
</style>
