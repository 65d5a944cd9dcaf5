// The shops of the database that DATABASE_URL names: npm run shops -- [add code | rename code code]
import { build, install, runTool } from './lib.mjs';

install();
build();
runTool('shops.js');
