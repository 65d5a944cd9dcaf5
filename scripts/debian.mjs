// Programs of Debian that the tests and the benches need, installed where they are missing and that is permitted.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { findChromium, isBestChromium } from './chromium.mjs';

const SERVERS = '/usr/lib/postgresql';

export const CHROMIUM = {
  name: 'chromium-headless-shell',
  isThere: isBestChromium,
  willDo: () => findChromium() !== undefined,
  otherwise:
    'The browser tests need Chromium. Install it (apt-get install chromium-headless-shell) or name it in CHROMIUM.',
};
/** The server of the tests: Debian's own. */
export const POSTGRES = {
  name: 'postgresql',
  isThere: () => existsSync(SERVERS) && readdirSync(SERVERS).length > 0,
  otherwise: 'The tests on a database server need PostgreSQL. Install it: apt-get install postgresql.',
};
/** What makes the pseudo terminals at which the tests plug in devices of their own. */
export const SOCAT = {
  name: 'socat',
  isThere: () => existsSync('/usr/bin/socat'),
  otherwise: 'The tests of devices at a port need socat. Install it: apt-get install socat.',
};

/** One process for both steps: whoever called may be busy and start no second one. */
const APT = 'apt-get update -qq; exec apt-get install -y -qq --no-install-recommends "$@"';
const installed = (names) =>
  new Promise((done) =>
    spawn('sh', ['-c', APT, 'apt', ...names], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
      .on('error', done)
      .on('exit', done),
  );
const end = (sentence) => {
  console.error(sentence);
  process.exit(1);
};

/**
 * Installs what is missing of some programs, while other work goes on: whoever needs them waits for it. It ends this process where one cannot be had, and nothing
 * else that is there will do.
 */
export async function ensurePrograms(...programs) {
  const missing = programs.filter(({ isThere }) => !isThere());
  if (missing.length === 0) return;
  const lacking = () => missing.filter(({ isThere, willDo }) => !isThere() && !willDo?.());
  if (process.getuid?.() !== 0) {
    const told = lacking().map(({ otherwise }) => otherwise);
    return told.length > 0 ? end(told.join('\n')) : undefined;
  }
  const names = missing.map(({ name }) => name);
  console.log(`Installing ${names.join(', ')}…`);
  await installed(names);
  const failed = lacking();
  if (failed.length > 0) end(`${failed.map(({ name }) => name).join(', ')} could not be installed.`);
}
