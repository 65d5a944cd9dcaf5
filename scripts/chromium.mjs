import { existsSync } from 'node:fs';
import { ensurePackage } from './debian.mjs';

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
export const ensureChromium = () =>
  ensurePackage(
    'chromium',
    () => findChromium() !== undefined,
    'The browser tests need Chromium. Install it (apt-get install chromium) or name it in CHROMIUM.',
  );
