import { createPinia } from 'pinia';
import { createApp } from 'vue';
import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-600.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import 'vuetify/styles';
import './ui/look.css';
import App from './app/App.vue';
import { router } from './app/router';
import { vFirst } from './ui/focus';
import { vuetify } from './ui/theme';
import { claimTab } from './ui/tab';

// Drafts belong to a tab: which one this is has to be known before the first form opens.
await claimTab();
createApp(App).use(createPinia()).use(router).use(vuetify).directive('first', vFirst).mount('#app');

// Only on this machine and behind TLS; without it the page needs its server to open. After the page, which it would hold up.
if (import.meta.env.PROD && 'serviceWorker' in navigator) {
  if (document.readyState !== 'complete')
    await new Promise((loaded) => addEventListener('load', loaded, { once: true }));
  await navigator.serviceWorker.register('/sw.js').catch(() => undefined);
}
