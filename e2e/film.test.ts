import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { CaptureRecord, Measurement } from '@kevro/contract';
import { dyingSwingPeriod } from '@kevro/core';
import { CHROMIUM_ARGS, findChromium } from '../scripts/chromium.mjs';
import { button, dialog, expect, field, openPage, page, shop, test } from './harness';
import { makeFilm, type MadeFilm } from './made-film';
import { swing } from '../core/test/swinging';

// A pendulum and two threads, filmed: from a film whose period is known to a stored measurement.

const PLAIN: MadeFilm = {
  smallPeriod: 1.35,
  startDeg: 9,
  decay: 0.015,
  airDrag: 0.02,
  seconds: 28.5,
  rate: 30,
};
const readings = async (): Promise<CaptureRecord['readings']> =>
  (await shop.get<CaptureRecord>('/frames/bd-040/capture')).readings;
const RAD = Math.PI / 180;

async function atTheBench(way: string, quantity: RegExp): Promise<void> {
  await page.goto('/frames/bd-040/measure');
  await field(/^Weight/).fill('303');
  await field(/^Weight/).press('Enter');
  await field(/^Balance/).fill('31.8');
  await field(/^Balance/).press('Enter');
  await expect.poll(async () => (await readings()).length).toBe(2);
  await button(quantity).click();
  await page.getByRole('combobox', { name: / by$/ }).press('Enter');
  await page.getByRole('option', { name: way }).click();
}
const give = (buffer: Buffer, name = 'film.webm'): Promise<void> =>
  page.getByLabel('Film', { exact: true }).setInputFiles({ name, mimeType: 'video/webm', buffer });

/** The period of small swings behind a filmed reading, against what the film was made with. */
function offBy({ timing }: CaptureRecord['readings'][number], known: number): number {
  if (!timing) throw new Error('not timed');
  const { seconds, swings, amplitudeDeg = 0, endAmplitudeDeg = amplitudeDeg } = timing;
  return dyingSwingPeriod(seconds / swings, amplitudeDeg * RAD, endAmplitudeDeg * RAD) / known - 1;
}

test('a filmed pendulum becomes a swing weight, within 0.05 % of its period on 20 swings', async ({
  browser,
}) => {
  await atTheBench('pendulum, filmed', /^Take Swing weight/);
  // From a hand that shakes a little, with the noise and the compression of a phone.
  await give(await makeFilm(browser, { ...PLAIN, shake: 2 }));
  await page.getByText(/^2\d swings in/).waitFor();
  await page.getByRole('img', { name: 'First picture' }).waitFor();
  await page.getByRole('img', { name: /^Angle over/ }).waitFor();
  await page.getByText(/^Comes to/).waitFor();
  await page.getByLabel('Keep the film with the measurement').check();
  await button('Enter this').click();
  await expect.poll(async () => (await readings()).length).toBe(3);
  const reading = (await readings())[2];
  if (!reading) throw new Error('no reading');
  expect(reading.means).toBe('filmed-swing');
  expect(Math.abs(offBy(reading, 1.35))).toBeLessThan(5e-4);
  await button('Save measurement').click();
  await expect
    .poll(
      async () => (await shop.get<Measurement[]>('/frames/bd-040/measurements'))[0]?.how.swingWeight?.means,
    )
    .toEqual(['filmed-swing']);
  // It was kept by its tick, is seen beside the measurement, and goes when that is wanted.
  await page.goto('/frames/bd-040');
  const film = page.getByRole('link', { name: 'Film', exact: true });
  const file = await page.request.get((await film.getAttribute('href')) ?? '');
  expect(file.headers()['content-type']).toBe('video/webm');
  expect((await file.body()).length).toBeGreaterThan(100_000);
  await button('Remove film').click();
  await film.waitFor({ state: 'detached' });
});

test('filmed threads become a twist weight, in slow motion too', async ({ browser }) => {
  await atTheBench('two threads, filmed', /^Take Twist weight/);
  await page.getByLabel('Slow motion').check();
  await field(/^Filmed at/).fill('120');
  const film = {
    ...PLAIN,
    smallPeriod: 0.9,
    startDeg: 20,
    seconds: 7,
    rate: 120,
    playedAt: 30,
    threads: true,
  };
  await give(await makeFilm(browser, film));
  await page.getByText(/^7 swings in/).waitFor();
  await button('Enter this').click();
  await expect.poll(async () => (await readings()).length).toBe(3);
  const reading = (await readings())[2];
  if (!reading) throw new Error('no reading');
  expect(reading.means).toBe('filmed-twist');
  expect(Math.abs(offBy(reading, 0.9))).toBeLessThan(1e-3);
});

test('a film that cannot be trusted is refused with what to do, and nothing is entered', async ({
  browser,
}) => {
  await atTheBench('pendulum, filmed', /^Take Swing weight/);
  await give(Buffer.from('no film at all'));
  await page.getByText('This film can’t be opened here.').waitFor();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await dialog().waitFor({ state: 'detached' });
  await give(await makeFilm(browser, { ...PLAIN, seconds: 4 }));
  await page.getByText('Fewer than six swings are in the film.').waitFor();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await dialog().waitFor({ state: 'detached' });
  await give(await makeFilm(browser, { ...PLAIN, seconds: 5, dark: true, noise: 4 }));
  await page.getByText('Too dark').waitFor();
  await expect(button('Enter this')).toHaveCount(0);
  expect(await readings()).toHaveLength(2);
});

test('is read where the browser decodes for no script, as without HTTPS, by playing it', async ({
  browser,
}) => {
  await page.addInitScript(() => Object.defineProperty(window, 'VideoDecoder', { value: undefined }));
  await atTheBench('pendulum, filmed', /^Take Swing weight/);
  await give(await makeFilm(browser, { ...PLAIN, smallPeriod: 0.9, seconds: 6.8 }));
  await page.getByText(/^7 swings in/).waitFor();
  await button('Enter this').click();
  await expect.poll(async () => (await readings()).length).toBe(3);
  const reading = (await readings())[2];
  if (!reading) throw new Error('no reading');
  expect(Math.abs(offBy(reading, 0.9))).toBeLessThan(2e-3);
});

test('comes from a phone by a link, and is read as soon as it is there', async ({ browser }) => {
  await atTheBench('pendulum, filmed', /^Take Swing weight/);
  await button('With a phone').click();
  await page.getByText('Waiting for the film').waitFor();
  const { page: phone } = await openPage(browser, shop, { viewport: { width: 390, height: 800 } });
  await phone.goto((await dialog().getByRole('link', { name: 'here' }).getAttribute('href')) ?? '');
  await phone.getByText('Film 20 swings').waitFor();
  await phone
    .getByLabel('Film', { exact: true })
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no film') });
  await phone.getByText('This is no film.').waitFor();
  const film = {
    name: 'swing.webm',
    mimeType: 'video/webm',
    buffer: await makeFilm(browser, { ...PLAIN, smallPeriod: 0.9, seconds: 6.8 }),
  };
  await phone.getByLabel('Film', { exact: true }).setInputFiles(film);
  await phone.getByText('Sent. See the bench').waitFor();
  await page.getByText(/^7 swings in/).waitFor();
  expect(await shop.get('/frames/bd-040/films')).toEqual([]);
  await button('Enter this').click();
  await expect.poll(async () => (await readings()).length).toBe(3);
  await phone.context().close();
});

/** A film as Chromium's own camera plays it: pictures of 4:2:0, one after the other. */
function cameraFilm(of: MadeFilm): Buffer {
  const [width, height] = [320, 240];
  const count = Math.round(of.seconds * of.rate);
  const angles = swing(
    of,
    Array.from({ length: count }, (_, i) => i / of.rate),
  );
  const head = Buffer.from(`YUV4MPEG2 W${width} H${height} F${of.rate}:1 Ip A1:1 C420\n`);
  const colour = Buffer.alloc((width * height) / 2, 128);
  const parts = [head];
  for (const { angle } of angles) {
    const grey = Buffer.alloc(width * height, 190);
    const [ax, ay] = [Math.sin(angle), Math.cos(angle)];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [dx, dy] = [x - 160, y - 30];
        const [u, v] = [dx * ax + dy * ay, dx * ay - dy * ax];
        const share = Math.min(1, Math.max(0, Math.min(4 - Math.abs(v), u + 5, 180 - u) + 0.5));
        if (share > 0) grey[y * width + x] = 190 - 140 * share;
      }
    parts.push(Buffer.from('FRAME\n'), grey, colour);
  }
  return Buffer.concat(parts);
}

test('is filmed live by a camera of the device', async () => {
  const file = join(test.info().outputDir, '..', 'camera.y4m');
  // A whole number of swings, so that it goes on when the film begins again.
  const of = { smallPeriod: 1.0, startDeg: 9, decay: 0, seconds: 12, rate: 30 };
  const { period } = { period: 1.0 * (1 + (9 * RAD) ** 2 / 16) };
  writeFileSync(
    file,
    cameraFilm({ ...of, seconds: 12 * period, rate: 30 / period })
      .toString('latin1')
      .replace(/F[\d.]+:1/, 'F30:1'),
    'latin1',
  );
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: [
      ...CHROMIUM_ARGS,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${file}`,
    ],
  });
  try {
    const { page: bench } = await openPage(browser, shop, { permissions: ['camera'] });
    await bench.goto('/frames/bd-040/measure');
    await bench.getByRole('button', { name: /^Take Swing weight/ }).click();
    await bench.getByRole('combobox', { name: 'Swing weight by' }).press('Enter');
    await bench.getByRole('option', { name: 'pendulum, filmed' }).click();
    await bench.getByRole('button', { name: 'Film here' }).click();
    await bench.getByRole('button', { name: 'Start' }).click();
    await bench.getByText(/^9 s filmed/).waitFor();
    await bench.getByRole('button', { name: 'Stop' }).click();
    await bench.getByText(/swings in/).waitFor();
    await bench.getByRole('button', { name: 'Enter this' }).click();
    await expect.poll(async () => (await readings()).length).toBe(1);
    const [reading] = await readings();
    if (!reading) throw new Error('no reading');
    // This camera plays each picture of its film after the last, and falls behind on a busy machine: the swing that it shows is then truly slower.
    expect(offBy(reading, 1.0 / period)).toBeGreaterThan(-0.01);
    expect(offBy(reading, 1.0 / period)).toBeLessThan(0.1);
  } finally {
    await browser.close();
  }
});
