// Makes a shop from a backup, in a folder that holds none: npm run restore -- file [folder]
import { build, install, runTool } from './lib.mjs';

install();
build();
runTool('restore-shop.js');
