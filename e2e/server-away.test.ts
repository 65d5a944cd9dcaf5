import type { FittingView } from '@kevro/contract';
import {
  type Application,
  button,
  dialog,
  expect,
  field,
  openPage,
  page,
  shop,
  test,
  until,
} from './harness';
import { key, makeFitting, post } from './made';
import { put, readings, round } from './on-the-page';

/** A server that was killed is back within this, ms. */
const LONG_MS = 60_000;

// What a fitter does while the server is away is kept on the device, and stored once when it is back.

const kept = () => page.getByRole('button', { name: /kept on this device/ });
const toSettle = () => page.getByRole('button', { name: /to settle/ });
const away = () => page.context().setOffline(true);
const back = () => page.context().setOffline(false);
const line = async (label: RegExp, value: string): Promise<void> => {
  await field(label).fill(value);
  await field(label).press('Enter');
};

test.describe('readings', () => {
  test.use({ ownProcess: true });
  test('that are typed while the server is dead are stored once when it is back, in their order', async () => {
    await page.goto('/frames/ot-301/measure');
    await line(/^Weight/, '272.4');
    await expect.poll(async () => (await readings('ot-301')).length).toBe(1);
    await (shop as Application).kill();
    await page.getByText(/No word from the server/).waitFor();
    await line(/^Balance/, '33.3');
    // A hand takes a second for the next one. A message may be on its way for a part of that, by which its time is late.
    await page.waitForTimeout(1000);
    await line(/^Weight/, '272.6');
    await page.waitForTimeout(1000);
    await line(/^Swing weight/, '268');
    await expect(kept()).toHaveText('3 kept on this device');
    // They count at once, as they will when they are stored.
    for (const name of ['Weight', 'Balance', 'Swing weight'])
      await page.getByRole('group', { name, exact: true }).getByText('±').waitFor();
    await kept().click();
    await expect(dialog().getByRole('listitem')).toHaveText([
      /^OT-301: Balance 33\.30 cm/,
      /^OT-301: Weight 272\.6\d* g/,
      /^OT-301: Swing weight 268/,
    ]);
    await page.keyboard.press('Escape');
    await (shop as Application).start();
    const backAt = new Date().toISOString();
    await expect
      .poll(async () => (await readings('ot-301')).map((r) => r.value), { timeout: LONG_MS })
      .toEqual([272.4, 33.3, 272.6, 268]);
    await kept().waitFor({ state: 'detached' });
    // When it was read, and not when it arrived.
    const times = (await readings('ot-301')).map(({ takenAt }) => takenAt);
    expect(times).toEqual(times.toSorted());
    for (const takenAt of times) expect(takenAt < backAt).toBe(true);
    await button('Save measurement').click();
    await expect.poll(() => readings('ot-301')).toEqual([]);
  });
});

test.describe('a page', () => {
  test.use({ ownProcess: true });
  test('opens without its server, as it was read last, and goes on', async ({ browser }) => {
    const { fitting, frame } = await makeFitting(shop);
    await post(shop, `/fittings/${fitting.id}/programmes`, { key: key(), frameId: frame.id, name: 'climb' });
    const play = `/fittings/${fitting.id}/play`;
    const { page: tab, errors } = await openPage(browser, shop, { serviceWorkers: 'allow' });
    await tab.goto(play);
    await tab.getByText(/No sessions yet/).waitFor();
    await tab.goto('/fittings/f-odo/build');
    await tab.getByRole('checkbox', { checked: false }).first().waitFor();
    await tab.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    // Everything is on the device once the files of the page are.
    await until(() =>
      tab.evaluate(async () => {
        const names = (await caches.keys()).filter((name) => name.includes('precache'));
        const files = await Promise.all(
          names.map(async (name) => (await (await caches.open(name)).keys()).length),
        );
        return files.some((count) => count > 50) && navigator.serviceWorker.controller !== null;
      }),
    );
    const before = await shop.get<FittingView>('/fittings/f-odo');
    await (shop as Application).kill();
    await tab.reload();
    const ticks = tab.getByRole('checkbox', { checked: false });
    const open = await ticks
      .first()
      .waitFor()
      .then(() => ticks.count());
    await tab.getByText(/Kevro does not answer\. Shown as of/).waitFor();
    await ticks.first().click();
    await expect(ticks).toHaveCount(open - 1);
    // It is still there after another look, without a server.
    await tab.reload();
    await expect(ticks).toHaveCount(open - 1);
    await tab.goto(play);
    await tab.getByText(/No sessions yet/).waitFor();
    await tab.keyboard.press('n');
    const form = tab.getByRole('dialog');
    const choose = (group: string, answer: string): Promise<void> =>
      form.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer, exact: true }).check();
    await choose('Energy left at the end', 'enough');
    // What is missing is said here: nobody else would until the server is back.
    await form.getByRole('button', { name: 'Note it' }).click();
    await form.getByText('Required.').first().waitFor();
    await choose('Arm', 'fine');
    await form.getByRole('button', { name: 'Note it' }).click();
    await form.waitFor({ state: 'detached' });
    await tab.getByRole('button', { name: '2 kept on this device' }).waitFor();
    await (shop as Application).start();
    const last = ({ frames }: FittingView) => frames[0]?.rounds.at(-1);
    const stored = async () => [
      last(await shop.get<FittingView>('/fittings/f-odo'))?.marks.length,
      last(await shop.get<FittingView>(`/fittings/${fitting.id}`))?.sessions.length,
    ];
    await expect.poll(stored, { timeout: LONG_MS }).toEqual([(last(before)?.marks.length ?? 0) + 1, 1]);
    await tab.getByText(/Kevro does not answer/).waitFor({ state: 'detached' });
    expect(errors).toEqual([]);
    await tab.context().close();
  });
});

test.describe('what somebody else did meanwhile', () => {
  test('is shown, and settled by the fitter', async () => {
    await page.goto('/fittings/f-odo/build');
    const ticks = page.getByRole('checkbox', { checked: false });
    await ticks.first().waitFor();
    const { plans, state } = await round();
    const plan = plans.find(({ id }) => id === state.planId);
    const [first, second] = (plan?.steps ?? []).filter(
      ({ key }) => (state.steps[key]?.mark ?? 'open') === 'open',
    );
    await away();
    await ticks.nth(0).click();
    await ticks.nth(0).click();
    await expect(kept()).toHaveText('2 kept on this device');
    for (const step of [first, second])
      await shop.send('POST', '/fittings/f-odo/marks', {
        planId: plan?.id,
        step: step?.key,
        mark: 'skipped',
        reason: 'the other bench',
        key: `by-another-${step?.key}`,
      });
    await back();
    await expect(toSettle()).toHaveText('2 to settle', { timeout: LONG_MS });
    const marks = async () => (await round()).state.steps;
    expect([(await marks())[first?.key ?? '']?.mark, (await marks())[second?.key ?? '']?.mark]).toEqual([
      'skipped',
      'skipped',
    ]);
    await toSettle().click();
    await dialog().getByText('Marked skipped elsewhere meanwhile').first().waitFor();
    await dialog()
      .getByRole('button', { name: /^Save anyway/ })
      .first()
      .press('Enter');
    await expect.poll(async () => (await marks())[first?.key ?? '']?.mark).toBe('done');
    await dialog()
      .getByRole('button', { name: /^Leave out/ })
      .press('Enter');
    await dialog().getByText('Nothing waits: everything is saved.').waitFor();
    await page.keyboard.press('Escape');
    expect((await marks())[second?.key ?? '']?.mark).toBe('skipped');
    expect(await toSettle().count()).toBe(0);
  });

  test('to the readings of a frame keeps what was typed here out of others', async () => {
    await page.goto('/frames/ot-301/measure');
    await line(/^Weight/, '272.4');
    await expect.poll(async () => (await readings('ot-301')).length).toBe(1);
    const capture = await shop.get<{ id: string }>('/frames/ot-301/capture');
    await away();
    await line(/^Balance/, '33.3');
    await kept().waitFor();
    await shop.send('POST', '/frames/ot-301/capture/drop', { captureId: capture.id });
    await back();
    await toSettle().waitFor({ timeout: LONG_MS });
    expect(await readings('ot-301')).toEqual([]);
    await toSettle().click();
    await dialog().getByText('These readings changed elsewhere').waitFor();
    await dialog()
      .getByRole('button', { name: /^Save anyway/ })
      .click();
    await expect.poll(async () => (await readings('ot-301')).map((r) => r.value)).toEqual([33.3]);
  });
});

test('what a device keeps of the shop is gone once it is signed out', async () => {
  await page.goto('/fittings/f-odo/build');
  await page.getByRole('checkbox').first().waitFor();
  const held = () =>
    page.evaluate(
      () =>
        new Promise<number>((done) => {
          const opening = indexedDB.open('kevro');
          opening.onsuccess = () => {
            const counting = opening.result.transaction('answers').objectStore('answers').count();
            counting.onsuccess = () => done(counting.result);
          };
        }),
    );
  await expect.poll(held).toBeGreaterThan(2);
  await put('/passphrase', { passphrase: 'a lantern by the court' });
  await page.goto('/players');
  await page.waitForURL(/sign-in/);
  await expect.poll(held).toBeLessThanOrEqual(1);
});
