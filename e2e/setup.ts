import { rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from 'vite';
import { Application } from './harness';

const root = resolve(import.meta.dirname, '..');

/** Builds the server of the tests, and meanwhile loads the demo shop once: setting it up takes longer than copying it. */
export default async function setup(): Promise<() => void> {
  const app = new Application();
  const loaded = app.start().then(() => app.stop());
  await build({
    configFile: false,
    logLevel: 'warn',
    root,
    build: {
      ssr: true,
      target: 'node20',
      outDir: join(root, 'node_modules/.kevro'),
      rollupOptions: {
        input: { shops: join(root, 'e2e/shops.ts') },
        output: { entryFileNames: '[name].js' },
      },
    },
    ssr: { noExternal: [/^@kevro\//] },
  });
  await loaded;
  process.env.KEVRO_DEMO_SHOP = app.data;
  return () => rmSync(app.folder, { recursive: true, force: true });
}
