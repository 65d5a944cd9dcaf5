import { readFile } from 'node:fs/promises';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Shop as ShopSettings } from '@kevro/contract';
import { button, expect, page, settled, shop, test } from './harness';
import { makeFitting, post, setAim } from './made';

// What is printed, and what words, days and units are said in.
const text = () => page.locator('main').innerText();

test.describe('on paper', () => {
  test('the build sheet has player, frame, dates, setup and drawing, done steps marked, rows unbroken', async () => {
    await page.goto('/fittings/f-odo/build');
    await settled(page);
    await page.getByText('from the setup of').waitFor({ state: 'attached' });
    await page.emulateMedia({ media: 'print' });
    const sheet = page.locator('.sheet');
    const said = await sheet.innerText();
    for (const part of [
      'Measured 20 October 2026',
      'Planned',
      'from the setup of Kesh Adariel',
      'lead tape 9 mm',
    ])
      expect(said).toContain(part);
    expect(await sheet.locator('svg').first().isVisible()).toBe(true);
    const done = sheet.locator('li', { hasText: '(done ' });
    expect(await done.count()).toBeGreaterThan(0);
    for (const one of await done.all()) expect(await one.locator('.box').textContent()).toBe('✓');
    const breaks = await sheet
      .locator('tr, li')
      .evaluateAll((all) => all.map((el) => getComputedStyle(el).breakInside));
    expect(new Set(breaks)).toEqual(new Set(['avoid']));
    expect(await page.locator('.paper-head').innerText()).toContain('TV-112');
  });

  test('the build sheet and the card are PDF files too, and say what the print says', async () => {
    const saved = async (name: string): Promise<string> => {
      const [download] = await Promise.all([page.waitForEvent('download'), button(name).click()]);
      const bytes = new Uint8Array(await readFile(await download.path()));
      const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
      const pages = Array.from({ length: pdf.numPages }, async (_, i) => {
        const { items } = await (await pdf.getPage(i + 1)).getTextContent();
        return items.map((item) => ('str' in item ? item.str : '')).join('');
      });
      const text = (await Promise.all(pages)).join('');
      await pdf.destroy();
      return text.replaceAll(/\s+/g, '');
    };
    const squeezed = (text: string): string => text.replaceAll(/\s+/g, '');
    await page.goto('/fittings/f-odo/build');
    await settled(page);
    await page.getByText('from the setup of').waitFor({ state: 'attached' });
    const sheet = await saved('The build sheet as PDF');
    await page.emulateMedia({ media: 'print' });
    for (const row of await page.locator('.sheet td, .sheet li > b').allInnerTexts())
      expect(sheet).toContain(squeezed(row));
    expect(sheet).toContain('Plumb&Loop');
    await page.emulateMedia({ media: 'screen' });
    await page.goto('/frames/ot-014/card');
    await settled(page);
    const card = await saved('The card as PDF');
    for (const cell of await page.locator('.card td').allInnerTexts()) expect(card).toContain(squeezed(cell));
  });
});

test.describe('words, days and units', () => {
  test('say dress in the words of the sport, and no word of the code', async () => {
    for (const path of [
      '/frames/kn-041',
      '/fittings/f-barto/measure',
      '/fittings/f-sable/build',
      '/setups',
      '/settings/instruments',
    ]) {
      await page.goto(path);
      await settled(page);
      const said = await text();
      if (!path.startsWith('/set')) expect(said).not.toMatch(/unstrung/);
      expect(said).not.toMatch(
        /stand-in|undefined|NaN|\b1 (places|strips|steps|readings|frames|overgrips)\b/,
      );
    }
  });

  test('say the year where it is another, days in the shop’s zone, in one language', async () => {
    const { frame, measurement } = await makeFitting(shop);
    // Where it is another day than here, whatever the hour.
    const zone = new Date().getUTCHours() >= 10 ? 'Pacific/Kiritimati' : 'Pacific/Pago_Pago';
    const { demo: _, begun: __, ...settings } = await shop.get<ShopSettings>('/shop');
    expect((await shop.send('PUT', '/shop', { ...settings, timeZone: zone })).status).toBe(200);
    await post(shop, `/frames/${frame.id}/stringings`, {
      strungOn: '2024-03-09',
      mains: 'Corda Lisa',
      mainsKg: 24,
      crossesKg: 23,
      unit: 'kg',
    });
    await page.goto(`/frames/${frame.id}`);
    await settled(page);
    // The day on which it was measured: midnight in the shop may pass meanwhile.
    const taken = new Date(measurement.takenAt);
    const today = taken.toLocaleDateString('en-GB', { timeZone: zone, day: 'numeric', month: 'short' });
    const said = await text();
    expect(said).toContain('9 Mar 2024');
    expect(said).toContain(today);
    expect(said).not.toContain(
      `${today} ${taken.toLocaleDateString('en-GB', { timeZone: zone, year: 'numeric' })}`,
    );
  });

  test('a table saved for a spreadsheet opens there with its accents', async () => {
    await post(shop, '/players', { name: 'Zoë Ångström', sports: ['tennis'] });
    await page.goto('/players');
    await button(/^Export/).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page
        .getByRole('dialog')
        .getByRole('button', { name: /CSV|Save|Export/ })
        .last()
        .click(),
    ]);
    const bytes = await readFile(await download.path());
    expect([...bytes.subarray(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    expect(bytes.toString('utf8')).toContain('Zoë Ångström');
  });

  test('follow the chosen units in tolerances, misses and judgements, with the decimals that matter', async () => {
    const made = await makeFitting(shop);
    await setAim(shop, made, {
      massG: { value: 420, tolerance: 1 },
      balanceCm: { value: 25, tolerance: 0.2 },
    });
    await page.addInitScript(() => localStorage.setItem('kevro-units', '2'));
    await page.goto(`/fittings/${made.fitting.id}/plan`);
    await settled(page);
    await page.getByText('Calculating…').waitFor({ state: 'detached' });
    const unit = (await button(/·/).first().textContent()) ?? '';
    expect(unit).toContain('oz');
    const misses = () => page.getByRole('complementary').innerText();
    await expect.poll(misses).toMatch(/\d (oz|in) (short|over)/);
    expect(await misses()).not.toMatch(/\d (g|cm|mm) (short|over)\b/);
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await settled(page);
    // One gram is 0.035 oz.
    const close = page.getByText(/^within ±0\.0[34]\d* oz/).first();
    await close.click();
    const tolerance = page.getByRole('textbox', { name: /^within ±, oz/ }).first();
    expect(Number(await tolerance.inputValue())).toBeCloseTo(1 / 28.349523125, 2);
    // Half a gram and a fiftieth of a twist weight are a step in badminton.
    await page.addInitScript(() => localStorage.setItem('kevro-units', '0'));
    await page.goto('/fittings/f-ines/compare');
    await settled(page);
    const values = (await page.locator('.lanes').innerText()).match(/\d+\.\d+/g) ?? [];
    expect(values.some((value) => /\.\d\d$/.test(value))).toBe(true);
  });
});
