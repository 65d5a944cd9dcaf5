// Everything the tests need, then all of them: checks, unit, API and browser tests.
import { spawnSync } from 'node:child_process';
import { accessSync, constants, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root, run } from './lib.mjs';
import { ensureChromium } from './chromium.mjs';

install();
ensureChromium();
run('npm', ['run', 'check', '--silent']);
build();

/** A place in memory, where there is room: the tests make many databases, and a disk that others share makes each wait. */
function place() {
  const inMemory = '/dev/shm';
  try {
    accessSync(inMemory, constants.W_OK);
    const { bavail, bsize } = statfsSync(inMemory);
    return bavail * bsize > 4e9 ? inMemory : tmpdir();
  } catch {
    return tmpdir();
  }
}

const folder = mkdtempSync(join(place(), 'kevro-test-'));
const report = join(folder, 'report.json');
const { status } = spawnSync(
  'npx',
  [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
    ...process.argv.slice(2),
  ],
  { cwd: root, stdio: 'inherit', env: { ...process.env, TMPDIR: folder } },
);
try {
  const { numPassedTests, numFailedTests, numPendingTests } = JSON.parse(readFileSync(report, 'utf8'));
  console.log(`${numPassedTests} passed, ${numFailedTests} failed, ${numPendingTests} skipped`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(status ?? 1);
