// Makes a shop from a backup, in a folder that holds none: npm run restore -- file [folder]
import { build, install, root, run } from './lib.mjs';
import { join } from 'node:path';

install();
build();
run(process.execPath, [join(root, 'server/dist/restore-shop.js'), ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  env: { KEVRO_DATA: join(root, '.data/shop'), ...process.env },
});
