<script setup lang="ts">
import { leaveOut, refused, sendAnyway, unsent } from '../api/waiting';
import Sheet from '../ui/Sheet.vue';
import { momentWords } from '../words/days';

// What a fitter comes here to do: see that nothing is lost; settle what somebody else's work stands in the way of; go on.
const open = defineModel<boolean>({ required: true });
</script>

<template>
  <Sheet v-model="open" title="Kept on this device">
    <section v-if="refused.length > 0" aria-labelledby="to-settle">
      <h3 id="to-settle" class="heading">To settle</h3>
      <ul class="kept">
        <li v-for="one in refused" :key="one.n">
          <p class="mb-0">
            <b>{{ one.what }}</b> <span class="soft">{{ momentWords(one.doneAt) }}</span>
          </p>
          <p class="miss mb-2">{{ one.refused?.message }}</p>
          <div class="d-flex ga-2">
            <v-btn variant="outlined" :aria-label="`Save anyway: ${one.what}`" @click="sendAnyway(one)"
              >Save anyway</v-btn
            >
            <v-btn variant="text" :aria-label="`Leave out: ${one.what}`" @click="leaveOut(one)"
              >Leave out</v-btn
            >
          </div>
        </li>
      </ul>
    </section>
    <section v-if="unsent.length > 0" aria-labelledby="to-send">
      <h3 id="to-send" class="heading">Waiting for Kevro</h3>
      <p class="soft small">
        Saved in this order as soon as Kevro answers. Leave this browser’s data as it is.
      </p>
      <ul class="kept">
        <li v-for="one in unsent" :key="one.n">
          {{ one.what }} <span class="soft">{{ momentWords(one.doneAt) }}</span>
        </li>
      </ul>
    </section>
    <p v-if="refused.length + unsent.length === 0">Nothing waits: everything is saved.</p>
    <div class="d-flex mt-3">
      <v-spacer />
      <v-btn v-first variant="text" @click="open = false">Close</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.kept {
  list-style: none;
  padding: 0;
  margin: 0 0 12px;
}
.kept li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 8px 0;
}
</style>
