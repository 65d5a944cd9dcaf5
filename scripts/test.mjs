// Everything the tests need, then all of them: checks, unit, API and browser tests.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root, run } from './lib.mjs';
import { ensureChromium } from './chromium.mjs';

install();
ensureChromium();
run('npm', ['run', 'check', '--silent']);
build();

const folder = mkdtempSync(join(tmpdir(), 'kevro-test-'));
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
  { cwd: root, stdio: 'inherit' },
);
try {
  const { numPassedTests, numFailedTests, numPendingTests } = JSON.parse(readFileSync(report, 'utf8'));
  console.log(`${numPassedTests} passed, ${numFailedTests} failed, ${numPendingTests} skipped`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(status ?? 1);
