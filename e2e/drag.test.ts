import { button, dialog, expect, openPage, page, press, shop, test } from './harness';
import { MOVES, laidOut } from './on-the-page';

// By finger, by mouse and by keys alone.

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
    await page.getByRole('combobox', { name: 'Position on the hoop' }).press('Enter');
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
    await page.getByText('No changes').waitFor();
    await tools.getByRole('button', { name: 'undo' }).click();
    expect(await page.locator('.piece').count()).toBe(1);
    await press('Control+z');
    await expect.poll(() => page.locator('.pieces').textContent()).not.toBe('');
    // The line that is typed whole has a button too.
    await page.goto('/fittings/f-tobin/measure');
    await button('Type all in one line').click();
    await dialog().getByRole('textbox').waitFor();
  });
});
