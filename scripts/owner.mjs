// Lets an owner in by name, with the passphrase on the standard input: npm run owner -- "Halla Brandt" < a-file
import { build, install, runTool } from './lib.mjs';

install();
build();
runTool('owner.js');
