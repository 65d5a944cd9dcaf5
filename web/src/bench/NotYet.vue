<script setup lang="ts">
import type { Station } from '@kevro/core';
import { STATION_NAMES } from '../words';

/** What is missing to go on, and the way there. */
defineProps<{ missing: string; station: Station }>();
</script>

<template>
  <div class="page">
    <h1>{{ missing }}</h1>
    <p class="soft my-3">Do this step first.</p>
    <v-btn color="primary" size="large" :to="{ name: station }">Go to {{ STATION_NAMES[station] }}</v-btn>
  </div>
</template>
