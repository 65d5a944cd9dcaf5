// Writes the whole shop into one file: npm run backup -- [file]
import { build, install, runTool } from './lib.mjs';

install();
build();
runTool('backup-shop.js');
