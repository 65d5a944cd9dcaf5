import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: 'core.ts',
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: { output: { entryFileNames: '[name].js' } },
  },
  ssr: { noExternal: [/^@kevro\//] },
});
