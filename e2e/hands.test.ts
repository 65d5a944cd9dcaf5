import type { Page } from '@playwright/test';
import type { FittingView, PartRow } from '@kevro/contract';
import { type Shop, expect, openPage, settled, test, withShop } from './harness';
import { makeFitting } from './made';

// By finger, by mouse and by keys alone.
let shop: Shop;
let page: Page;
withShop((fresh) => {
  ({ shop, page } = fresh);
});
const button = (name: RegExp | string) => page.getByRole('button', { name });
const dialog = () => page.getByRole('dialog');
const press = async (...keys: string[]): Promise<void> => {
  for (const one of keys) await page.keyboard.press(one);
};
/** What has the focus, as it is called. */
const focused = (on: Page = page): Promise<string> =>
  on.evaluate(() => {
    const at = document.activeElement;
    if (!at || at === document.body) return 'the page';
    return (at.getAttribute('aria-label') ?? at.textContent).replace(/\s+/g, ' ').trim();
  });
const laidOut = async (on: Page = page): Promise<void> => {
  await on.locator('.hold').first().waitFor();
  await on.getByText('working out the ways').waitFor({ state: 'detached' });
};

/** A weight that can be moved: a strip across the tip stays in the middle. */
const MOVES = '.hold:not([aria-label^="Tip"])';

test.describe('a weight', () => {
  for (const [width, height] of [
    [390, 844],
    [820, 1180],
  ] as const)
    test(`is dragged by finger at ${width} × ${height}: the page does not scroll, and one drag is one undo`, async ({
      browser,
    }) => {
      const opened = await openPage(browser, shop, { viewport: { width, height }, hasTouch: true });
      const on = opened.page;
      await on.goto('/fittings/f-ilka/plan');
      await laidOut(on);
      const pieces = () => on.locator('.pieces').textContent();
      const before = await pieces();
      const hold = on.locator(MOVES).first();
      await hold.scrollIntoViewIfNeeded();
      const scrolled = () =>
        on.evaluate(() =>
          [document.scrollingElement, ...document.querySelectorAll('.content, .content *')]
            .map((el) => `${el?.scrollTop ?? 0} ${el?.scrollLeft ?? 0}`)
            // What stands where it began may come and go.
            .filter((at) => at !== '0 0'),
        );
      const at = await scrolled();
      const box = await hold.boundingBox();
      if (!box) throw new Error('no weight on the rail');
      const cdp = await on.context().newCDPSession(on);
      const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x: number, y: number) =>
        cdp.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] });
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      // A finger that only trembles chooses, and moves nothing.
      await touch('touchStart', x, y);
      await touch('touchMove', x + 2, y + 1);
      await touch('touchEnd', x, y);
      expect(await hold.getAttribute('aria-pressed')).toBe('true');
      expect(await pieces()).toBe(before);
      await touch('touchStart', x, y);
      for (let i = 1; i <= 6; i++) await touch('touchMove', x - 20 * i, y - 6 * i);
      await touch('touchEnd', x - 120, y - 36);
      await expect.poll(pieces).not.toBe(before);
      expect(await scrolled()).toEqual(at);
      await on.getByRole('button', { name: 'undo' }).click();
      await expect.poll(pieces).toBe(before);
      expect(opened.errors).toEqual([]);
      await on.context().close();
    });

  test('is chosen by a click, and all that keys do to it has a button, to the last piece and back', async () => {
    await page.goto('/fittings/f-ilka/plan');
    await laidOut();
    // A millimetre shows where the weight lies before it shows in a number.
    const pieces = async () => [
      await page.locator('.lanes').textContent(),
      await page.locator('.hold').evaluateAll((all) => all.map((one) => one.getAttribute('style'))),
    ];
    const planned = await pieces();
    await page.locator(MOVES).first().click();
    expect(await pieces()).toEqual(planned);
    expect(await page.locator('.piece[aria-pressed=true]').count()).toBe(1);
    const tools = page.getByRole('group', { name: 'Change by hand' });
    const names = await tools
      .getByRole('button')
      .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? one.textContent));
    const fine = names.find((name) => name.includes('1 mm'));
    await tools.getByRole('button', { name: fine ?? '' }).click();
    await expect.poll(pieces).not.toEqual(planned);
    const moved = await pieces();
    await tools.getByRole('button', { name: 'undo' }).click();
    await expect.poll(pieces).toEqual(planned);
    await tools.getByRole('button', { name: 'redo' }).click();
    await expect.poll(pieces).toEqual(moved);
    // Where on the hoop it lies changes what it does, and is one step to undo.
    await page.getByRole('combobox', { name: 'Where on the hoop it lies' }).press('Enter');
    await page.getByRole('option', { name: 'on the outer edge' }).click();
    const outside = page.locator('.v-select', { hasText: 'on the outer edge' });
    await outside.waitFor();
    await tools.getByRole('button', { name: 'undo' }).click();
    await outside.waitFor({ state: 'detached' });
    await expect.poll(pieces).toEqual(moved);
    // Down to nothing, and back.
    while ((await page.locator('.piece').count()) > 0) {
      await page.locator('.piece').first().click();
      const less = tools.getByRole('button', { name: 'One strip or dab less' });
      while (await less.isEnabled()) await less.click();
    }
    await page.getByText('Nothing is put on or taken off.').waitFor();
    await tools.getByRole('button', { name: 'undo' }).click();
    expect(await page.locator('.piece').count()).toBe(1);
    await press('Control+z');
    await expect.poll(() => page.locator('.pieces').textContent()).not.toBe('');
    // The line that is typed whole has a button too.
    await page.goto('/fittings/f-tobin/measure');
    await button('type all in one line').click();
    await dialog().getByRole('textbox').waitFor();
  });
});

test.describe('very long names', () => {
  for (const width of [390, 1280])
    test(`break nothing at ${width} px`, async () => {
      const long = 'Wilhelmina-Alexandrina Featherstonehaugh-Cholmondeley of Brackenmouth upon Loop'.slice(
        0,
        80,
      );
      const { frame, fitting } = await makeFitting(shop, {
        name: long,
        frame: {
          maker: 'Plumbandloopworks'.repeat(4),
          model: 'Tide '.repeat(15).trim(),
          tag: `T${'9'.repeat(35)}${width}`,
        },
      });
      await page.setViewportSize({ width, height: 800 });
      for (const path of [
        '/',
        '/players',
        '/frames',
        `/frames/${frame.id}`,
        `/fittings/${fitting.id}/measure`,
        `/fittings/${fitting.id}/aim`,
      ]) {
        await page.goto(path);
        await settled(page);
        const sideways = () =>
          page.evaluate(() => {
            const beyond = [...document.querySelectorAll('main *, header *')].filter(
              (el) =>
                el.getBoundingClientRect().right > innerWidth + 1 &&
                el.checkVisibility() &&
                !el.closest('svg, .v-field, .who'),
            );
            return [
              document.documentElement.scrollWidth - innerWidth,
              ...beyond.map(
                (el) => `${el.tagName} ${el.className.toString()} ${el.textContent.slice(0, 30)}`,
              ),
            ];
          });
        expect([path, ...(await sideways())]).toEqual([path, 0]);
      }
    });
});

test.describe('the focus', () => {
  for (const [path, name] of [
    ['/players', 'Add a player'],
    ['/frames', 'Add a frame'],
    ['/setups', 'Add a setup'],
    ['/stock', 'Add a part'],
    ['/settings/instruments', 'Add an instrument'],
    ['/frames/ot-014', 'New strings'],
    ['/frames/ot-014', 'Change'],
    ['/', 'Open a fitting'],
    ['/', 'keys ?'],
    ['/fittings/f-ilka/plan', 'close fitting'],
    ['/fittings/f-ilka/plan', 'change this fitting'],
    ['/fittings/f-ilka/measure', 'type all in one line'],
  ] as const)
    test(`on ${path} goes into "${name}", which is named, and back to it`, async () => {
      await page.goto(path);
      await settled(page);
      const opener = page.getByRole('button', { name, exact: true }).first();
      await opener.focus();
      await press('Enter');
      await dialog().waitFor();
      await expect
        .poll(() => page.evaluate(() => document.activeElement?.closest('[role=dialog]') !== null))
        .toBe(true);
      expect(
        await dialog().evaluate(
          (el) => document.getElementById(el.getAttribute('aria-labelledby') ?? '')?.textContent,
        ),
      ).toMatch(/\w/);
      // Where a list of choices has dropped down, the first one closes that.
      await expect
        .poll(async () => {
          await press('Escape');
          return dialog().count();
        })
        .toBe(0);
      await expect.poll(() => opener.evaluate((el) => el === document.activeElement)).toBe(true);
    });

  test('goes to what was added, to the heading after a change of station, and past the menu by the skip link', async () => {
    await page.goto('/stock');
    await button('Add a part').click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('brass strip, thin');
    const values: [RegExp, string][] = [
      [/^Width/, '6'],
      [/^Weight of it/, '0.1'],
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
    await expect.poll(() => focused()).toBe('Store the measurement');
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
    await page.getByRole('option', { name: /pendulum/i }).click();
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
    await dialog().getByRole('checkbox', { name: 'Single keys do something' }).click();
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
