<script setup lang="ts">
import { usePreferredDark } from '@vueuse/core';
import { watchEffect } from 'vue';
import { useTheme } from 'vuetify';
import Shell from './Shell.vue';
import { useKept } from '../parts/kept';

const theme = useTheme();
const chosen = useKept<'light' | 'dark' | 'system'>('kevro-theme', 'light');
const prefersDark = usePreferredDark();
watchEffect(() => {
  const dark = chosen.value === 'dark' || (chosen.value === 'system' && prefersDark.value);
  theme.change(dark ? 'dark' : 'light');
});
</script>

<template>
  <v-app>
    <Shell />
  </v-app>
</template>
