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
  await browser.close();
  await stop(child);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
