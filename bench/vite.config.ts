import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: {
      input: ['core.ts', 'fittings.ts', 'records.ts', 'setups.ts', 'safety.ts', 'server.ts'],
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@kevro\//] },
});
