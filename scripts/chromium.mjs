import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** How the page is started without a window, and without calls to anywhere. */
export const CHROMIUM_ARGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Where a Chromium stands on this machine, or undefined. `CHROMIUM` names another. */
export const findChromium = () => [process.env.CHROMIUM, ...PLACES].find((path) => path && existsSync(path));

/** Installs Chromium from Debian's packages where it is missing and that is permitted. */
export function ensureChromium() {
  if (findChromium()) return;
  if (process.getuid?.() !== 0) {
    console.error(
      'The browser tests need Chromium. Install it (apt-get install chromium) or name it in CHROMIUM.',
    );
    process.exit(1);
  }
  console.log('Installing Chromium…');
  const apt = (...args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium');
  if (!findChromium()) {
    console.error('Chromium could not be installed.');
    process.exit(1);
  }
}
