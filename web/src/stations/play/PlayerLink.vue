<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import type { AnswerOf } from '@kevro/contract';
import { api } from '../../api/client';
import Sheet from '../../ui/Sheet.vue';
import { useActKey } from '../../forms/act-key';
import { wholeDayWords } from '../../words/days';
import { useFitting } from '../../stores/fitting';

/** A link by which the player notes the next session: a picture for the phone's camera, and the address to type. */
const open = defineModel<boolean>({ required: true });
const fitting = useFitting();
const made = ref<AnswerOf<'makeLink'>>();
const failure = ref('');
async function make(): Promise<void> {
  const { view, round } = fitting;
  if (!view || !round) return;
  made.value = undefined;
  failure.value = '';
  try {
    made.value = await api('makeLink', { id: view.id, body: { roundId: round.id, key: key.now() } });
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
// Tried again after an answer that was lost, it is the same link.
const key = useActKey();
watch(
  open,
  (now) => {
    if (!now) return;
    key.renew();
    void make();
  },
  { immediate: true },
);
/** An address of its own for the picture: markup that the server made is not written into the page. */
const picture = computed(() =>
  made.value?.picture ? `data:image/svg+xml;charset=utf-8,${encodeURIComponent(made.value.picture)}` : '',
);
</script>

<template>
  <Sheet v-model="open" title="The player’s link" :width="460">
    <p v-if="failure" class="miss" role="alert">
      {{ failure }} <button type="button" class="link" @click="make">Try again</button>
    </p>
    <p v-else-if="!made" class="soft" role="status">Making a link…</p>
    <template v-else-if="made.address">
      <img :src="picture" alt="The address as a picture for a phone’s camera" width="240" height="240" />
      <p class="address">
        <b>{{ made.address }}</b>
      </p>
      <p class="soft small mb-0">
        For one session with this frame, until {{ wholeDayWords(made.endsAt) }}, in the shop’s network. It
        opens nothing else. A new link ends this one.
      </p>
    </template>
    <p v-else>
      Only this machine reaches Kevro now. For a phone to reach it, press
      <RouterLink :to="{ name: 'safety' }" class="link">Let other devices in</RouterLink>. On this machine the
      link is
      <RouterLink :to="{ name: 'played', params: { code: made.code } }" class="link">here</RouterLink>.
    </p>
    <div class="d-flex mt-4">
      <v-spacer /><v-btn v-first color="primary" @click="open = false">Close</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
img {
  display: block;
  margin: 0 auto 8px;
  background: rgb(255 255 255);
}
.address {
  overflow-wrap: anywhere;
  text-align: center;
}
</style>
