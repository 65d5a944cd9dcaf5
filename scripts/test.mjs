// Everything the tests need, then all of them: checks, unit, API and browser tests.
import { spawnSync } from 'node:child_process';
import { accessSync, chmodSync, constants, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
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

/** Runs one of the two runners on what was asked for; tells how many tests passed and were left out, and which failed. */
function tests(command, args, report, read) {
  const { status } = spawnSync('npx', [...command, ...args, ...only], {
    cwd: root,
    stdio: 'inherit',
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
  });
  return { ...read(JSON.parse(readFileSync(report, 'utf8'))), fine: status === 0 };
}
const ofVitest = ({ numPassedTests, numPendingTests, testResults }) => ({
  passed: numPassedTests,
  skipped: numPendingTests,
  failed: testResults.flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName, failureMessages }) => ({
        file: relative(root, name),
        test: fullName,
        why: failureMessages[0],
      })),
  ),
});
/** What passed only when it was tried again has failed once. */
const ofPlaywright = ({ stats, suites }) => ({
  passed: stats.expected,
  skipped: stats.skipped,
  failed: specsOf(suites)
    .filter(({ tests }) => tests.some(({ status }) => status === 'unexpected' || status === 'flaky'))
    .map((spec) => ({
      file: `e2e/${spec.file}`,
      test: spec.title,
      why: spec.tests.flatMap(({ results }) => results).find(({ error }) => error)?.error.message,
    })),
});
const specsOf = (suites = []) => suites.flatMap((suite) => [...suite.specs, ...specsOf(suite.suites)]);

let all;
try {
  const vitestReport = join(folder, 'vitest.json');
  all = [
    tests(
      ['vitest', 'run'],
      ['--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`, '--passWithNoTests'],
      vitestReport,
      ofVitest,
    ),
    tests(
      ['playwright', 'test'],
      ['--reporter=list,json', '--pass-with-no-tests'],
      join(folder, 'playwright.json'),
      ofPlaywright,
    ),
  ];
  // Last, where whoever reads only the end of a long log finds them.
  const failed = all.flatMap((one) => one.failed);
  for (const { file, test, why = '' } of failed)
    console.log(`failed: ${file} › ${test}\n  ${stripVTControlCharacters(why).slice(0, 600)}`);
  const sum = (what) => all.reduce((total, one) => total + one[what], 0);
  console.log(`${sum('passed')} passed, ${failed.length} failed, ${sum('skipped')} skipped`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(all.every(({ fine }) => fine) ? 0 : 1);
