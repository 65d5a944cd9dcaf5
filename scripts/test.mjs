// Everything the tests need, then all of them: checks, unit, API and browser tests.
import { spawnSync } from 'node:child_process';
import { accessSync, chmodSync, constants, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, install, root, run } from './lib.mjs';
import { CHROMIUM, POSTGRES, SOCAT, ensurePrograms } from './debian.mjs';

const programs = ensurePrograms(CHROMIUM, POSTGRES, SOCAT);
install();
run('npm', ['run', 'check', '--silent']);
build();
await programs;

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
// Where the tests run as root, the database server of some has a user of its own, who must get to its folder in this one.
chmodSync(folder, 0o711);
const env = { ...process.env, TMPDIR: folder };
const only = process.argv.slice(2);

/** Runs one of the two runners on what was asked for, and tells how many tests passed, failed and were left out. */
function tests(command, args, report, counted) {
  const { status } = spawnSync('npx', [...command, ...args, ...only], {
    cwd: root,
    stdio: 'inherit',
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  });
  return { ...counted(JSON.parse(readFileSync(report, 'utf8'))), fine: status === 0 };
}
let all;
try {
  const vitestReport = join(folder, 'vitest.json');
  all = [
    tests(
      ['vitest', 'run'],
      ['--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`, '--passWithNoTests'],
      vitestReport,
      (r) => ({ passed: r.numPassedTests, failed: r.numFailedTests, skipped: r.numPendingTests }),
    ),
    tests(
      ['playwright', 'test'],
      ['--reporter=list,json', '--pass-with-no-tests'],
      join(folder, 'playwright.json'),
      ({ stats }) => ({
        // What passed only when it was tried again is said, and has failed once.
        passed: stats.expected,
        failed: stats.unexpected + stats.flaky,
        skipped: stats.skipped,
      }),
    ),
  ];
  const sum = (what) => all.reduce((total, one) => total + one[what], 0);
  console.log(`${sum('passed')} passed, ${sum('failed')} failed, ${sum('skipped')} skipped`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(all.every(({ fine }) => fine) ? 0 : 1);
