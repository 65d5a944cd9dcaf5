import type { CaptureRecord, FittingView } from '@kevro/contract';
import { button, dialog, expect, field, page, settled, shop, test } from './harness';
import { closedByKeys, formReady, openedByKeys } from './on-the-page';
import { makeFitting } from './made';

// What is typed stays until it is stored or dropped on purpose; what is stored can be put right.

test.describe('a form over the page', () => {
  for (const [path, opener, name] of [
    ['/players', 'Add a player', 'Name'],
    ['/frames', 'Add a frame', 'Model'],
    ['/setups', 'Add a setup', 'Whose frame'],
    ['/stock', 'Add a part', 'Name'],
    ['/settings/instruments', 'Add an instrument', 'Name'],
    ['/frames/ot-014', 'New strings', 'Mains'],
    ['/frames/ot-014', 'Duplicate', 'Its tag'],
    ['/frames/ot-014', 'Change', 'Model'],
    ['/frames/ot-014', 'Correct…', 'Why'],
    ['/fittings/f-ilka/build', 'Close fitting', 'Note'],
    ['/fittings/f-liv/play', 'Add session', 'In your own words'],
    ['/fittings/f-liv/play', 'Discard…', 'Why'],
    ['/fittings/f-pim/play', 'Another programme', 'Note'],
    ['/players/liv-harrowdene', 'Remind me on', 'Note'],
  ] as const)
    test(`on ${path}, "${opener}", has the focus and gives it back; keeps what is typed over Escape, a click outside and a reload`, async () => {
      await page.goto(path);
      const by = button(new RegExp(`^${opener}`)).first();
      const open = async (): Promise<void> => {
        await by.click();
        await formReady();
      };
      const box = () => dialog().getByRole('textbox', { name, exact: true });
      await by.waitFor();
      await settled(page);
      await openedByKeys(by);
      await formReady();
      await box().fill('typed and not stored');
      await closedByKeys(by);
      await open();
      expect(await box().inputValue()).toBe('typed and not stored');
      await page.mouse.click(4, 4);
      await dialog().waitFor({ state: 'detached' });
      await page.reload();
      await open();
      expect(await box().inputValue()).toBe('typed and not stored');
      await dialog().getByRole('button', { name: 'Start afresh' }).click();
      expect(await box().inputValue()).not.toBe('typed and not stored');
    });

  test('keeps it over Back, and asks where it may not be kept', async () => {
    await page.goto('/stock');
    await page.getByRole('link', { name: 'Players' }).click();
    await button('Add a player').click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('Halla Brandt');
    // Back closes the form, or leaves the page with it: either way what was typed is there again.
    await page.goBack();
    await dialog().waitFor({ state: 'detached' });
    await page.goto('/players');
    await button('Add a player').click();
    expect(await dialog().getByRole('textbox', { name: 'Name' }).inputValue()).toBe('Halla Brandt');
    // What is noted of an arm is private: it is kept on no device.
    await button('Write it').click();
    await dialog()
      .getByRole('textbox', { name: /^Arm history/ })
      .fill('left wrist');
    await page.keyboard.press('Escape');
    await dialog().getByRole('button', { name: 'Close anyway' }).waitFor();
    expect(
      await dialog()
        .getByRole('textbox', { name: /^Arm history/ })
        .inputValue(),
    ).toBe('left wrist');
    expect(await page.evaluate(() => JSON.stringify({ ...localStorage }))).not.toContain('left wrist');
  });
});

test.describe('a plan and its steps', () => {
  test('a plan changed by hand over a stored one keeps its draft', async () => {
    await page.goto('/fittings/f-odo/plan');
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    const pieces = () => page.locator('.pieces').textContent();
    const more = button('One strip or dab more');
    // The ways may come after a piece was chosen: the plan is then laid out once more, and nothing of it is chosen.
    await expect
      .poll(async () => {
        await page.locator('.piece').first().click();
        return more.isEnabled();
      })
      .toBe(true);
    const stored = await pieces();
    await more.click();
    await expect.poll(pieces).not.toBe(stored);
    const changed = await pieces();
    page.on('dialog', (asked) => void asked.accept());
    await page.reload();
    await page.getByText('Kept from before, not stored yet').waitFor();
    expect(await pieces()).toBe(changed);
    await button('Start afresh').click();
    await expect.poll(pieces).toBe(stored);
  });

  test('a tick is shown when it is stored: on a slow server later, without a server as kept on the device', async () => {
    await page.goto('/fittings/f-odo/build');
    const ticks = page.getByRole('checkbox', { checked: false });
    await ticks.first().waitFor();
    const shown = () => page.getByRole('checkbox', { checked: true }).count();
    const marked = async (): Promise<number> => {
      const view = await shop.get<FittingView>('/fittings/f-odo');
      return Object.keys(view.frames[0]?.rounds.at(-1)?.state.steps ?? {}).length;
    };
    const before = await shown();
    let release = (): void => undefined;
    const held = new Promise<void>((done) => (release = done));
    await page.route('**/marks', async (route) => {
      await held;
      await route.continue();
    });
    await ticks.nth(0).click();
    await ticks.nth(1).click();
    await page.getByText('storing').first().waitFor();
    expect([await shown(), await marked()]).toEqual([before, before]);
    release();
    await expect.poll(async () => [await shown(), await marked()]).toEqual([before + 2, before + 2]);
    await page.unrouteAll({ behavior: 'wait' });
    await page.route('**/marks', (route) => route.abort());
    if ((await ticks.count()) === 0) throw new Error('no step is left to tick');
    await ticks.first().click();
    await button('1 kept on this device').waitFor();
    expect([await shown(), await marked()]).toEqual([before + 3, before + 2]);
  });
});

test.describe('readings', () => {
  test('too few are said where they are stored, and all can be begun anew', async () => {
    const { frame, fitting } = await makeFitting(shop);
    await page.goto(`/fittings/${fitting.id}/measure`);
    await field(/^Weight/).fill('321');
    await field(/^Weight/).press('Enter');
    await field(/^Swing weight/).fill('31');
    await button('Save measurement').click();
    const aside = page.getByRole('complementary');
    await aside
      .getByRole('alert')
      .filter({ hasText: /balance/i })
      .first()
      .waitFor();
    await button('Start over').click();
    await dialog().getByRole('button', { name: 'Start over' }).click();
    await dialog().waitFor({ state: 'detached' });
    await expect
      .poll(async () => (await shop.get<CaptureRecord>(`/frames/${frame.id}/capture`)).readings.length)
      .toBe(0);
    expect(await field(/^Swing weight/).inputValue()).toBe('');
    await page.getByRole('link', { name: /^Go on to/ }).waitFor();
  });
});
