// Sets everything up and serves the made-up shop. It starts fresh each time; `npm run demo -- --keep` keeps what was stored.
import { join } from 'node:path';
import { build, install, root, serve } from './lib.mjs';

install();
build();
console.log('Setting up the demo shop; the first start takes some seconds…');
serve({
  KEVRO_DATA: process.env.KEVRO_DATA ?? join(root, '.data/demo-shop'),
  KEVRO_DEMO: process.argv.includes('--keep') ? 'keep' : 'fresh',
  KEVRO_SHOP_FILE: join(root, 'demo/shop.json'),
});
