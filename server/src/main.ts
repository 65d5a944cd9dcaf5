import { mkdir, readFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';
import { planInThread } from './compute/plan-runner';
import { systemClock } from './clock';
import { openPglite } from './db/pglite';
import { Hub } from './instruments/hub';
import { BENCH_PACE } from './instruments/stand-in';
import { isLoaded, loadShop, readShopFile } from './exchange/shop-file';

const here = dirname(fileURLToPath(import.meta.url));
const port = Number(process.env.PORT ?? 4700);
const host = process.env.HOST ?? '127.0.0.1';
const folder = resolve(process.env.KEVRO_DATA ?? '.data/shop');

await mkdir(dirname(folder), { recursive: true });
const db = await openPglite(folder);

const runPlan = planInThread(new URL('./plan-thread.js', import.meta.url));

const shopFile = process.env.KEVRO_SHOP_FILE;
if (shopFile && !(await isLoaded(db))) {
  await loadShop(db, readShopFile(JSON.parse(await readFile(shopFile, 'utf8'))), runPlan, systemClock());
}

const hub = new Hub(db, systemClock, BENCH_PACE);
await hub.start();

const app = createApp({
  db,
  hub,
  runPlan,
  pageFolder: resolve(here, '../../web/dist'),
});
const server = app.listen(port, host, (error) => {
  if (error) {
    console.error(`Kevro cannot listen on http://${host}:${port}: ${error.message}`);
    process.exit(1);
  }
  console.log(`Kevro is ready at http://${host}:${port}`);
});

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  hub.stop();
  server.close();
  server.closeAllConnections();
  void db.close().finally(() => process.exit(0));
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
