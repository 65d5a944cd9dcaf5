import { describe, expect, it } from 'vitest';
import type { Page } from 'playwright-core';
import type { FittingView, Measurement } from '@kevro/contract';
import { Application, withPages } from './harness';

const app = new Application();
let page: Page;
withPages(app, (opened) => {
  page = opened;
});

const field = (name: RegExp) => page.getByRole('textbox', { name });
const button = (name: RegExp | string) => page.getByRole('button', { name });
const fittingId = (): string => /fittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
const view = (): Promise<FittingView> => app.get(`/fittings/${fittingId()}`);

describe('the job, from a frame to a build sheet', () => {
  it('by mouse', async () => {
    await page.goto('/');
    await button('Open a fitting').click();
    await page.getByRole('combobox', { name: 'Player' }).fill('Wren');
    await page.getByRole('option', { name: /Wren Castellane/ }).click();
    await button('Open and measure').click();

    // Measure: dress first, then the readings; the balance typed in points.
    await button('One overgrip more').click();
    await button('One overgrip less').click();
    await field(/^Weight/).fill('331,5');
    await field(/^Balance/).fill('5 HL');
    await field(/^Swing weight/).fill('322');
    await field(/^Twist weight/).fill('13.8');
    await button('Store the measurement').click();
    await page.getByRole('link', { name: 'Go on to Compare' }).click();
    const measured = (await view()).measurement;
    expect(measured?.specs).toMatchObject({ massG: 331.5, swingWeight: 322, twistWeight: 13.8 });
    // Wren's frame is 68.9 cm long: points count from its own middle.
    expect(measured?.specs.balanceCm).toBeCloseTo(68.9 / 2 - 5 * 0.3175, 9);

    // Compare: the nearest two are set beside; those whose balance is known stand on the rail as ghosts.
    const rows = page.getByRole('complementary').locator('.row');
    await rows.nth(0).click();
    await rows.nth(1).click();
    await expect.poll(async () => (await view()).references.length).toBe(2);
    await page.locator('.ghost').first().waitFor();
    // Numbers of a setup open to show how they came about.
    await page
      .getByRole('button', { name: /^Swing .* of .*: show how/ })
      .first()
      .click();
    await page.getByRole('dialog').getByText('in the dress of this frame').waitFor();
    await button('Close').click();
    await page.getByRole('link', { name: 'Aim from these' }).click();

    // Aim: half of the way to one, then by hand.
    await page.getByRole('radio', { name: 'Part of the way' }).click();
    await page.getByRole('radio', { name: 'By hand' }).click();
    await field(/^Weight/).fill('341');
    await field(/^Balance/).fill('33');
    await field(/^Swing weight/).fill('333');
    await field(/^Twist weight/).fill('14.4');
    await button('Set this aim').click();

    // Plan: the best way stands at once; a weight dragged by hand changes the specs and can be undone.
    await page.getByText('inside the aim').waitFor();
    await page.getByText('working out the ways').waitFor({ state: 'detached' });
    expect(await page.locator('.way').count()).toBeGreaterThanOrEqual(3);
    const swing = page.getByRole('button', { name: /^Swing weight .*show how/ });
    const planned = await swing.textContent();
    const weight = page.locator('.weight .strip').first();
    const box = await weight.boundingBox();
    if (!box) throw new Error('no weight on the rail');
    await page.locator('.piece').first().click();
    const before = await page.locator('.pieces').textContent();
    await button('One piece more').click();
    await button('One piece more').click();
    await expect.poll(() => page.locator('.pieces').textContent()).not.toBe(before);
    await button('undo').click();
    await button('undo').click();
    await expect.poll(() => page.locator('.pieces').textContent()).toBe(before);
    expect(await swing.textContent()).toBe(planned);
    await button('Make the build sheet').click();

    // Build: the cut list stands; a step done stays done after a reload.
    await page.getByText('Cut list').first().waitFor();
    await page.getByRole('checkbox', { name: 'Weigh the frame as it stands' }).check();
    await expect.poll(async () => (await view()).stepsDone).toEqual(['weigh-before']);
    await page.reload();
    await expect
      .poll(() => page.getByRole('checkbox', { name: 'Weigh the frame as it stands' }).isChecked())
      .toBe(true);
    const stored = await view();
    expect(stored.plan?.withinTolerance).toBe(true);
    expect(stored.next).toBe('build');
    // On paper: the sheet, and nothing of the screen around it.
    await page.emulateMedia({ media: 'print' });
    expect(await page.getByRole('heading', { name: 'Build sheet' }).isVisible()).toBe(true);
    expect(await page.getByRole('navigation').isVisible()).toBe(false);
  });

  it('by keyboard alone', async () => {
    const press = (...keys: string[]) =>
      keys.reduce((before, key) => before.then(() => page.keyboard.press(key)), Promise.resolve());
    const type = (text: string) => page.keyboard.type(text);
    /** Tabs on until what has the focus is called so. */
    async function tabTo(name: RegExp, most = 80): Promise<void> {
      for (let i = 0; i < most; i++) {
        await press('Tab');
        const label = await page.evaluate(() => {
          const at = document.activeElement;
          if (!at) return '';
          const labelled = at.id ? document.querySelector(`label[for="${at.id}"]`)?.textContent : '';
          return [at.getAttribute('aria-label'), labelled, at.textContent].filter(Boolean).join(' | ');
        });
        if (name.test(label)) return;
      }
      throw new Error(`nothing called ${String(name)} can be reached with Tab`);
    }

    await page.goto('/');
    await page.getByRole('heading', { name: 'Today' }).waitFor();
    await page.locator('.fittings a').first().waitFor();
    await tabTo(/Open a fitting/);
    await press('Enter');
    await page.getByRole('combobox', { name: 'Player' }).waitFor();
    await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).toBe('INPUT');
    await type('Maren');
    await page.getByRole('option', { name: /Maren Quist/ }).waitFor();
    await press('ArrowDown', 'Enter');
    await tabTo(/Open and measure/);
    await press('Enter');
    await page.waitForURL(/measure/);

    await page.getByRole('textbox', { name: /^Weight/ }).waitFor();
    await tabTo(/^Weight, g/);
    for (const value of ['10.05 oz', '33.8', '307', '14.1', '0.4']) {
      const field = await page.evaluate(() => document.activeElement?.id);
      await type(value);
      await press('Enter');
      // Each one entered, the focus goes on to the next, and from the last to the button that stores.
      await expect.poll(() => page.evaluate(() => document.activeElement?.id)).not.toBe(field);
    }
    await press('Enter');
    await page.getByRole('link', { name: 'Go on to Compare' }).waitFor();
    expect((await view()).measurement?.specs.massG).toBeCloseTo(10.05 * 28.349523125, 9);

    // Out of the field, then by digit to Compare; along the setups with the arrows.
    await tabTo(/Go on to Compare/);
    await press('2');
    await page.waitForURL(/compare/);
    await page.locator('.row').first().waitFor();
    await tabTo(/steps/);
    await press('ArrowDown', 'Enter');
    await expect.poll(async () => (await view()).references.length).toBe(1);
    await press('3');
    await page.waitForURL(/aim/);
    await tabTo(/Part of the way/);
    await press('Enter');
    await tabTo(/Set this aim/);
    await press('Enter');
    await page.waitForURL(/plan/);

    // Plan: choose a weight, nudge it, one piece more, undo all of it.
    await page.locator('.way').nth(2).waitFor();
    await page.getByText('working out the ways').waitFor({ state: 'detached' });
    await tabTo(/ in two halves|, \d+\.\d g$/);
    const text = () => page.locator('.lanes').textContent();
    const start = await text();
    await press('-');
    await expect.poll(text).not.toBe(start);
    await press('z');
    await expect.poll(text).toBe(start);
    await press('ArrowLeft', 'Shift+ArrowLeft');
    await press('z', 'z');
    await expect.poll(text).toBe(start);
    await tabTo(/Make the build sheet/);
    await press('Enter');
    await page.waitForURL(/build/);
    await tabTo(/Weigh the frame/);
    await press('Space');
    await expect.poll(async () => (await view()).stepsDone).toEqual(['weigh-before']);
  });

  it('drags a weight along the hoop', async () => {
    await page.goto('/fittings/f-ilka/plan');
    await page.getByText('inside the aim').waitFor();
    await page.getByText('working out the ways').waitFor({ state: 'detached' });
    const weight = page.locator('.weight').first();
    const box = await weight.locator('.strip').first().boundingBox();
    const twist = page.getByRole('button', { name: /^Twist weight .*show how/ });
    const before = await twist.textContent();
    if (!box) throw new Error('no weight on the rail');
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x - 90, box.y - 5, { steps: 6 });
    await page.mouse.up();
    await expect.poll(() => twist.textContent()).not.toBe(before);
    await page.getByText('Pieces, changed by hand').waitFor();
    // Changed by hand and not stored: a reload keeps it.
    const pieces = await page.locator('.lanes').textContent();
    page.on('dialog', (dialog) => void dialog.accept());
    await page.reload();
    await page.getByText('Pieces, changed by hand').waitFor();
    expect(await page.locator('.lanes').textContent()).toBe(pieces);
  });
});

describe('the materials of a plan', () => {
  it('are those it was laid out in; others lay it out anew, and undo brings the old ones back', async () => {
    await page.goto('/fittings/f-odo/plan');
    const pieces = page.locator('.pieces');
    await pieces.getByText('lead tape 9 mm').first().waitFor();
    await page.getByText('working out the ways').waitFor({ state: 'detached' });
    await page.locator('.materials .v-field').first().click();
    await page.getByRole('option', { name: /tungsten tape 6 mm/ }).click();
    await pieces.getByText('tungsten tape 6 mm').first().waitFor();
    expect(await pieces.getByText('lead tape').count()).toBe(0);
    await button('undo').click();
    await pieces.getByText('lead tape 9 mm').first().waitFor();
    await page.getByRole('link', { name: 'Today' }).click();
    await page.getByRole('heading', { name: 'Today' }).waitFor();
  });
});

describe('bad input', () => {
  it('gets a sentence beside its field and stores nothing', async () => {
    await page.goto('/fittings/f-tobin/measure');
    const stored = () => app.get<Measurement[]>('/frames/vl-207/measurements');
    const before = await stored();
    await field(/^Weight/).fill('3o1');
    await field(/^Balance/).fill('75');
    await field(/^Swing weight/).fill('-3');
    await button('Store the measurement').click();
    await page.getByText('This is not a number.').waitFor();
    await page.getByText('The balance must lie on the frame').waitFor();
    await field(/^Weight/).fill('301');
    await field(/^Balance/).fill('33');
    await field(/^Swing weight/).fill('150');
    await page.getByText('This swing weight cannot go with this weight and balance').waitFor();
    await field(/^Weight/).fill('-301');
    await page.getByText('A weight must be more than zero.').waitFor();
    await button('Store the measurement').click();
    expect(await stored()).toEqual(before);
  });

  it('keeps what was typed over a reload, asks before leaving, and follows the units', async () => {
    await page.goto('/fittings/f-tobin/measure');
    await field(/^Weight/).fill('300');
    page.on('dialog', (dialog) => void dialog.accept());
    await page.reload();
    expect(await field(/^Weight/).inputValue()).toBe('300');
    await page.getByRole('button', { name: /g · cm/ }).click();
    await page.getByRole('button', { name: /g · points/ }).click();
    await expect.poll(() => field(/^Weight/).inputValue()).toMatch(/^10\.58/);
    // Also where the units were changed while the station was away.
    await page.evaluate(() => localStorage.setItem('kevro-units', '0'));
    await page.reload();
    await expect.poll(async () => Number(await field(/^Weight/).inputValue())).toBeCloseTo(300, 1);
    await page.getByRole('link', { name: 'Players' }).click();
    await page.getByRole('heading', { name: 'Leave without storing?' }).waitFor();
    await button('Stay').click();
    expect(page.url()).toContain('measure');
    await page.getByRole('link', { name: 'Players' }).click();
    await button('Leave').click();
    await page.waitForURL(/players/);
  });
});

describe('a power cut', () => {
  it('loses nothing that was stored', async () => {
    await page.goto('/fittings/f-tobin/aim');
    await page.getByRole('radio', { name: 'By hand' }).click();
    await field(/^Weight/).fill('309');
    await button('Set this aim').click();
    await page.waitForURL(/plan/);
    const before = await view();
    expect(before.aim?.target.massG?.value).toBe(309);
    await app.kill();
    // What cannot be done is said, and works again once the server is back.
    await page.getByRole('link', { name: 'Players' }).click();
    await page.getByText('server does not answer').first().waitFor();
    await app.start();
    await page.getByRole('link', { name: 'Players' }).click();
    await page.getByText('Ilka Morrow').waitFor();
    expect(await app.get<FittingView>('/fittings/f-tobin')).toEqual(before);
  });
});
