import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: {
      input: {
        main: 'src/main.ts',
        'compute-thread': 'src/compute/compute-thread.ts',
        'engine-thread': 'src/db/engine-thread.ts',
        'reading-thread': 'src/exchange/reading-thread.ts',
        'backup-shop': 'src/backup-shop.ts',
        'restore-shop': 'src/restore-shop.ts',
        owner: 'src/owner.ts',
        shops: 'src/shops.ts',
        'make-new-databases': 'src/make-new-databases.ts',
      },
      output: { entryFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@kevro\//] },
});
