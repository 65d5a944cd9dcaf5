import type { CaptureRecord, FittingView, Instrument, Measurement, RoundView } from '@kevro/contract';
import type { Locator, Page } from '@playwright/test';
import { dialog, expect, page, press, shop, still } from './harness';

// What the tests of several stations ask of the page that is open, and of what stands behind it.

export const fittingId = (): string => /fittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
export const view = (): Promise<FittingView> => shop.get(`/fittings/${fittingId()}`);
/** The round that is worked on. */
export async function round(): Promise<RoundView> {
  const { frames } = await view();
  return frames[0]?.rounds.at(-1) as RoundView;
}
export const startOf = async (): Promise<Measurement | undefined> => {
  const { measurements, startId } = await round();
  return measurements.find(({ id }) => id === startId);
};

/** The plan is laid out on the rail. */
export const laidOut = async (on: Page = page): Promise<void> => {
  await on.locator('.hold').first().waitFor();
  await on.getByText('Calculating…').waitFor({ state: 'detached' });
};
/** A weight that can be moved: a strip across the tip stays in the middle. */
export const MOVES = '.hold:not([aria-label^="Tip"])';

/** A form takes the focus to its first field when it stands: what is typed before that goes there. */
export const formReady = async (): Promise<void> => {
  await dialog().waitFor();
  await still(page);
};

export const readings = async (frame: string) =>
  (await shop.get<CaptureRecord>(`/frames/${frame}/capture`)).readings;
export const instrument = async (id: string) =>
  (await shop.get<Instrument[]>('/instruments')).find((i) => i.id === id) as Instrument;
export const put = (path: string, body: unknown) => shop.send('PUT', path, body);

/** Opens a form by its button and keys alone: the focus goes into it, and it is named. */
export async function openedByKeys(opener: Locator): Promise<void> {
  await opener.focus();
  await press('Enter');
  await dialog().waitFor();
  await expect
    .poll(() => page.evaluate(() => document.activeElement?.closest('[role=dialog]') !== null))
    .toBe(true);
  expect(
    await dialog().evaluate(
      (el) => document.getElementById(el.getAttribute('aria-labelledby') ?? '')?.textContent,
    ),
  ).toMatch(/\w/);
}
/** Closes it by Escape: the focus goes back to its button. */
export async function closedByKeys(opener: Locator): Promise<void> {
  // Where a list of choices has dropped down, the first one closes that.
  await expect
    .poll(async () => {
      await press('Escape');
      return dialog().count();
    })
    .toBe(0);
  await expect.poll(() => opener.evaluate((el) => el === document.activeElement)).toBe(true);
}
