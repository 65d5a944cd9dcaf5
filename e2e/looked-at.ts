import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';
import { still } from './harness';

// What a page must be: readable by a machine that judges contrast and names, whole at three widths, with targets for a finger and a ring for keys.

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Texts that are cut off, and anything wider than the window. */
const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    if (document.documentElement.scrollWidth > window.innerWidth) found.push('the page scrolls sideways');
    for (const el of document.querySelectorAll<HTMLElement>(
      'button, a, h1, h2, td, th, b, p, label, legend, .item, .value, .v-field-label',
    )) {
      const box = el.getBoundingClientRect();
      if (box.width <= 1 || (el.closest('.v-field, .v-overlay') && !el.matches('.v-field-label'))) continue;
      if (!el.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
      const style = getComputedStyle(el);
      const hides = style.overflowX === 'hidden' || style.textOverflow === 'ellipsis';
      if (hides && el.scrollWidth > el.clientWidth + 1) found.push(`cut: ${el.textContent}`);
      if (box.right > window.innerWidth + 1) found.push(`beyond the edge: ${el.textContent}`);
    }
    return found;
  });

/**
 * Targets under a size, in px. What is pressed is the control with its label; a link within a sentence is as high as its line
 * (WCAG 2.2, 2.5.8: targets in a sentence are excepted), and what is only shown to who hears the page is no target.
 */
const tooSmall = (page: Page, least: number): Promise<string[]> =>
  page.evaluate((size) => {
    const found: string[] = [];
    for (const el of document.querySelectorAll<HTMLElement>(
      'a[href], button, input:not([type=hidden]), textarea, summary, [role=button], [role=combobox], [tabindex="0"]',
    )) {
      if (!el.checkVisibility({ visibilityProperty: true, opacityProperty: false })) continue;
      const whole = el.closest<HTMLElement>('.v-field, label, .v-selection-control, .v-slider') ?? el;
      const { width, height, bottom } = whole.getBoundingClientRect();
      if (width <= 1 || height <= 1 || bottom <= 0) continue;
      const inSentence =
        el.matches('p a') &&
        (el.closest('p')?.textContent.trim().length ?? 0) > el.textContent.trim().length + 4;
      if (inSentence) continue;
      // Half a pixel is rounding.
      if (width < size - 0.5 || height < size - 0.5) {
        const what = el.getAttribute('aria-label') ?? whole.textContent.trim().slice(0, 40);
        found.push(
          `${Math.round(width)} by ${Math.round(height)}: ${el.tagName.toLowerCase()}.${el.className} ${what}`,
        );
      }
    }
    return found;
  }, least);

/** Controls that show no ring around them when keys bring the focus there. */
async function withoutRing(page: Page): Promise<string[]> {
  await page.keyboard.press('Tab');
  return page.evaluate(() => {
    const rings = (el: HTMLElement): boolean => {
      const { outlineStyle, outlineWidth, outlineColor, boxShadow } = getComputedStyle(el);
      const outlined =
        outlineStyle !== 'none' && parseFloat(outlineWidth) >= 2 && !outlineColor.endsWith(', 0)');
      return outlined || /0px 0px 0px [2-9]px/.test(boxShadow);
    };
    const found: string[] = [];
    for (const el of document.querySelectorAll<HTMLElement>(
      'a[href], button, input, textarea, summary, [tabindex="0"]',
    )) {
      if (!el.checkVisibility({ visibilityProperty: true }) || (el as HTMLButtonElement).disabled) continue;
      el.focus();
      if (document.activeElement !== el) continue;
      const around = [
        el,
        el.parentElement,
        el.closest<HTMLElement>('.v-field, .v-selection-control, label, .v-slider'),
      ];
      const thumb = el.querySelector<HTMLElement>('.v-slider-thumb__surface');
      if (![...around, thumb].some((one) => one && rings(one)))
        found.push(
          `${el.tagName.toLowerCase()}.${el.className} ${el.getAttribute('aria-label') ?? el.textContent.slice(0, 40)}`,
        );
    }
    return found;
  });
}

interface AxeResult {
  violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
}
async function violations(page: Page, only: string): Promise<string[]> {
  const found = await page.evaluate<AxeResult>(`axe.run(document, ${only})`);
  return found.violations.map(
    (v) => `${v.id}: ${v.nodes.map((n) => `${n.html} ${n.failureSummary}`).join('\n')}`,
  );
}

/** Nobody reads what is right: to describe that too takes longer than to look for what is wrong. */
const ONLY_WRONG = "resultTypes: ['violations']";
/** What is heard is what is written, too: a rule that axe leaves off unless it is asked for (WCAG 2.1, 2.5.3). */
const RULES = `{ ${ONLY_WRONG}, runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'], rules: { 'label-content-name-mismatch': { enabled: true } } }`;
const CONTRAST = `{ ${ONLY_WRONG}, runOnly: { type: 'rule', values: ['color-contrast'] } }`;

/** All that is wrong with the page that is open, in both themes and at three widths; its theme must follow the system. */
export async function problemsOf(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  const found = await violations(page, RULES);
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.locator('.v-application.v-theme--dark').waitFor();
  await still(page);
  found.push(...(await violations(page, CONTRAST)));
  for (const [width, height, least] of [
    [1280, 800, 24],
    [820, 1180, 44],
    [390, 844, 44],
  ] as const) {
    await page.setViewportSize({ width, height });
    await still(page);
    const seen = [...(await cutOff(page)), ...(await tooSmall(page, least))];
    found.push(...seen.map((one) => `at ${width}: ${one}`));
  }
  found.push(...(await violations(page, RULES)).map((one) => `at 390: ${one}`));
  found.push(...(await withoutRing(page)).map((one) => `no ring: ${one}`));
  return found;
}
/** Texts on paper that are not dark ink on white, and controls that paper has no use for. */
const notForPaper = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const luminance = (colour: string): number => {
      const [r = 0, g = 0, b = 0] = (colour.match(/[\d.]+/g) ?? []).map(Number).map((c) => {
        const share = c / 255;
        return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const el = node.parentElement;
      const said = node.textContent?.trim();
      if (
        !said ||
        !el?.checkVisibility({ visibilityProperty: true }) ||
        el.closest('.d-sr-only, style, script')
      )
        continue;
      // WCAG 2.1: the contrast of the ink with white paper.
      const { color, fill } = getComputedStyle(el);
      const contrast = 1.05 / (luminance(el.closest('svg') ? fill : color) + 0.05);
      if (contrast < 4.5) found.push(`${contrast.toFixed(1)}: ${said.slice(0, 40)}`);
    }
    for (const el of document.querySelectorAll('button.v-btn, input, kbd, .skip')) {
      if (el.checkVisibility({ visibilityProperty: true }))
        found.push(`a control: ${el.textContent ?? ''} ${el.className}`);
    }
    const ground = getComputedStyle(document.body).backgroundColor;
    if (ground !== 'rgb(255, 255, 255)') found.push(`ground ${ground}`);
    return found;
  });

/** All that is wrong with the page that is open where it is printed: ink on white, with the shop and the day, and no controls. Its theme is the dark one by then. */
export async function problemsOnPaper(page: Page): Promise<string[]> {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.emulateMedia({ media: 'print' });
  const found = await notForPaper(page);
  const head = await page.locator('.paper-head').innerText();
  if (!/Plumb & Loop/.test(head) || !/\d{1,2} \w+ 20\d\d/.test(head)) found.push(`its head: ${head}`);
  if (!/\w+.* Kevro$/.test(await page.title())) found.push(`its title: ${await page.title()}`);
  return found;
}
/** The theme of a page that is opened next follows the system, which is light. */
export async function inLight(page: Page): Promise<void> {
  await page.emulateMedia({ colorScheme: 'light' });
  await page.addInitScript(() => localStorage.setItem('kevro-theme', 'system'));
}
