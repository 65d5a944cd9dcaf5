import { parse } from 'node:path';
import { defineConfig } from 'vite';
import vue from '@vitejs/plugin-vue';
import { VitePWA } from 'vite-plugin-pwa';
import vuetify from 'vite-plugin-vuetify';

/** The page opens without its server: all its files are on the device. What it shows then it keeps itself (`src/api/kept-answers.ts`). */
const opensAlone = VitePWA({
  registerType: 'autoUpdate',
  // Registered by `src/main.ts`, where the browser allows it.
  injectRegister: false,
  manifest: {
    name: 'Kevro',
    short_name: 'Kevro',
    description: 'Fits rackets and paddles: measure, aim, plan, build, check, play.',
    start_url: '/',
    display: 'standalone',
    background_color: '#f4f1ea',
    theme_color: '#1d2a2c',
    icons: [
      { src: '/kevro.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/kevro-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/kevro-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,woff2,svg,png}'],
    maximumFileSizeToCacheInBytes: 8_000_000,
    navigateFallback: null,
    skipWaiting: true,
    clientsClaim: true,
    runtimeCaching: [
      {
        // While the server answers, its page is the one that opens.
        urlPattern: ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
        handler: 'NetworkOnly',
        options: { precacheFallback: { fallbackURL: '/index.html' } },
      },
    ],
  },
});

/** A chunk that pages share is called by all of them, with a tilde between. */
const shortName = (name: string): string => name.split('~')[0] ?? name;

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), opensAlone],
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1600,
    rolldownOptions: {
      output: {
        // Named by what they are, not by all the pages that share them.
        chunkFileNames: ({ name }) => `assets/${shortName(name)}-[hash].js`,
        assetFileNames: ({ names: [name = ''] }) => `assets/${shortName(parse(name).name)}-[hash][extname]`,
        // Few files: on HTTP/1.1 a page waits for how many there are more than for how long they are.
        codeSplitting: {
          groups: [
            { name: 'start', tags: ['$initial'] },
            // What everything rests on is one chunk: parted by pages, its chunks could need each other, and one of them begin too soon.
            { name: 'core', test: /[\\/](core|contract)[\\/]src[\\/]/, minShareCount: 2 },
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 30_000 },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:4700' } },
});
