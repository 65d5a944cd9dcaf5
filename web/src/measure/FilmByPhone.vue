<script setup lang="ts">
import { useTimeoutPoll } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { AnswerOf, FilmKind } from '@kevro/contract';
import { api, urlOf } from '../api/client';

/** A phone films or takes a photo: it is led to its page by a picture, and what it sends is taken as soon as it has come. */
const props = withDefaults(defineProps<{ frameId: string; takes?: FilmKind }>(), { takes: 'film' });
const emit = defineEmits<{ came: [film: File] }>();
const link = ref<AnswerOf<'makeFilmLink'>>();
const failure = ref('');
const picture = computed(() =>
  link.value?.picture ? `data:image/svg+xml;charset=utf-8,${encodeURIComponent(link.value.picture)}` : '',
);
const LOOK_EVERY_MS = 1500;
const { pause, resume } = useTimeoutPoll(look, LOOK_EVERY_MS, { immediate: false });

async function make(): Promise<void> {
  failure.value = '';
  try {
    link.value = await api('makeFilmLink', { id: props.frameId, body: { takes: props.takes } });
    resume();
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
void make();
/** What could not be asked for now is asked for again. */
async function look(): Promise<void> {
  const sent = await api('sentFilms', { id: props.frameId }).catch(() => []);
  const films = sent.filter(({ type }) => type.startsWith('image/') === (props.takes === 'photo'));
  const film = films.at(-1);
  const response = film && (await fetch(urlOf(`films/${film.id}/file`)).catch(() => undefined));
  if (!film || !response?.ok) return;
  pause();
  const file = new File([await response.blob()], film.name, { type: film.type });
  // Read once, none of them stays; one that is kept is sent from here.
  for (const { id } of films) void api('dropFilm', { id, body: {} }).catch(() => undefined);
  emit('came', file);
}
</script>

<template>
  <p v-if="failure" class="miss" role="alert">
    {{ failure }} <button type="button" class="link" @click="make">Try again</button>
  </p>
  <div v-else-if="link" class="by-phone">
    <template v-if="link.address">
      <img :src="picture" alt="The address as a picture for a phone’s camera" width="220" height="220" />
      <p class="mb-0">
        <b>{{ link.address }}</b>
      </p>
    </template>
    <p v-else class="mb-0">
      Only this machine reaches Kevro now. For a phone to reach it, press
      <RouterLink :to="{ name: 'safety' }" class="link">Let other devices in</RouterLink>. On this machine the
      link is
      <RouterLink :to="{ name: 'filmed', params: { code: link.code } }" class="link" target="_blank"
        >here</RouterLink
      >.
    </p>
    <p class="soft mb-0" role="status">Waiting for the {{ takes }}…</p>
  </div>
  <p v-else class="soft" role="status">Making a link…</p>
</template>

<style scoped>
.by-phone {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
