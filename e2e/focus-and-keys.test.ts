import type { Page } from '@playwright/test';
import type { FittingView, PartRow } from '@kevro/contract';
import { button, dialog, expect, page, press, settled, shop, test } from './harness';
import { MOVES, closedByKeys, laidOut, openedByKeys } from './on-the-page';
import { makeFitting } from './made';

// By finger, by mouse and by keys alone.
/** What has the focus, as it is called. */
const focused = (on: Page = page): Promise<string> =>
  on.evaluate(() => {
    const at = document.activeElement;
    if (!at || at === document.body) return 'the page';
    return (at.getAttribute('aria-label') ?? at.textContent).replace(/\s+/g, ' ').trim();
  });

test.describe('the focus', () => {
  // Into forms with drafts it goes in their tests.
  for (const [path, ...names] of [
    ['/', 'Open a fitting', 'keys ?'],
    ['/fittings/f-ilka/plan', 'Close fitting', 'Change fitting'],
    ['/fittings/f-ilka/measure', 'Type all in one line'],
    ['/fittings/f-liv/play', 'Different step…', 'End…'],
  ] as const)
    test(`on ${path} goes into what opens by "${names.join('" and "')}", which is named, and back to it`, async () => {
      await page.goto(path);
      await settled(page);
      for (const name of names) {
        const opener = page.getByRole('button', { name, exact: true }).first();
        await openedByKeys(opener);
        await closedByKeys(opener);
      }
    });

  test('goes to what was added, to the heading after a change of station, and past the menu by the skip link', async () => {
    await page.goto('/stock');
    await button('Add a part').click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('brass strip, thin');
    const values: [RegExp, string][] = [
      [/^Width/, '6'],
      [/^Weight per cm/, '0.1'],
    ];
    for (const [label, value] of values) await dialog().getByRole('textbox', { name: label }).fill(value);
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await dialog().waitFor({ state: 'detached' });
    const parts = await shop.get<PartRow[]>('/parts');
    const added = parts.find(({ part }) => part.name === 'brass strip, thin');
    expect(added).toBeDefined();
    await expect.poll(() => focused()).toContain('brass strip, thin');

    await page.goto('/fittings/f-ilka/measure');
    await settled(page);
    await page.getByRole('link', { name: /^Compare/ }).click();
    await expect.poll(() => focused()).toBe('Compare OT-014');
    await press('3');
    await expect.poll(() => focused()).toBe('Aim for OT-014');
    await page.goto('/players');
    await settled(page);
    await press('Tab');
    expect(await focused()).toBe('Skip to the page');
    expect(await page.locator('.skip').evaluate((el) => el.getBoundingClientRect().top >= 0)).toBe(true);
    await press('Enter');
    await expect.poll(() => focused()).toBe('Players');
  });
});

test.describe('keys', () => {
  test('Enter goes from reading to reading, and from the last to the button that stores', async () => {
    const { fitting } = await makeFitting(shop);
    await page.goto(`/fittings/${fitting.id}/measure`);
    await page.getByRole('textbox', { name: /^Weight/ }).focus();
    for (const [value, next] of [
      ['10.05 oz', /^Balance/],
      ['33.8', /^Swing weight/],
      ['307', /^Twist weight/],
      ['14.1', /^Left\/right/],
    ] as const) {
      await page.keyboard.type(value);
      await press('Enter');
      const field = page.getByRole('textbox', { name: next });
      await expect.poll(() => field.evaluate((el) => el === document.activeElement)).toBe(true);
    }
    await page.keyboard.type('0.4');
    await press('Enter');
    // A rating is not on the way: few shops read one.
    await expect.poll(() => focused()).toBe('Save measurement');
  });

  test('arrows move between the choices of a row, Space belongs to the button that has the focus', async () => {
    await page.goto('/fittings/f-tobin/aim');
    await settled(page);
    const chosen = () =>
      page
        .getByRole('radio', { checked: true })
        .first()
        .evaluate((el) => (el as HTMLInputElement).value);
    await page.getByRole('radio', { checked: true }).first().focus();
    const first = await chosen();
    await press('ArrowRight');
    expect(await chosen()).not.toBe(first);
    await press('ArrowLeft');
    expect(await chosen()).toBe(first);

    // At a pendulum Space starts and stops the watch; on a focused button it presses that.
    await page.goto('/fittings/f-tobin/measure');
    await settled(page);
    const change = page.getByRole('button', { name: /^(change|close)$/ }).first();
    const open = () => change.getAttribute('aria-expanded');
    const means = page.getByRole('combobox', { name: / by$/ });
    await page.getByRole('textbox', { name: /^Swing weight/ }).click();
    await means.press('Enter');
    await page.getByRole('option', { name: 'pendulum and stopwatch' }).click();
    await button(/^Start/).waitFor();
    await change.focus();
    const before = await open();
    await press('Space');
    await expect.poll(open).not.toBe(before);
    expect(await button(/^Start/).count()).toBe(1);
  });

  test('single ones can be switched off; z and Ctrl+Z undo', async () => {
    await page.goto('/fittings/f-ilka/plan');
    await laidOut();
    const pieces = () => page.locator('.lanes').textContent();
    const planned = await pieces();
    await page.locator(MOVES).first().focus();
    for (const undo of ['z', 'Control+z']) {
      await press('ArrowLeft');
      await expect.poll(pieces).not.toBe(planned);
      await press(undo);
      await expect.poll(pieces).toBe(planned);
    }
    await press('?');
    await expect.poll(() => focused()).toBe('Close');
    await dialog().getByRole('checkbox', { name: 'Single-key shortcuts' }).click();
    await dialog().getByRole('button', { name: 'Close' }).click();
    await dialog().waitFor({ state: 'detached' });
    await page.locator(MOVES).first().focus();
    const units = await button(/g · cm/).textContent();
    await press('u', '2');
    expect(await button(/g · cm/).textContent()).toBe(units);
    expect(page.url()).toContain('/plan');
    await press('ArrowLeft');
    await expect.poll(pieces).not.toBe(planned);
    await press('z');
    expect(await pieces()).not.toBe(planned);
    await press('Control+z');
    await expect.poll(pieces).toBe(planned);
    expect((await shop.get<FittingView>('/fittings/f-ilka')).frames[0]?.rounds[0]?.plans).toEqual([]);
  });
});
