<script setup lang="ts" generic="S extends string">
import type { Sport } from '@kevro/core';
import { SPORT_ITEMS } from '../words/players';

/** What narrows and orders a list that the server reads. */
defineProps<{ label: string; sorts: { value: S; title: string }[] }>();
const search = defineModel<string>('search', { required: true });
const sport = defineModel<Sport | null>('sport', { required: true });
const sort = defineModel<S>('sort', { required: true });
const SPORTS = [{ value: null, title: 'all sports' }, ...SPORT_ITEMS];
</script>

<template>
  <v-text-field v-model="search" :label="label" clearable class="find no-print" @click:clear="search = ''" />
  <v-select v-model="sport" :items="SPORTS" label="Sport" class="narrow no-print" />
  <v-select v-model="sort" :items="sorts" label="Order" class="narrow no-print" />
</template>

<style scoped>
.find {
  flex: 1 1 235px;
  min-width: 235px;
  max-width: 300px;
}
.narrow {
  flex: 0 1 170px;
}
</style>
