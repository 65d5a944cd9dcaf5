<script setup lang="ts">
import { useEventListener, usePreferredDark } from '@vueuse/core';
import { computed, watchEffect } from 'vue';
import { useTheme } from 'vuetify';
import { RouterView, useRoute, useRouter } from 'vue-router';
import { NOT_SIGNED_IN } from '../api/client';
import Shell from './Shell.vue';
import { useKept } from '../ui/kept';

const theme = useTheme();
const chosen = useKept<'light' | 'dark' | 'system'>('kevro-theme', 'light');
const prefersDark = usePreferredDark();
watchEffect(() => {
  const dark = chosen.value === 'dark' || (chosen.value === 'system' && prefersDark.value);
  void theme.change(dark ? 'dark' : 'light');
});

const router = useRouter();
const route = useRoute();
/** Known from the address before the page's own code has come: the frame of the application does not wait for it. */
const alone = computed(() =>
  route.matched.length > 0 ? route.meta.alone === true : /^\/(played|filmed)\//.test(location.pathname),
);
// What was typed is kept as a draft; once signed in it goes on where it was.
useEventListener(window, NOT_SIGNED_IN, () => {
  if (!alone.value && location.pathname !== '/sign-in')
    void router.push({ name: 'sign-in', query: { to: `${location.pathname}${location.search}` } });
});
</script>

<template>
  <v-app>
    <!-- A page that stands alone has none of the shop's ways on. -->
    <RouterView v-if="alone" />
    <Shell v-else />
  </v-app>
</template>
