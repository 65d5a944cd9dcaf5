<script setup lang="ts">
import { ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client';

/** Where a label's picture leads: on to the frame with that tag. */
const props = defineProps<{ tag: string }>();
const router = useRouter();
const failure = ref('');
async function find(): Promise<void> {
  failure.value = '';
  try {
    const { rows } = await api('frames', { query: { tag: props.tag, limit: 1 } });
    if (rows[0]) await router.replace(`/frames/${rows[0].id}`);
    else failure.value = `No frame has the tag ${props.tag}.`;
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
watch(() => props.tag, find, { immediate: true });
</script>

<template>
  <div class="page">
    <h1>{{ tag }}</h1>
    <template v-if="failure">
      <p class="miss my-3" role="alert">{{ failure }}</p>
      <v-btn color="primary" @click="find">Try again</v-btn>
      <v-btn variant="text" :to="{ name: 'frames' }">Go to Frames</v-btn>
    </template>
    <p v-else class="soft" role="status">Looking up…</p>
  </div>
</template>
