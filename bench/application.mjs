// How long the application takes to start and a page to be usable, and how much script it loads first.
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from 'playwright-core';
import { CHROMIUM_ARGS, findChromium } from '../scripts/chromium.mjs';

const root = resolve(import.meta.dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'kevro-bench-'));
const PORT = 4791;
const url = `http://127.0.0.1:${PORT}`;
const RUNS = 5;

const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];
const row = (name, value, unit, aim) =>
  console.log(
    `${name.padEnd(52)} ${value.toFixed(unit === 's' ? 2 : 0).padStart(7)} ${unit.padEnd(3)} aim ${String(aim).padStart(4)} ${unit.padEnd(3)} ${(value / aim).toFixed(2)} of the aim`,
  );

async function start() {
  const began = performance.now();
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: {
      ...process.env,
      PORT: String(PORT),
      KEVRO_DATA: join(folder, 'data'),
      KEVRO_SHOP_FILE: join(root, 'demo/shop.json'),
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  for (;;) {
    const ready = await fetch(`${url}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ready) return { child, seconds: (performance.now() - began) / 1000 };
    await new Promise((again) => setTimeout(again, 10));
  }
}
async function stop(child) {
  const gone = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  await gone;
}

async function usable(browser, path, selector) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  // A shop of its own has no tour.
  await context.addInitScript(() => localStorage.setItem('kevro-tour', 'done'));
  const page = await context.newPage();
  const scripts = [];
  page.on('response', (response) => {
    if (response.url().endsWith('.js')) scripts.push(response.body().catch(() => Buffer.alloc(0)));
  });
  const began = performance.now();
  await page.goto(url + path);
  await page.locator(selector).first().waitFor();
  const seconds = (performance.now() - began) / 1000;
  const bodies = await Promise.all(scripts);
  await context.close();
  return { seconds, kilobytes: bodies.reduce((sum, body) => sum + gzipSync(body).length, 0) / 1000 };
}

/** A weight is dragged over 200 moves, one a frame: the work of each move (events, plan, drawing), and the frames that came late. */
async function dragging(browser) {
  const MOVES = 200;
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${url}/fittings/f-ilka/plan`);
  await page.locator('.pieces .piece').first().waitFor();
  await page.getByText('Calculating…').waitFor({ state: 'detached' });
  await page.waitForTimeout(1000);
  const hold = await page.locator('.hold').first().boundingBox();
  await page.mouse.move(hold.x + hold.width / 2, hold.y + hold.height / 2);
  await page.mouse.down();
  const { work, late } = await page.evaluate(
    async ({ moves, x, y }) => {
      const held = document.querySelector('.hold');
      const frame = () => new Promise((done) => requestAnimationFrame(done));
      const spent = [];
      const starts = [];
      await frame();
      for (let i = 0; i < moves; i++) {
        // Asked for before the move, so that it runs first in the next frame, and after, so that it runs last.
        let began = 0;
        requestAnimationFrame((at) => {
          starts.push(at);
          began = performance.now();
        });
        const sent = performance.now();
        const to = { clientX: x - 140 * Math.sin(i / 30), clientY: y + 30 * Math.sin(i / 17) };
        held.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, ...to }));
        const events = performance.now() - sent;
        await frame();
        // Whatever the move changed is laid out now.
        void held.getBoundingClientRect().top;
        spent.push(events + performance.now() - began);
      }
      const gaps = starts.slice(1).map((at, i) => at - starts[i]);
      return { work: spent, late: gaps.filter((gap) => gap > 25).length };
    },
    { moves: MOVES, x: hold.x + hold.width / 2, y: hold.y + hold.height / 2 },
  );
  const sorted = work.toSorted((a, b) => a - b);
  row('dragging: work of one move, 95th percentile', sorted[Math.floor(0.95 * (MOVES - 1))], 'ms', 8);
  console.log(`dragging: ${late} of ${MOVES} frames came late (aim 0)`);
  const after = await page.evaluate(async () => {
    const said = () => document.querySelector('[aria-label="How sure"]')?.textContent;
    const before = said();
    const held = document.querySelector('.hold');
    const began = performance.now();
    held.dispatchEvent(new PointerEvent('pointerup', { bubbles: true, pointerId: 1 }));
    while (said() === before && performance.now() - began < 2000)
      await new Promise((done) => requestAnimationFrame(done));
    return performance.now() - began;
  });
  await page.mouse.up();
  row('plan judged anew after letting go', after, 'ms', 150);
}

try {
  const first = await start();
  await stop(first.child);
  const seconds = [];
  for (let i = 0; i < RUNS; i++) {
    const again = await start();
    seconds.push(again.seconds);
    await stop(again.child);
  }
  console.log(
    `first start with the demo shop ${first.seconds.toFixed(2)} s; second start ${(median(seconds) / first.seconds).toFixed(2)} of it`,
  );
  row('second start of the application (median of 5)', median(seconds), 's', 3);

  const { child } = await start();
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: CHROMIUM_ARGS,
  });
  await usable(browser, '/', '.fittings a');
  for (const [name, path, selector] of [
    ['Today usable, nothing cached (median of 5)', '/', '.fittings a'],
    ['Measure usable, nothing cached (median of 5)', '/fittings/f-ilka/measure', '.lane button.big'],
    ['Plan: rail and lanes usable, nothing cached (median)', '/fittings/f-ilka/plan', '.lane button.big'],
  ]) {
    const runs = [];
    for (let i = 0; i < RUNS; i++) runs.push(await usable(browser, path, selector));
    row(name, median(runs.map((r) => r.seconds)), 's', 1.5);
    if (path === '/') row('initial JavaScript, compressed', runs[0].kilobytes, 'kB', 260);
  }
  await dragging(browser);
  await browser.close();
  await stop(child);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
