// Takes the pictures of docs/screenshots from a demo that is running: npm run demo, then node scripts/screenshots.mjs.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createRequire } from 'node:module';
import { CHROMIUM_ARGS, findChromium } from './chromium.mjs';
import { root } from './lib.mjs';

const { chromium } = createRequire(join(root, 'e2e/package.json'))('playwright-core');
const base = `http://127.0.0.1:${process.env.PORT ?? 4700}`;
/** Readings by the simulated instruments, so that the station is shown at work. */
async function takeReadings(page) {
  await page.getByRole('button', { name: 'Confirm' }).click();
  for (const times of [2, 2, 3]) {
    await page.keyboard.press('p');
    await page.getByText(/^On it: /).waitFor();
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
  ['calibration', '/settings/instruments/machine-back'],
  ['compare', '/fittings/f-tobin/compare'],
  [
    'compare-plane',
    '/fittings/f-tobin/compare',
    'light',
    async (page) => {
      await page.keyboard.press('v');
      await page.getByRole('button', { name: 'What can this frame become?' }).click();
    },
  ],
  ['aim', '/fittings/f-ilka/aim'],
  ['plan', '/fittings/f-ilka/plan'],
  ['build', '/fittings/f-odo/build'],
  ['play', '/fittings/f-liv/play'],
  ['player', '/players/liv-harrowdene'],
  ['frames', '/frames', 'dark'],
  ['setup', '/setups/rook-a'],
  ['stock', '/stock'],
  ['match', '/fittings/f-ines/match'],
  ['labels', '/labels?frames=bd-040,ot-014,dw-034,kn-041,bd-052,dw-021'],
];

const browser = await chromium.launch({
  executablePath: findChromium(),
  args: CHROMIUM_ARGS,
});
/** In a theme, and without the tour of the demo. */
const begin = (page, theme) =>
  page.addInitScript((chosen) => {
    localStorage.setItem('kevro-theme', chosen);
    localStorage.setItem('kevro-tour', 'done');
  }, theme);
for (const [name, path, theme = 'light', act] of PICTURES) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await begin(page, theme);
  await page.goto(base + path);
  await page.waitForLoadState('load');
  await page.getByText(/^(Loading|Opening|Looking up|Finding)/).waitFor({ state: 'detached' });
  await page.getByText('Calculating…').waitFor({ state: 'detached' });
  await page.waitForTimeout(900);
  // What began only now is waited for too.
  await page.getByText('Calculating…').waitFor({ state: 'detached' });
  for (const chart of await page.locator('figure.chart').all())
    await chart.locator('.main-svg').first().waitFor();
  await act?.(page);
  await page.waitForTimeout(act ? 1500 : 400);
  await page.screenshot({ path: join(root, `docs/screenshots/${name}.png`) });
  await page.close();
}
/** The first page of a shop in which nothing was said yet: a server of its own, with an empty folder. */
async function firstStart() {
  const folder = mkdtempSync(join(tmpdir(), 'kevro-first-'));
  const port = Number(new URL(base).port) + 1;
  const server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, PORT: String(port), KEVRO_DATA: join(folder, 'shop') },
    stdio: 'ignore',
  });
  try {
    const url = `http://127.0.0.1:${port}`;
    for (;;) {
      if (
        await fetch(`${url}/api/v1/health`)
          .then((r) => r.ok)
          .catch(() => false)
      )
        break;
      await new Promise((again) => setTimeout(again, 200));
    }
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await begin(page, 'light');
    await page.goto(url);
    await page.getByText('Tennis', { exact: true }).click();
    await page.waitForTimeout(800);
    await page.screenshot({ path: join(root, 'docs/screenshots/first-start.png') });
    await page.close();
  } finally {
    server.kill('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}
await firstStart();
/** A build that was checked and is not inside yet, for the picture of the check. */
async function checkOdo() {
  const send = async (method, path, body) =>
    (
      await fetch(`${base}/api/v1${path}`, {
        method,
        headers: { 'content-type': 'application/json' },
        ...(body ? { body: JSON.stringify(body) } : {}),
      })
    ).json();
  const { frames } = await send('GET', '/fittings/f-odo');
  const round = frames[0].rounds.at(-1);
  const plan = round.plans.find(({ id }) => id === round.state.planId);
  for (const { key } of plan.steps)
    if (key !== 'final-check')
      await send('POST', '/fittings/f-odo/marks', { planId: plan.id, step: key, mark: 'done' });
  const { axisCm: _, ...specs } = plan.specs;
  await send('POST', `/frames/${frames[0].frame.id}/measurements`, {
    key: 'for the picture of the check',
    dress: frames[0].frame.onIt,
    specs: { ...specs, swingWeight: specs.swingWeight + 2.7 },
    purpose: 'check',
    roundId: round.id,
  });
}

// The build sheet as it is printed.
const page = await browser.newPage({ viewport: { width: 820, height: 1100 } });
await begin(page, 'light');
await page.goto(`${base}/fittings/f-odo/build`);
await page.waitForLoadState('networkidle');
await page.emulateMedia({ media: 'print' });
await page.screenshot({ path: join(root, 'docs/screenshots/build-sheet.png') });
await checkOdo();
const checked = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await begin(checked, 'light');
await checked.goto(`${base}/fittings/f-odo/check`);
await checked.getByText('to pass').first().waitFor();
await checked.waitForTimeout(900);
await checked.screenshot({ path: join(root, 'docs/screenshots/check.png') });
await browser.close();
