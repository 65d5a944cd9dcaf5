<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue';
import type { useFilming } from './filming';

/** A camera of this device films, from Start to Stop. */
const props = defineProps<{ filming: ReturnType<typeof useFilming> }>();
const { camera, cameraFailure, filmed } = props.filming;
const video = ref<HTMLVideoElement>();
onMounted(async () => {
  await props.filming.openCamera();
  await nextTick();
  if (video.value && camera.value) video.value.srcObject = camera.value;
});
</script>

<template>
  <p v-if="cameraFailure" class="miss" role="alert">{{ cameraFailure }}</p>
  <div v-else-if="camera" class="here">
    <video ref="video" muted playsinline autoplay aria-label="What the camera shows" />
    <p class="mb-0" role="status">
      {{
        filmed === undefined ? 'Let it swing, then start. Film 20 swings.' : `${filmed.toFixed(0)} s filmed`
      }}
    </p>
    <div>
      <v-btn v-if="filmed === undefined" v-first color="primary" @click="video && filming.film(video)"
        >Start</v-btn
      >
      <v-btn v-else v-first color="primary" @click="filming.stopFilming">Stop</v-btn>
    </div>
  </div>
</template>

<style scoped>
.here {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
video {
  width: 100%;
  max-height: 50vh;
  background: #000;
}
</style>
