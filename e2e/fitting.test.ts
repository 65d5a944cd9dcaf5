import type { Measurement } from '@kevro/contract';
import { button, dialog, expect, field, page, shop, test } from './harness';
import { round, startOf, view } from './on-the-page';

test.describe('the parts of a plan', () => {
  test('are those it was laid out in; others lay it out anew, and undo brings the old ones back', async () => {
    await page.goto('/fittings/f-odo/plan');
    const pieces = page.locator('.pieces');
    await pieces.getByText('lead tape 9 mm').first().waitFor();
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    await page.getByRole('combobox', { name: 'Materials' }).press('Enter');
    await page.getByRole('option', { name: 'tungsten tape 6 mm' }).click();
    await page.getByRole('option', { name: 'lead tape 9 mm' }).click();
    await page.keyboard.press('Escape');
    await pieces.getByText('tungsten tape 6 mm').first().waitFor();
    // They are the fitting's: on every device, and after a reload.
    await expect.poll(async () => (await view()).parts).toEqual(['tungsten-6', 'silicone']);
    await expect.poll(() => pieces.getByText('lead tape').count()).toBe(0);
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    while ((await pieces.getByText('lead tape 9 mm').count()) === 0) await button('undo').click();
    await page.getByRole('link', { name: 'Today' }).click();
    await page.getByRole('heading', { name: 'Today' }).waitFor();
  });

  test('may be grips: with leave to change them the plan does, and says so on the build sheet', async () => {
    await page.goto('/fittings/f-ilka/aim');
    const { specs } = (await startOf()) as Measurement;
    // As it is without its overgrip, which weighs 5.5 g as usual and lies over the handle.
    await page.getByRole('radio', { name: 'My numbers' }).click();
    await field(/^Weight/).fill(String(specs.massG - 5.5));
    await field(/^Balance/).fill(
      ((specs.massG * specs.balanceCm - 5.5 * 10) / (specs.massG - 5.5)).toFixed(2),
    );
    await field(/^Swing weight/).fill(String(specs.swingWeight));
    await field(/^Twist weight/).fill(String(specs.twistWeight ?? ''));
    await button('Set this aim').click();
    await page
      .getByText(/ (short|over)$/)
      .first()
      .waitFor();
    await page.getByRole('checkbox', { name: 'Allow grip changes' }).check();
    await page.getByText('all in tolerance').waitFor();
    await page.locator('.pieces').getByText('Changed to no overgrip').waitFor();
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    await button('Make the build sheet').click();
    await page.getByRole('checkbox', { name: 'Change the grips' }).waitFor();
    await page.getByRole('complementary').getByText('Then on it: no overgrip.').waitFor();
    expect((await round()).plans.at(-1)?.swaps).toEqual([{ what: 'overgrips', to: 0 }]);
  });
});

test.describe('a build that is measured in its middle', () => {
  const typed = async (purpose: RegExp, values: [RegExp, string][]): Promise<void> => {
    for (const [name, value] of values) await field(name).fill(value);
    await page.getByRole('combobox', { name: 'Purpose' }).press('Enter');
    await page.getByRole('option', { name: purpose }).click();
    await button('Save measurement').click();
    await page.getByRole('link', { name: /^Go on to/ }).waitFor();
  };
  const pieces = async () => {
    await page.getByRole('link', { name: /^Build/ }).click();
    await page.getByText('Cut list').first().waitFor();
    return [
      await page.locator('table caption').locator('..').first().textContent(),
      // The steps with their times; a reading stands beside its own.
      await page
        .locator('.steps > li')
        .evaluateAll((steps) =>
          steps.map((li) => [
            li.querySelector('label')?.textContent,
            li.querySelector('.when')?.textContent,
            (li.querySelector('input[type=checkbox]') as HTMLInputElement).checked,
          ]),
        ),
    ];
  };

  test('keeps its plan, its ticks and its pieces through a trial and a check', async () => {
    await page.goto('/fittings/f-odo/build');
    const before = await pieces();
    const { state, plans } = await round();
    expect(Object.keys(state.steps).length).toBeGreaterThan(2);

    await page.getByRole('link', { name: /^Measure/ }).click();
    const readings: [RegExp, string][] = [
      [/^Weight/, '349'],
      [/^Balance/, '31.8'],
      [/^Swing weight/, '345'],
    ];
    await typed(/^trial/, readings);
    expect(await pieces()).toEqual(before);

    // Ticked faster than they are stored: none is lost.
    const boxes = page.getByRole('checkbox');
    const open: number[] = [];
    for (let i = 0; i < (await boxes.count()); i++) if (!(await boxes.nth(i).isChecked())) open.push(i);
    expect(open.length).toBeGreaterThan(1);
    for (const i of open) await boxes.nth(i).click();
    await page.getByText('All done').waitFor();
    const built = await pieces();
    await page.getByRole('link', { name: /^Measure/ }).click();
    await typed(/^check/, readings);
    expect(await pieces()).toEqual(built);

    const after = await round();
    expect(after.measurements.map(({ purpose }) => purpose)).toEqual(['found', 'trial', 'check']);
    expect(after.state.planId).toBe(state.planId);
    expect(after.plans).toEqual(plans);
    // Today goes on from there.
    await page.getByRole('link', { name: 'Today' }).click();
    await page.getByRole('link', { name: /Odo Pellam.*next: Check/ }).waitFor();
  });

  test('lets the plan lapse where the round is begun anew, keeps it, and lays it out again', async () => {
    await page.goto('/fittings/f-odo/measure');
    await typed(/^as found/, [
      [/^Weight/, '342'],
      [/^Balance/, '31.4'],
      [/^Swing weight/, '333'],
      [/^Twist weight/, '14'],
    ]);
    await page.getByRole('link', { name: /^Plan/ }).click();
    await page.getByText(/^Earlier plans of this round/).click();
    await page.getByText('the round starts from another measurement').waitFor();
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    await button('Use again').click();
    await page.getByText('Pieces (edited)').waitFor();
    await button('Make the build sheet').click();
    await page.getByText('Cut list').first().waitFor();
    const { plans, state } = await round();
    expect(plans).toHaveLength(2);
    expect(state.planId).toBe(plans[1]?.id);
    expect(plans[1]?.placements).toEqual(plans[0]?.placements);
  });
});

test.describe('a fitting', () => {
  test('is closed with how it ended, found among the closed ones, and opened again where it was or with a new round', async () => {
    await page.goto('/fittings/f-sable/build');
    await button('Close fitting').click();
    await dialog().getByRole('textbox', { name: 'Note' }).fill('plays it on Sunday');
    await dialog().getByRole('button', { name: 'Close fitting' }).click();
    await page.locator('header').getByText('handed over').waitFor();
    expect(await page.getByRole('checkbox').first().isDisabled()).toBe(true);
    await page.getByRole('link', { name: 'Today' }).click();
    await page.getByText('Ilka Morrow').waitFor();
    expect(await page.getByText('Sable Renwick').count()).toBe(0);
    await page.getByRole('checkbox', { name: 'Closed ones' }).check();
    await page.getByRole('link', { name: /Sable Renwick.*handed over/ }).click();
    await button('Reopen').click();
    await page.getByText('plays it on Sunday').waitFor();
    await dialog().getByRole('button', { name: 'Reopen' }).click();
    await dialog().waitFor({ state: 'detached' });
    // Where it was: the same round, its plan and its ticks.
    expect((await round()).plans).toHaveLength(1);
    expect((await view()).frames[0]?.rounds).toHaveLength(1);
    await page.getByRole('checkbox').first().click();
    await button('Close fitting').click();
    await dialog()
      .getByText(/DW-034: \d+ bench steps? left/)
      .waitFor();
    await dialog().getByRole('button', { name: 'Close fitting' }).click();
    await dialog().waitFor({ state: 'detached' });
    await button('Reopen').click();
    await dialog().getByRole('checkbox', { name: 'Begin a new round instead' }).check();
    await dialog().getByRole('button', { name: 'Reopen' }).click();
    await page.getByText('round 2, opened again').waitFor();
    const { frames } = await view();
    expect(frames[0]?.rounds.map((r) => [r.number, r.plans.length])).toEqual([
      [1, 1],
      [2, 0],
    ]);
  });

  test('of a set works on one frame at a time, each with its own round', async () => {
    await page.goto('/');
    await button('Open a fitting').click();
    await page.getByRole('combobox', { name: 'Player' }).fill('Ilka');
    await page.getByRole('option', { name: /Ilka Morrow/ }).click();
    const frames = page.getByRole('combobox', { name: 'Frame, or a set' });
    for (const tag of ['OT-014', 'OT-015']) {
      await frames.fill(tag);
      await page.getByRole('option', { name: new RegExp(tag) }).click();
      await frames.fill('');
    }
    await page.keyboard.press('Escape');
    await button('Open and measure').click();
    // The first of them has a fitting of its own already.
    await button('Open another anyway').click();
    const side = page.getByRole('navigation');
    const inHead = (tag: string) => page.locator('header').getByText(tag).filter({ visible: true }).waitFor();
    await side.getByRole('link', { name: 'OT-015' }).click();
    await page.waitForURL(/frame=ot-015/);
    await inHead('OT-015');
    await side.getByRole('link', { name: /^Compare/ }).click();
    await page.waitForURL(/compare\?frame=ot-015/);
    await inHead('OT-015');
    // Also where a button leads on.
    await page.getByRole('link', { name: 'Go on to Aim' }).click();
    await page.waitForURL(/aim\?frame=ot-015/);
    expect((await view()).frames.map(({ frame }) => frame.id)).toEqual(['ot-014', 'ot-015']);
  });

  test('is opened by a typed name: Enter chooses the one that it fits', async () => {
    await page.goto('/');
    await page.getByText('Ilka Morrow').first().waitFor();
    await page.keyboard.press('n');
    await dialog().getByRole('combobox', { name: 'Player' }).fill('juniper');
    await page.keyboard.press('Enter');
    await expect(dialog().getByRole('combobox', { name: 'Player' })).toHaveValue('Juniper Hale');
    await dialog().waitFor();
  });

  test('is opened with anybody of 120 players, found by typing', async () => {
    await Promise.all(
      Array.from({ length: 120 }, (_, i) =>
        shop.send('POST', '/players', { sports: ['padel'], name: `Zed Number ${i}` }),
      ),
    );
    await page.goto('/');
    await button('Open a fitting').click();
    await page.getByRole('combobox', { name: 'Player' }).fill('number 119');
    await page.getByRole('option', { name: 'Zed Number 119' }).click();
    await page.getByRole('combobox', { name: 'Frame, or a set' }).fill('OT-301');
    await page.getByRole('option', { name: /OT-301/ }).click();
    await page.keyboard.press('Escape');
    await button('Open and measure').click();
    await page.waitForURL(/measure/);
    expect((await view()).player.name).toBe('Zed Number 119');
  });
});
