<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useShop } from '../stores/shop';
import { TOUR, useTour } from './tour';

const shop = useShop();
const router = useRouter();
const tour = useTour();
const isDemo = computed(() => shop.shop?.demo ?? false);
function begin(): void {
  tour.go(0);
  void router.push(TOUR[0]?.path ?? '/');
}
</script>

<template>
  <article class="page guide">
    <h1>Your first fitting</h1>
    <ol>
      <li>
        <b>Say what you put on frames.</b> Under <RouterLink :to="{ name: 'stock' }">Stock</RouterLink>, add
        tape for the hoop and putty for the handle, or weigh the common ones that came with the shop.
      </li>
      <li>
        <b>Open the fitting.</b> Under <RouterLink :to="{ name: 'today' }">Today</RouterLink>, press
        <i>Open a fitting</i> (<kbd>n</kbd>). A player or a frame that is new is added right there.
      </li>
      <li>
        <b>Measure.</b> First say what is on the frame, then weigh, balance and swing it: by an instrument, by
        a stopwatch, or typed. Any unit works: <i>327.5</i>, <i>11.5 oz</i>, <i>6 HL</i>, <i>even</i>. Store
        it.
      </li>
      <li>
        <b>Compare.</b> The nearest setups come first. Put up to four next to your frame; other frames and
        guides too; add those that you know under <RouterLink :to="{ name: 'setups' }">Setups</RouterLink>.
      </li>
      <li>
        <b>Aim.</b> Copy a setup, go part of the way, or type what you want. Say what the frame is finished
        with, and mark each spec must, preferred or any.
      </li>
      <li>
        <b>Plan.</b> Kevro works out the best placements and says what each one misses. Drag a weight if you
        know better, and watch the numbers.
      </li>
      <li><b>Build.</b> Print the sheet, work down the steps, tick them off. What sets has its time.</li>
      <li>
        <b>Check.</b> Measure it once more from there. If it is out of tolerance, do the smallest trim and
        measure again. Then sign off.
      </li>
      <li>
        <b>Play.</b> Note how each session felt, or give the player the link to do so. A programme then
        proposes one change at a time, with its reason, and knows when to stop.
      </li>
    </ol>
    <p>
      What you type is kept until you save it, even if you close the form or reload. You can correct anything
      later, where it is listed.
    </p>
    <p class="soft">
      <kbd>?</kbd> lists the keys. <kbd>Ctrl Enter</kbd> is the main action of a page, also while you type.
    </p>
    <p v-if="isDemo">
      <v-btn variant="outlined" @click="begin">Take the tour of the demo</v-btn>
    </p>
    <p><RouterLink :to="{ name: 'today' }">Go to Today</RouterLink></p>
  </article>
</template>

<style scoped>
.guide {
  max-width: 720px;
  font-size: 16px;
}
li {
  margin: 10px 0;
}
</style>
