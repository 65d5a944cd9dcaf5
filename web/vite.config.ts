import { parse } from 'node:path';
import { defineConfig } from 'vite';
import vue from '@vitejs/plugin-vue';
import vuetify from 'vite-plugin-vuetify';

/** A chunk that pages share is called by all of them, with a tilde between. */
const shortName = (name: string): string => name.split('~')[0] ?? name;

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
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
            { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 30_000 },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': 'http://127.0.0.1:4700' } },
});
