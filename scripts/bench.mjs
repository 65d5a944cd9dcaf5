// Prints the benchmarks. Nothing is asserted: figures depend on the machine, ratios less so.
import { build, install, root, run } from './lib.mjs';
import { ensureChromium } from './chromium.mjs';

install();
ensureChromium();
build();
run(process.execPath, ['bench/application.mjs'], { cwd: root });
