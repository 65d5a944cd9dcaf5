import type { Browser } from '@playwright/test';
import type { FramePage, NewFrame } from '@kevro/contract';
import { outlineArea, settleFrame, type Photo } from '@kevro/core';
import { drawnPhoto, strungFrame } from '../core/test/drawn-photo';
import { button, dialog, expect, openPage, page, shop, test } from './harness';
import { inLight, problemsOf } from './looked-at';

// The outline of a frame, from a photo beside a sheet of paper to the frame's own shape.

const QUILL = { ...strungFrame(), thicknessCm: 2.17 };
const photo = drawnPhoto({ frame: QUILL, tiltDeg: 12, towardDeg: 200 });

/** A photo as a phone sends it: a JPEG. */
async function asFile(browser: Browser, { width, height, data }: Photo) {
  const blank = await browser.newPage();
  try {
    const base64 = await blank.evaluate(
      async ([width, height, data]) => {
        const canvas = document.createElement('canvas');
        Object.assign(canvas, { width, height });
        const bytes = Uint8ClampedArray.from(atob(data), (c) => c.charCodeAt(0));
        canvas.getContext('2d')?.putImageData(new ImageData(bytes, width, height), 0, 0);
        return canvas.toDataURL('image/jpeg', 0.92).replace(/^.*,/, '');
      },
      [width, height, Buffer.from(data).toString('base64')] as const,
    );
    return { name: 'frame.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(base64, 'base64') };
  } finally {
    await blank.close();
  }
}
type File = Awaited<ReturnType<typeof asFile>>;
const give = (file: File): Promise<void> => page.getByLabel('Photo', { exact: true }).setInputFiles(file);
const frameOf = (id: string): Promise<FramePage> => shop.get<FramePage>(`/frames/${id}`);
const valueOf = async (row: string): Promise<number> =>
  parseFloat(
    (await page
      .getByRole('row', { name: new RegExp(`^${row}`) })
      .getByRole('cell')
      .first()
      .textContent()) ?? '',
  );

test('a photo becomes the frame’s own outline, corrected by keys and by hand, with the photo beside it', async ({
  browser,
}) => {
  await inLight(page);
  await page.goto('/frames/bd-040');
  await page.getByRole('link', { name: 'From a photo' }).click();
  await give(await asFile(browser, photo));
  await page.getByRole('row', { name: /^Width, outside/ }).waitFor();
  expect(Math.abs((await valueOf('Width, outside')) - QUILL.widthCm)).toBeLessThan(0.15);
  expect(Math.abs((await valueOf('Area of the bed')) / QUILL.bedCm2 - 1)).toBeLessThan(0.01);
  expect(await problemsOf(page)).toEqual([]);

  // By keys: a step out is a wider head, a step in as much narrower.
  const width = await valueOf('Width, outside');
  const widest = page.getByRole('slider', { name: 'Point 12 of 23' }).first();
  await widest.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => valueOf('Width, outside')).toBeCloseTo(width + 0.4, 0.5);
  await page.keyboard.press('Shift+ArrowDown');
  await expect.poll(() => valueOf('Width, outside')).toBe(width);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('slider', { name: 'Point 13 of 23' }).first()).toBeFocused();
  // By hand, and back.
  const box = await widest.boundingBox();
  if (!box) throw new Error('nowhere');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 25, { steps: 4 });
  expect(await valueOf('Width, outside')).not.toBe(width);
  await page.mouse.move(x, y, { steps: 4 });
  await page.mouse.up();
  expect(Math.abs((await valueOf('Width, outside')) - width)).toBeLessThan(0.15);

  await page.getByLabel('Keep the photo with the outline').check();
  await button('Keep outline').click();
  await page.waitForURL(/\/frames\/bd-040$/);
  await page.getByText(/by its own outline/).waitFor();
  const { frame, outlinePicture } = await frameOf('bd-040');
  const settled = settleFrame(frame.shape);
  expect(Math.abs(2 * settled.head.acrossCm - QUILL.widthCm)).toBeLessThan(0.15);
  expect(Math.abs(outlineArea(settled.bed) / QUILL.bedCm2 - 1)).toBeLessThan(0.01);
  expect(outlinePicture).not.toBeNull();
  // The file that is kept is drawn anew: nothing of the phone's stays in it.
  const kept = await page.request.get(
    (await page.getByRole('link', { name: 'Photo' }).getAttribute('href')) ?? '',
  );
  expect(kept.headers()['content-type']).toBe('image/jpeg');
  expect((await kept.body()).includes('Exif')).toBe(false);
  await button('Remove outline').click();
  await page.getByText('Drawn from its length and head.').waitFor();
  expect((await frameOf('bd-040')).outlinePicture).toBeNull();
});

test('a photo without a sheet is refused with what to do; its corners can be marked by hand', async ({
  browser,
}) => {
  await page.goto('/frames/bd-040/outline');
  await give({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no photo') });
  await page.getByText('This photo can’t be opened here.').waitFor();
  // Grey paper is no white sheet: it is there all the same, and its corners are marked.
  await give(await asFile(browser, drawnPhoto({ frame: QUILL, sheet: null, width: 900, height: 675 })));
  await page.getByText('No sheet of paper is seen.').waitFor();
  await expect(button('Keep outline')).toHaveCount(0);
  await button('Mark the sheet’s corners').click();
  await expect(page.getByRole('button', { name: /^Corner \d of the sheet/ })).toHaveCount(4);
  await button('Another photo').click();
  await give(await asFile(browser, photo));
  await page.getByRole('row', { name: /^Length/ }).waitFor();
  // A corner that is moved makes the length another, until it is back.
  await page.getByLabel(/^Scaled to its length/).uncheck();
  const length = await valueOf('Length');
  const corner = page.getByRole('button', { name: 'Corner 1 of the sheet' });
  await corner.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(() => valueOf('Length')).not.toBe(length);
  await page.getByText(/^Reading the photo/).waitFor({ state: 'detached' });
});

test('a phone sends the photo by a link, and the next frame of the model is offered the outline', async ({
  browser,
}) => {
  const { frame } = await frameOf('bd-040');
  await page.goto('/frames/bd-040/outline');
  await button('With a phone').click();
  await page.getByText('Waiting for the photo').waitFor();
  const { page: phone } = await openPage(browser, shop, { viewport: { width: 390, height: 800 } });
  await phone.goto((await page.getByRole('link', { name: 'here', exact: true }).getAttribute('href')) ?? '');
  await phone.getByText('Lay a sheet of white paper').waitFor();
  await phone.getByLabel('Photo', { exact: true }).setInputFiles(await asFile(browser, photo));
  await phone.getByText('Sent. See the bench').waitFor();
  await phone.context().close();
  await page.getByRole('row', { name: /^Length/ }).waitFor();
  expect(await shop.get('/frames/bd-040/films')).toEqual([]);
  await button('Keep outline').click();
  await page.waitForURL(/\/frames\/bd-040$/);

  // Another of the model, which was there before: on its page.
  const { id: _, archived: __, ...rest } = frame;
  const answer = await shop.send('POST', '/frames', {
    ...rest,
    weights: [],
    tag: 'BD-041',
    key: 'another-quill',
  });
  const twin = (await answer.json()) as FramePage['frame'];
  await page.goto(`/frames/${twin.id}`);
  await button('Take that of BD-040').click();
  await page.getByText('From another frame of this model').waitFor();
  // And one that is new: in its form.
  await page.goto('/frames');
  await button('Add a frame').click();
  await dialog().getByRole('textbox', { name: 'Tag', exact: true }).fill('BD-042');
  await dialog().getByRole('combobox', { name: 'Copy from a known model' }).fill(frame.model);
  await page
    .getByRole('option', { name: new RegExp(frame.model) })
    .first()
    .click();
  await expect(page.getByLabel('With the outline of BD-040')).toBeChecked();
  await dialog().getByRole('button', { name: 'Add', exact: true }).click();
  await dialog().waitFor({ state: 'detached' });
  const { rows } = await shop.get<{ rows: { tag: string; shape: NewFrame['shape'] }[] }>(
    '/frames?tag=BD-042',
  );
  expect(rows[0]?.shape.outline?.from).toBe('model');
});
