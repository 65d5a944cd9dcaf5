import { readFile } from 'node:fs/promises';
import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  HybridBinarizer,
  MultiFormatReader,
  RGBLuminanceSource,
} from '@zxing/library';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { CaptureRecord, FrameRow, Instrument } from '@kevro/contract';
import { Terminal } from '../server/src/instruments/test-terminal';
import { button, dialog, expect, field, page, press, settled, shop, test } from './harness';
import { formReady, readings } from './on-the-page';

// Devices of the bench: a scale at a port, scales and scanners that type, labels that are scanned.

const typed = (frame: string): Promise<CaptureRecord['readings']> => readings(frame);
/** As a device types: a key every five milliseconds, with Enter at the end, however busy the machine of the tests is. */
async function burst(text: string): Promise<void> {
  const browser = await page.context().newCDPSession(page);
  // They come late, as on a busy page.
  const from = Date.now() / 1000 - 0.3;
  const keys = [...text].map((key) => ({ key, text: key, windowsVirtualKeyCode: 0 }));
  const enter = { key: 'Enter', text: '\r', windowsVirtualKeyCode: 13 };
  const sent = [...keys, enter].flatMap((key, at) =>
    (['keyDown', 'keyUp'] as const).map((type) =>
      browser.send('Input.dispatchKeyEvent', { type, ...key, timestamp: from + at * 0.005 }),
    ),
  );
  await Promise.all(sent);
  await browser.detach();
}

test.describe('a scale at a port', () => {
  test('is set up by showing, read with one key, and misses no reading when it is unplugged', async () => {
    const scale = await new Terminal().plug();
    try {
      let grams = 200.1;
      const line = () => `ST,GS,+${grams.toFixed(1).padStart(7)} g\r\n`;
      scale.keepSaying(line);
      await page.goto('/settings/instruments');
      await button('Add an instrument').click();
      await formReady();
      await field('Name').fill('Counter scale');
      await page.getByRole('combobox', { name: 'Port' }).fill(scale.path);
      await press('Tab');
      await page.getByText('Type what is on it').waitFor();
      // A number that is not there is said, not guessed at.
      await field(/It weighs/).fill('150');
      await page.getByText('None of these numbers is what you said is on it.').waitFor();
      await field(/It weighs/).fill('200');
      await page.getByRole('cell', { name: '200.1 g, steady' }).first().waitFor();
      // Something else is put on, and read too.
      grams = 98.6;
      await page.getByRole('cell', { name: '98.6 g, steady' }).first().waitFor();
      await dialog().getByRole('button', { name: 'Add' }).click();
      await dialog().waitFor({ state: 'detached' });
      const list = await shop.get<Instrument[]>('/instruments');
      expect(list.find(({ name }) => name === 'Counter scale')).toMatchObject({
        driver: 'serial',
        link: { path: scale.path, pattern: { decimal: '.', numbers: 1 } },
      });

      grams = 312.4;
      await page.goto('/frames/bd-040/measure');
      await page.getByRole('combobox', { name: 'Weight by' }).press('Enter');
      await page.getByRole('option', { name: 'Counter scale' }).click();
      await page.locator('.digits', { hasText: '312.4' }).waitFor();
      await button(/^Take m$|^Take$/).focus();
      await press('m');
      await expect.poll(async () => (await typed('bd-040')).map(({ value }) => value)).toEqual([312.4]);
      await scale.unplug();
      await page.getByText('Nothing is plugged in at this port.').waitFor();
      expect(await typed('bd-040')).toHaveLength(1);
    } finally {
      await scale.close();
    }
  });
});

test.describe('devices that type', () => {
  test.beforeEach(async () => {
    await page.addInitScript(() => localStorage.setItem('kevro-typing-devices', 'true'));
  });

  test('a scale’s number is read as what is being read, and goes into no half-typed field', async () => {
    await page.goto('/frames/bd-040/measure');
    await settled(page);
    await burst('312.4 g');
    await expect.poll(async () => (await typed('bd-040')).map(({ value }) => value)).toEqual([312.4]);
    await press('ArrowDown');
    const balance = page.locator('.rows .row input').nth(1);
    await balance.fill('3');
    await balance.focus();
    await burst('31.95');
    await expect
      .poll(async () => (await typed('bd-040')).map(({ quantity, value }) => [quantity, value]))
      .toEqual([
        ['massG', 312.4],
        ['balanceCm', 31.95],
      ]);
    await expect(balance).toHaveValue('3');
  });

  test('a frame’s tag opens the frame from anywhere, and answers which frame in a form', async () => {
    await page.goto('/players');
    await settled(page);
    // In the middle of typing: what was typed stays.
    await field(/^Find/).fill('mor');
    await burst('bd-040');
    await page.waitForURL('**/frames/bd-040');
    await burst('NO-999');
    await page.getByText('A device typed “NO-999”, and no frame or part has that label.').waitFor();
    await page.goto('/match');
    await settled(page);
    await burst('OT-014');
    await page.locator('.v-chip', { hasText: 'OT-014' }).waitFor();
  });

  test('can be switched off', async () => {
    await page.goto('/players');
    await settled(page);
    await press('?');
    await page.getByLabel('Scales and scanners that type').uncheck();
    await button('Close').click();
    await dialog().waitFor({ state: 'detached' });
    await page.locator('h1').first().click();
    // What comes as quickly as from a device is a person's: each key does what it does, and u goes on through the units.
    const units = page.getByTitle('Switch units (u)');
    const before = await units.textContent();
    await burst('4u4');
    await expect(units).not.toHaveText(before ?? '');
    expect(page.url()).toContain('/players');
  });
});

/** What a general reader of codes finds in a picture. */
async function decoded(png: Buffer, format: BarcodeFormat): Promise<string> {
  const { width, height, data } = await page.evaluate(async (base64) => {
    const picture = await createImageBitmap(await (await fetch(`data:image/png;base64,${base64}`)).blob());
    const canvas = new OffscreenCanvas(picture.width, picture.height);
    const context = canvas.getContext('2d');
    context?.drawImage(picture, 0, 0);
    const pixels = context?.getImageData(0, 0, picture.width, picture.height).data ?? [];
    const grey: number[] = [];
    for (let at = 0; at < pixels.length; at += 4) grey.push(pixels[at] ?? 255);
    return { width: picture.width, height: picture.height, data: grey };
  }, png.toString('base64'));
  const source = new RGBLuminanceSource(Uint8ClampedArray.from(data), width, height);
  const hints = new Map<DecodeHintType, unknown>([
    [DecodeHintType.POSSIBLE_FORMATS, [format]],
    [DecodeHintType.TRY_HARDER, true],
  ]);
  const reader = new MultiFormatReader();
  return reader.decode(new BinaryBitmap(new HybridBinarizer(source)), hints).getText();
}

test.describe('labels', () => {
  test('are read by a camera and a scanner, and lead to the frame', async () => {
    await page.goto('/frames/bd-040');
    await page.getByRole('link', { name: 'Label' }).click();
    const label = page.getByRole('img', { name: /^Label BD-040/ });
    await label.waitFor();
    // As near as a camera is held.
    await label.evaluate((drawn: HTMLImageElement) => {
      drawn.style.zoom = '3';
      return drawn.decode();
    });
    const picture = await label.screenshot();
    expect(await decoded(picture, BarcodeFormat.CODE_128)).toBe('BD-040');
    const address = await decoded(picture, BarcodeFormat.QR_CODE);
    expect(new URL(address).pathname).toBe('/tag/BD-040');
    const text = await label.getAttribute('alt');
    const { rows } = await shop.get<{ rows: FrameRow[] }>('/frames?tag=bd-040');
    expect(text).toContain(rows[0]?.newest?.specs.massG.toFixed(1));
    await page.goto(new URL(address).pathname);
    await page.waitForURL('**/frames/bd-040');
    await page.goto('/tag/NO-999');
    await page.getByText('No frame has the tag NO-999.').waitFor();
  });

  test('are a PDF at true scale, from the place where the sheet is still whole', async () => {
    await page.goto('/labels?frames=bd-040,ot-014');
    await page.getByRole('img', { name: /^Label OT-014/ }).waitFor();
    await field(/used up/).fill('23');
    await page.getByText('2 labels on 2 pages').waitFor();
    const download = page.waitForEvent('download');
    await button('Save labels as PDF').click();
    const file = await (await download).path();
    const pdf = await getDocument({ data: new Uint8Array(await readFile(file)) }).promise;
    expect(pdf.numPages).toBe(2);
    const mm = (points: number): number => (points / 72) * 25.4;
    const [, , wide = 0, high = 0] = (await pdf.getPage(1)).view;
    expect(mm(wide)).toBeCloseTo(210, 1);
    expect(mm(high)).toBeCloseTo(297, 1);
    const placeOf = async (number: number, words: string): Promise<[number, number]> => {
      const { items } = await (await pdf.getPage(number)).getTextContent();
      const found = items.find((item) => 'str' in item && item.str === words);
      const at = found && 'transform' in found ? (found.transform as number[]) : [];
      return [mm(at[4] ?? NaN), 297 - mm(at[5] ?? NaN)];
    };
    // The last place of the first sheet, and the first of the second: 3 × 8 labels of 70 × 37 mm.
    const [x, y] = await placeOf(1, 'BD-040');
    expect(x).toBeCloseTo(140 + 2, 0);
    expect(y).toBeGreaterThan(0.5 + 7 * 37);
    expect(y).toBeLessThan(0.5 + 7 * 37 + 12);
    const [left, top] = await placeOf(2, 'OT-014');
    expect(left).toBeCloseTo(2, 0);
    expect(top).toBeLessThan(12.5);
  });

  test('are printed of parts too, which scanned lead to their row', async () => {
    await page.goto('/stock');
    await page.getByRole('link', { name: 'Print labels' }).click();
    const label = page.locator('.label').first();
    await label.waitFor();
    const address = new URL(await decoded(await label.screenshot(), BarcodeFormat.QR_CODE));
    const id = address.searchParams.get('part') ?? '';
    await page.goto(`${address.pathname}${address.search}`);
    await expect(page.locator(`[data-row="${id}"] :focus`)).toHaveCount(1);
  });
});
