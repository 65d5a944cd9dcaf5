import type { FittingView, Measurement } from '@kevro/contract';
import { type Application, button, expect, field, page, shop, test } from './harness';
import { round, view } from './on-the-page';

test.describe('a page that may store nothing in the browser', () => {
  test('works all the same', async () => {
    await page.addInitScript(() => {
      for (const name of ['localStorage', 'sessionStorage']) {
        Object.defineProperty(window, name, {
          get() {
            throw new DOMException('denied', 'SecurityError');
          },
        });
      }
    });
    await page.goto('/fittings/f-ilka/plan');
    await page.getByText('all in tolerance').waitFor();
    await page.getByRole('button', { name: /g · cm/ }).click();
    await page.getByRole('button', { name: /g · points/ }).waitFor();
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    await button('Make the build sheet').click();
    await page.getByText('Cut list').first().waitFor();
    await page.getByRole('link', { name: /^Measure/ }).click();
    await field(/^Weight/).fill('327');
    await field(/^Weight/).press('Enter');
    await page.getByRole('group', { name: 'Weight', exact: true }).getByText('±').waitFor();
  });
});

test.describe('bad input', () => {
  test('gets a sentence beside its field and stores nothing', async () => {
    await page.goto('/fittings/f-tobin/measure');
    const stored = () => shop.get<Measurement[]>('/frames/vl-207/measurements');
    const before = await stored();
    await field(/^Weight/).fill('3o1');
    await field(/^Balance/).fill('75');
    await field(/^Swing weight/).fill('-3');
    await button('Save measurement').click();
    await page.getByText('This is not a number.').waitFor();
    await page.getByText('The balance point must be on the frame').waitFor();
    await field(/^Weight/).fill('301');
    await field(/^Balance/).fill('33');
    await field(/^Swing weight/).fill('150');
    await page.getByText('This swing weight cannot go with this weight and balance').waitFor();
    await field(/^Weight/).fill('-301');
    await page.getByText('A weight must be more than zero.').waitFor();
    await button('Save measurement').click();
    expect(await stored()).toEqual(before);
  });

  test('keeps what was typed over a reload, asks before leaving, and follows the units', async () => {
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
    await page.getByRole('heading', { name: 'Leave without saving?' }).waitFor();
    await button('Stay').click();
    expect(page.url()).toContain('measure');
    await page.getByRole('link', { name: 'Players' }).click();
    await button('Leave').click();
    await page.waitForURL(/players/);
  });
});

test.describe('a server that is killed', () => {
  test.use({ ownProcess: true });
  test('loses nothing that was stored, and is the same when it is back', async () => {
    await page.goto('/fittings/f-tobin/aim');
    await page.getByRole('radio', { name: 'My numbers' }).click();
    await field(/^Weight/).fill('309');
    await button('Set this aim').click();
    await page.waitForURL(/plan/);
    const before = await view();
    expect((await round()).aims.at(-1)?.target.massG?.value).toBe(309);
    await (shop as Application).kill();
    // What cannot be done is said, and works again once the server is back.
    await page.getByRole('link', { name: 'Players' }).click();
    await page.getByText('Can’t reach Kevro').first().waitFor();
    await (shop as Application).start();
    await page.getByRole('link', { name: 'Players' }).click();
    await page.getByText('Ilka Morrow').waitFor();
    expect(await shop.get<FittingView>('/fittings/f-tobin')).toEqual(before);
  });
});
