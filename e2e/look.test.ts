import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { Browser, Page } from 'playwright-core';
import { Application, launch, openPage, settled, still } from './harness';

/** Nothing is stored here: one application serves all looks. */
const app = new Application(inject('demoShop'));
let browser: Browser;
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

beforeAll(async () => {
  [browser] = await Promise.all([launch(), app.start()]);
});
afterAll(async () => {
  await browser.close();
  await app.remove();
});

const PAGES = [
  '/',
  '/players',
  '/frames',
  '/setups',
  '/stock',
  '/settings',
  '/nothing-here',
  '/frames/ot-014',
  '/frames/kn-041',
  '/frames/hz-003/measure',
  '/settings/instruments',
  '/settings/instruments/machine-back',
  '/settings/instruments/no-such',
  '/fittings/f-ilka/measure',
  '/fittings/f-sable/measure',
  '/fittings/f-barto/plan',
  '/fittings/f-ines/compare',
  '/fittings/f-ilka/compare',
  '/fittings/f-ilka/aim',
  '/fittings/f-ilka/plan',
  '/fittings/f-odo/build',
  '/fittings/f-odo/measure',
  '/fittings/f-odo/plan',
  '/fittings/f-tobin/plan',
];

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await settled(page);
}

/** Texts that are cut off, and anything wider than the window. */
const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    if (document.documentElement.scrollWidth > window.innerWidth) found.push('the page scrolls sideways');
    for (const el of document.querySelectorAll<HTMLElement>(
      'button, a, h1, h2, td, th, b, p, label, .item, .value',
    )) {
      const box = el.getBoundingClientRect();
      if (box.width === 0 || el.closest('.v-field, .v-overlay')) continue;
      const style = getComputedStyle(el);
      const hides = style.overflowX === 'hidden' || style.textOverflow === 'ellipsis';
      if (hides && el.scrollWidth > el.clientWidth + 1) found.push(`cut: ${el.textContent}`);
      if (box.right > window.innerWidth + 1) found.push(`beyond the edge: ${el.textContent}`);
    }
    return found;
  });

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}

describe.each(['light', 'dark'] as const)('in the %s theme', (theme) => {
  it.each(PAGES)('%s passes the accessibility rules of WCAG 2.1 AA, and its words fit', async (path) => {
    const { page, errors } = await openPage(browser, app);
    await page.addInitScript((chosen) => localStorage.setItem('kevro-theme', chosen), theme);
    await open(page, path);
    await page.evaluate(axe);
    const { violations } = await page.evaluate<AxeResult>(
      "axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] })",
    );
    expect(
      violations.map((v) => `${v.id}: ${v.nodes.map((n) => `${n.html} ${n.failureSummary}`).join('\n')}`),
    ).toEqual([]);
    expect(await cutOff(page)).toEqual([]);
    await page.setViewportSize({ width: 1024, height: 768 });
    await still(page);
    expect(await cutOff(page)).toEqual([]);
    expect(errors).toEqual([]);
    await page.context().close();
  });
});

it('fetches nothing from elsewhere', async () => {
  const { page } = await openPage(browser, app);
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(app.url) && !/^(data|blob):/.test(request.url()))
      elsewhere.push(request.url());
  });
  await open(page, '/fittings/f-ilka/plan');
  expect(elsewhere).toEqual([]);
  await page.context().close();
});
