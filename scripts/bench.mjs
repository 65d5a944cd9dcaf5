// Prints the benchmarks. Nothing is asserted: figures depend on the machine, ratios less so.
import { build, install, root, run } from './lib.mjs';
import { CHROMIUM, POSTGRES, ensurePrograms } from './debian.mjs';

install();
await ensurePrograms(CHROMIUM, POSTGRES);
build();
run('npm', ['run', 'build', '--silent', '-w', 'bench']);
run(process.execPath, ['--expose-gc', 'bench/dist/core.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/dist/fittings.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/dist/records.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/dist/records.js', 'large'], { cwd: root });
console.log();
run(process.execPath, ['--expose-gc', 'bench/dist/setups.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/dist/safety.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/dist/server.js'], { cwd: root });
console.log();
run(process.execPath, ['bench/application.mjs'], { cwd: root });
