import type { FittingView, FrameRecord, Measurement } from '@kevro/contract';
import { button, expect, page, settled, shop, test } from './harness';
import { key, makeFitting, post, type Made } from './made';

// Frames that are to play alike: what they come to, what each gets, and their build sheets.

/** A second frame of a player, lighter than the first and measured. */
async function lighter({ player }: Made, more: object = {}): Promise<FrameRecord> {
  const frame = await post<FrameRecord>(shop, '/frames', {
    tag: 'MT-L1',
    maker: 'Velmond',
    model: 'Quarr 97',
    ownerId: player.id,
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
    onIt: { strings: true, overgrips: 1 },
  });
  await post<Measurement>(shop, `/frames/${frame.id}/measurements`, {
    key: key(),
    dress: { strings: true, overgrips: 1 },
    specs: { massG: 316.5, balanceCm: 32.4, swingWeight: 310, twistWeight: 13.4 },
    purpose: 'found',
    ...more,
  });
  return frame;
}

test('two frames of a fitting are matched: one target for both, and a build sheet for the lighter one', async () => {
  const made = await makeFitting(shop);
  const second = await lighter(made);
  const { player, frame } = made;
  const set = await post<FittingView>(shop, '/fittings', {
    playerId: player.id,
    frameIds: [frame.id, second.id],
    evenIfOpen: true,
  });
  await page.goto(`/fittings/${set.id}/measure`);
  await page.getByRole('link', { name: 'Match frames' }).click();
  const row = (tag: string) => page.getByRole('row', { name: new RegExp(tag) });
  await row(frame.tag).getByText('Leave as it is').waitFor();
  await page.getByText(/Furthest apart now: 3\.5 g/).waitFor();
  // A frame that is heavier cannot come down to the lighter one: it is said, and the other way is taken.
  await page.getByRole('radio', { name: `Match ${second.tag}` }).check();
  await row(frame.tag)
    .getByText(/Not reachable: weight 3\.5 g over/)
    .waitFor();
  await page.getByRole('radio', { name: 'Least added weight' }).check();
  await row(second.tag).getByText(/\d g/).first().waitFor();
  await button('Make 1 build sheet').click();
  await page.waitForURL(/build/);
  await page.locator('header').getByText(second.tag).filter({ visible: true }).first().waitFor();

  const { frames } = await shop.get<FittingView>(`/fittings/${set.id}`);
  const aims = frames.map(({ rounds }) => rounds[0]?.aims.at(-1)?.target);
  expect(aims[0]).toEqual(aims[1]);
  expect(aims[0]?.massG?.value).toBeCloseTo(320, 0);
  const plans = frames.map(({ rounds }) => rounds[0]?.plans.length);
  expect(plans).toEqual([0, 1]);
  expect(frames[1]?.rounds[0]?.plans[0]?.withinTolerance).toBe(true);
});

test('frames are matched outside a fitting too, found by Ctrl K, and a fitting is opened with them', async () => {
  const made = await makeFitting(shop);
  const second = await lighter(made);
  await page.goto('/');
  await settled(page);
  await page.keyboard.press('Control+k');
  await page
    .getByRole('dialog')
    .getByRole('combobox', { name: /^A player/ })
    .last()
    .fill('match');
  await page.getByRole('option', { name: 'Match frames' }).click();
  await page.waitForURL(/\/match/);
  const pick = page.getByRole('combobox', { name: 'Frames to match' });
  for (const { tag } of [made.frame, second]) {
    await pick.fill(tag);
    // Enter takes the first that is found: it has to be there.
    await page.getByRole('option', { name: tag }).first().waitFor();
    await pick.press('Enter');
    await page.locator('.v-chip').getByText(tag).waitFor();
  }
  await page.getByText(/Furthest apart now/).waitFor();
  await page.getByRole('checkbox', { name: /^Twist weight/ }).check();
  await page.getByText('Calculating…').waitFor({ state: 'detached' });
  await button('Open a fitting with these').click();
  await expect(page.getByRole('dialog').getByRole('combobox', { name: 'Player' })).toHaveValue(
    made.player.name,
  );
});
