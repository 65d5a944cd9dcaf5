<script setup lang="ts">
import { useEventListener, usePreferredDark } from '@vueuse/core';
import { watchEffect } from 'vue';
import { useTheme } from 'vuetify';
import { useRouter } from 'vue-router';
import { NOT_SIGNED_IN } from '../api/client';
import Shell from './Shell.vue';
import { useKept } from '../parts/kept';

const theme = useTheme();
const chosen = useKept<'light' | 'dark' | 'system'>('kevro-theme', 'light');
const prefersDark = usePreferredDark();
watchEffect(() => {
  const dark = chosen.value === 'dark' || (chosen.value === 'system' && prefersDark.value);
  theme.change(dark ? 'dark' : 'light');
});

const router = useRouter();
// What was typed is kept as a draft; once signed in it goes on where it was.
useEventListener(window, NOT_SIGNED_IN, () => {
  if (location.pathname !== '/sign-in')
    void router.push({ name: 'sign-in', query: { to: `${location.pathname}${location.search}` } });
});
</script>

<template>
  <v-app>
    <Shell />
  </v-app>
</template>
