import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: {
      input: { main: 'src/main.ts', 'plan-thread': 'src/compute/plan-thread.ts' },
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@kevro\//] },
});
