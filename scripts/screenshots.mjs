// Takes the pictures of docs/screenshots from a demo that is running: npm run demo, then node scripts/screenshots.mjs.
import { join } from 'node:path';
import { createRequire } from 'node:module';
import { CHROMIUM_ARGS, findChromium } from './chromium.mjs';
import { root } from './lib.mjs';

const { chromium } = createRequire(join(root, 'e2e/package.json'))('playwright-core');
const base = `http://127.0.0.1:${process.env.PORT ?? 4700}`;
/** Readings by the simulated instruments, so that the station is shown at work. */
async function takeReadings(page) {
  await page.getByRole('button', { name: 'Yes, this is on it' }).click();
  for (const times of [2, 2, 3]) {
    await page.keyboard.press('p');
    await page.getByText(/lies on it/).waitFor();
    for (let i = 0; i < times; i++) {
      await page.keyboard.press('m');
      await page.waitForTimeout(3000);
    }
    if (times < 3) await page.keyboard.press('ArrowDown');
  }
}
const PICTURES = [
  ['today', '/'],
  ['measure', '/fittings/f-ilka/measure', 'light', takeReadings],
  ['frame', '/frames/dw-034'],
  ['instruments', '/settings/instruments'],
  ['calibration', '/settings/instruments/machine-back'],
  ['compare', '/fittings/f-tobin/compare'],
  ['compare-plane', '/fittings/f-tobin/compare', 'light', (page) => page.keyboard.press('v')],
  ['aim', '/fittings/f-ilka/aim'],
  ['plan', '/fittings/f-ilka/plan'],
  ['plan-dark', '/fittings/f-ilka/plan', 'dark'],
  ['build', '/fittings/f-odo/build'],
  ['players', '/players'],
  ['frames', '/frames'],
  ['setups', '/setups'],
  ['stock', '/stock'],
  ['settings', '/settings'],
];

const browser = await chromium.launch({
  executablePath: findChromium(),
  args: CHROMIUM_ARGS,
});
for (const [name, path, theme = 'light', act] of PICTURES) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript((chosen) => localStorage.setItem('kevro-theme', chosen), theme);
  await page.goto(base + path);
  await page.waitForLoadState('load');
  await page.getByText(/^(Loading|Opening|Looking up)/).waitFor({ state: 'detached' });
  await page.getByText('working out the ways').waitFor({ state: 'detached' });
  await page.waitForTimeout(900);
  await act?.(page);
  if (act) await page.waitForTimeout(1500);
  await page.screenshot({ path: join(root, `docs/screenshots/${name}.png`) });
  await page.close();
}
// The build sheet as it is printed.
const page = await browser.newPage({ viewport: { width: 820, height: 1100 } });
await page.goto(`${base}/fittings/f-odo/build`);
await page.waitForLoadState('networkidle');
await page.emulateMedia({ media: 'print' });
await page.screenshot({ path: join(root, 'docs/screenshots/build-sheet.png') });
await browser.close();
