import type { FittingView } from '@kevro/contract';
import { Application, expect, openPage, test } from './harness';

/** A newcomer: every click and every key that they press is counted. */
function newcomer(page: Awaited<ReturnType<typeof openPage>>['page']) {
  const count = { clicks: 0, keys: 0 };
  return {
    count,
    async click(
      name: RegExp | string,
      role: 'button' | 'link' | 'checkbox' | 'radio' | 'textbox' = 'button',
    ) {
      count.clicks++;
      await page
        .getByRole(role, { name, ...(typeof name === 'string' ? { exact: true } : {}) })
        .last()
        .click();
    },
    async clickText(text: string) {
      count.clicks++;
      await page.getByText(text, { exact: true }).click();
    },
    async type(text: string) {
      count.keys += text.length;
      await page.keyboard.type(text);
    },
    async press(...keys: string[]) {
      count.keys += keys.length;
      for (const key of keys) await page.keyboard.press(key);
    },
  };
}

test('the first hour: from an empty shop to a printed build sheet, in at most 20 clicks and 60 keystrokes', async ({
  browser,
}) => {
  const empty = new Application(undefined, '');
  await empty.start();
  const { page, errors } = await openPage(browser, empty);
  const { click, clickText, type, press, count } = newcomer(page);
  const dialog = (name: string) => page.getByRole('dialog', { name });
  try {
    await page.goto('/');
    await clickText('Tennis');
    await click('Start the first fitting');

    // A player and a frame.
    await dialog('Open a fitting').waitFor();
    await click('New player');
    await expect(dialog('Add a player').getByRole('textbox', { name: 'Name' })).toBeFocused();
    await type('Mia');
    await press('Enter');
    await dialog('Add a player').waitFor({ state: 'detached' });
    await click('New frame');
    await expect(dialog('Add a frame').getByRole('textbox', { name: 'Tag' })).toBeFocused();
    await type('A1');
    await press('Tab');
    await type('Oro');
    await press('Tab');
    await type('X1');
    await press('Enter');
    await dialog('Add a frame').waitFor({ state: 'detached' });
    await click('Open and measure');
    await page.waitForURL(/measure/);

    // What is on it, and two readings.
    await click('Strung', 'checkbox');
    await click('Confirm');
    await click(/^Weight/, 'textbox');
    await type('300');
    await press('Enter');
    await expect(page.getByRole('textbox', { name: /^Balance/ })).toBeFocused();
    await type('32');
    await press('Enter');
    await click('Estimate it from weight and balance');
    await click('Save measurement');
    await page.getByText(/^saved/).waitFor();

    // A target, finished as strung.
    await click(/Aim/, 'link');
    await page.waitForURL(/aim/);
    await page.getByText('Where does the target come from?').waitFor();
    count.clicks++;
    await page.getByText('Finished as').click();
    await click('Strung', 'checkbox');
    await page.getByText('Finished as strung').waitFor();
    await click(/^Weight/, 'textbox');
    await type('322');
    await press('Control+Enter');
    await page.waitForURL(/plan/);

    // The plan with the strings in it, and its sheet on paper.
    await page.getByText('all in tolerance').first().waitFor();
    await press('Control+Enter');
    await page.waitForURL(/build/);
    await page.getByRole('checkbox', { name: 'Weigh the frame' }).waitFor();
    const view = await empty.get<{ rows: { id: string }[] }>('/today');
    const { frames } = await empty.get<FittingView>(`/fittings/${view.rows[0]?.id}`);
    const round = frames[0]?.rounds[0];
    expect(round?.aims[0]?.finish).toMatchObject({ strings: true });
    const plan = round?.plans[0];
    expect(plan?.swaps).toEqual([{ what: 'strings', to: true }]);
    expect(plan?.steps.map(({ kind }) => kind)).toContain('restring');
    // 300 g with some 16 g of strings, and what is put on beside them.
    expect(Math.abs((plan?.specs.massG ?? 0) - 322)).toBeLessThanOrEqual(1.5);
    await click('Print the build sheet');
    await page.emulateMedia({ media: 'print' });
    await page
      .locator('.sheet')
      .getByText('Mia')
      .or(page.locator('.paper-head').getByText('Mia'))
      .first()
      .waitFor();
    await page
      .locator('.sheet')
      .getByText(/strings/i)
      .first()
      .waitFor();
    expect(count.clicks).toBeLessThanOrEqual(20);
    expect(count.keys).toBeLessThanOrEqual(60);
    expect(errors).toEqual([]);
  } finally {
    await page.context().close();
    await empty.remove();
  }
});
