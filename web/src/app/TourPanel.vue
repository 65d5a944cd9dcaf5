<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { TOUR, useTour } from './tour';

/** A walk through the demo, one page after the other; it lies over nothing that it talks about, and can be left at any time. */
const { at, leave, go } = useTour();
const router = useRouter();
const panel = ref<HTMLElement>();
const step = computed(() => TOUR[at.value ?? -1]);
const route = useRoute();
/** Somebody goes on by themselves: it steps aside, and waits to be called back. */
const aside = computed(() => step.value !== undefined && route.path !== step.value.path);
async function show(next: number): Promise<void> {
  go(next);
  const path = TOUR[next]?.path;
  if (path) await router.push(path);
  await nextTick();
  panel.value?.focus();
}
</script>

<template>
  <div v-if="aside && at !== undefined" class="tour aside no-print">
    <v-btn variant="text" size="small" @click="show(at)">Tour, {{ at + 1 }} of {{ TOUR.length }}</v-btn>
    <v-btn variant="text" size="small" @click="leave">Leave</v-btn>
  </div>
  <section
    v-else-if="step && at !== undefined"
    ref="panel"
    class="tour no-print"
    tabindex="-1"
    aria-label="Tour of the demo"
  >
    <p class="soft small mb-1">{{ at + 1 }} of {{ TOUR.length }}</p>
    <h2>{{ step.title }}</h2>
    <p>{{ step.text }}</p>
    <div class="acts">
      <v-btn variant="text" @click="leave">{{ at + 1 < TOUR.length ? 'Leave the tour' : 'Close' }}</v-btn>
      <span class="spring" />
      <v-btn v-if="at > 0" variant="outlined" @click="show(at - 1)">Back</v-btn>
      <v-btn v-if="at + 1 < TOUR.length" color="primary" @click="show(at + 1)">Next</v-btn>
    </div>
  </section>
</template>

<style scoped>
.tour {
  position: fixed;
  /* The main action of a page lies at the lower right. */
  left: 16px;
  bottom: 56px;
  width: min(360px, calc(100vw - 32px));
  z-index: 10;
  padding: 14px 16px;
  background: rgb(var(--v-theme-sheet));
  border: 2px solid rgb(var(--v-theme-ink));
}
/* A line of it, where the places end. */
.aside {
  width: auto;
  padding: 2px 4px;
}
h2 {
  font-size: 18px;
  line-height: 1.25;
  margin: 0 0 6px;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
