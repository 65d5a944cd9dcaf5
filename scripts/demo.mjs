// Sets everything up and serves the made-up shop. It starts fresh each time; `npm run demo -- --keep` keeps what was stored.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, root, serve } from './lib.mjs';

install();
build();
const folder = process.env.KEVRO_DATA ?? join(root, '.data/demo');
if (!process.argv.includes('--keep')) rmSync(folder, { recursive: true, force: true });
console.log('Setting up the demo shop; the first start takes some seconds…');
serve({ KEVRO_DATA: folder, KEVRO_SHOP_FILE: join(root, 'demo/shop.json') });
