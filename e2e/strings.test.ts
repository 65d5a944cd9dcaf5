import type { FittingView, FramePage } from '@kevro/contract';
import { button, dialog, expect, field, page, shop, test } from './harness';
import { inLight, problemsOf } from './looked-at';

// Strings: what is in a frame and what is left of it; what they do about a complaint; how others string.

test('new strings say what is left of their tension, a measured one takes its place, and they come due', async () => {
  await inLight(page);
  await page.goto('/frames/bd-040');
  await page.getByRole('button', { name: 'New strings' }).click();
  await field('Mains').first().fill('the blue one');
  await field(/^Mains tension/).fill('24');
  await page.getByRole('combobox', { name: 'Mains are' }).press('Enter');
  await page.getByRole('option', { name: 'polyester' }).click();
  await field('Strung by').fill('Tamsin');
  await page.getByLabel('Date').fill('2026-01-15');
  await dialog().getByRole('button', { name: 'Store' }).click();
  await dialog().waitFor({ state: 'detached' });
  await page.getByText(/^Tension about 1\d.* kg ±.*, estimated\.$/).waitFor();
  await page.getByText(/^Due for new strings: \d+ days in/).waitFor();
  const bed = async () => (await shop.get<FramePage>('/frames/bd-040')).bed;
  expect((await bed())?.stringing).toMatchObject({
    mainsKind: 'polyester',
    crossesKind: 'polyester',
    by: 'Tamsin',
  });

  await button('Enter a measured tension').click();
  // The form has the focus before anything is typed.
  await expect(field(/^Tension/)).toBeFocused();
  await field(/^Tension/).fill('19.5');
  await field('Tester').fill('clamp');
  await page.keyboard.press('Enter');
  await dialog().waitFor({ state: 'detached' });
  await page.getByText(/^Tension 19\.5 kg measured .* \(clamp\)/).waitFor();
  expect((await bed())?.stringing.readings).toHaveLength(1);
  expect(await problemsOf(page)).toEqual([]);
});

test('the shop says when strings are due; Today says where they are', async () => {
  await page.goto('/?find');
  const odo = page.getByRole('listitem').filter({ hasText: 'Odo Pellam' });
  await odo.getByText('due for new strings').waitFor();
  await page.goto('/settings');
  await field(/^After, days/).fill('400');
  const form = page.locator('form.numbers');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect
    .poll(
      async () =>
        (await shop.get<{ sports: { tennis?: { strings?: object } } }>('/shop')).sports.tennis?.strings,
    )
    .toEqual({ days: 400 });
  await page.goto('/');
  await odo.waitFor();
  await expect(odo.getByText('due for new strings')).toHaveCount(0);
});

test('a complaint lists strings beside weight, what costs least first, and loads no sore arm', async () => {
  await page.goto('/fittings/f-ilka/aim');
  await page.getByRole('radio', { name: /^Complaints/ }).check({ force: true });
  const levers = page.getByRole('region', { name: 'What can be done' });
  await page.getByRole('checkbox', { name: /^balls go long/ }).check();
  await expect(levers.getByRole('listitem')).toHaveText([
    /^tighter strings, by 1 to 1.5 kg.*gives up/,
    /^weight: swing weight down/,
  ]);
  await page.getByRole('checkbox', { name: /^sore arm/ }).check();
  await expect(levers.getByText('tighter strings')).toHaveCount(0);
  await expect(levers.getByText(/^looser strings/)).toHaveCount(1);
  await page.getByRole('checkbox', { name: /^the ball gets no bite/ }).waitFor();
  // Paddles have no strings.
  const { frames } = await shop.get<FittingView>('/fittings/f-barto');
  expect(frames[0]?.bed).toBeNull();
  await page.goto('/fittings/f-barto/aim');
  await page.getByRole('radio', { name: /^Complaints/ }).check({ force: true });
  await page.getByRole('checkbox', { name: /^balls go long/ }).waitFor();
  await expect(page.getByRole('checkbox', { name: /^the ball gets no bite/ })).toHaveCount(0);
});

test('Compare shows one’s own strings beside others’, in one unit, with the spread of the library', async () => {
  await page.goto('/fittings/f-ilka/compare');
  await page
    .getByText(/^This frame: 23 kg, polyester \/ nylon\. Tensions of \d+ setups: half of them/)
    .waitFor();
  await page.getByRole('radio', { name: 'Table' }).check({ force: true });
  const row = page.getByRole('row').filter({ hasText: 'Ansel Rook' }).first();
  await expect(row).toContainText(/\d+(\.\d)? kg, /);
});

test('strings first: balls fly long, the next step is tighter strings, and the bench says how they go in', async () => {
  await inLight(page);
  const { frames } = await shop.get<FittingView>('/fittings/f-ilka');
  const roundId = frames[0]?.rounds.at(-1)?.id;
  const played = { energyLeft: 'plenty', arm: 'fine', depth: 'long', playedOn: '2026-11-20' };
  expect(
    (await shop.send('POST', '/fittings/f-ilka/sessions', { key: 'balls fly long', roundId, ...played }))
      .status,
  ).toBe(200);
  await page.goto('/fittings/f-ilka/play');
  // What suits what was felt stands first; its first step is shown before anybody begins it.
  await page.getByText('This is the first step of “Strings first”.').waitFor();
  await button('Another programme…').click();
  await dialog()
    .getByRole('radio', { name: /^Strings first · suits what is known/ })
    .check({ force: true });
  await dialog().getByRole('button', { name: 'Begin it' }).click();
  await dialog().waitFor({ state: 'detached' });
  await expect(page.getByRole('status').filter({ hasText: 'Tighter strings by 1 kg' })).toBeVisible();
  await page.getByText(/^string it: .*24 kg/).waitFor();
  // What it looks at is asked first.
  await button('Add session').click();
  await expect(dialog().getByRole('radiogroup', { name: 'Where balls landed' })).toBeVisible();
  await page.keyboard.press('Escape');
  // Strings are its one lever.
  await expect(button('Different step…')).toHaveCount(0);
  expect(await problemsOf(page)).toEqual([]);
  await button('Make the build sheet for this step').click();
  await page.waitForURL('**/build');
  const step = page.getByRole('listitem').filter({ hasText: 'Put new strings in' });
  await expect(step).toContainText(/new strings, .*24 kg/);
  await expect(step).toContainText('Mains from the middle out, then crosses from the head down.');
  await page.getByRole('checkbox', { name: /^Weigh the frame/ }).click();
  await step.getByRole('button', { name: 'note the new strings…' }).click();
  await expect(field(/^Mains tension/)).toHaveValue('24');
  expect(await problemsOf(page)).toEqual([]);
});

test('new strings are planned by hand at a tension of their own, in the order of the shop', async () => {
  await page.goto('/settings');
  await field('In which order we string').fill('One piece, around the world');
  const form = page.locator('form.numbers');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect
    .poll(
      async () =>
        (await shop.get<{ sports: { tennis?: { strings?: object } } }>('/shop')).sports.tennis?.strings,
    )
    .toEqual({ order: 'One piece, around the world' });
  await page.goto('/fittings/f-ilka/plan');
  await page.getByText('Change grips or strings').click();
  await page.getByRole('combobox', { name: 'Strings' }).press('Enter');
  await page.getByRole('option', { name: 'new strings' }).click();
  await field(/^Mains tension/).fill('25.5');
  await field(/^Pre-stretch/).fill('10');
  await page.getByText(/^Changed to new strings, .*25\.5 \/ 23 kg/).waitFor();
});
