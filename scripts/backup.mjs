// Writes the whole shop into one file: npm run backup -- [file]
import { build, install, root, run } from './lib.mjs';
import { join } from 'node:path';

install();
build();
run(process.execPath, [join(root, 'server/dist/backup-shop.js'), ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  env: { KEVRO_DATA: join(root, '.data/shop'), ...process.env },
});
