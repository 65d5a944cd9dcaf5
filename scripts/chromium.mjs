import { existsSync } from 'node:fs';

/** Chromium with nothing of a window in it: the same pages take it a sixth less of a processor. */
const SHELL = '/usr/bin/chromium-headless-shell';
const PLACES = [SHELL, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

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
/** Whether it is the one that is wished for: the quickest, or what was named. */
export const isBestChromium = () => [process.env.CHROMIUM, SHELL].includes(findChromium());
