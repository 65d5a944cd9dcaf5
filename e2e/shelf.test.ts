import type { FittingView, FrameRecord, Measurement } from '@kevro/contract';
import { button, expect, page, shop, test } from './harness';
import { key, makeFitting, post, setAim, type Made } from './made';

// Frames on the shelf are held against a player's own, paired, and made a set.

async function onShelf(
  tag: string,
  more: object,
  dress: object = { strings: true, overgrips: 1 },
): Promise<FrameRecord> {
  const frame = await post<FrameRecord>(shop, '/frames', {
    tag,
    maker: 'Velmond',
    model: 'Quarr 97',
    shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 },
  });
  await post<Measurement>(shop, `/frames/${frame.id}/measurements`, {
    key: key(),
    dress,
    specs: { massG: 320, balanceCm: 32.5, swingWeight: 315, twistWeight: 13.5, ...more },
    purpose: 'later',
  });
  return frame;
}
/** Holds the shelf against a player's frame. The list of players is not left open over the table. */
async function hold({ player }: Made, choose: () => Promise<void>): Promise<void> {
  await page.goto('/stock');
  await page.getByRole('link', { name: 'Which of them suits a player?' }).click();
  await page.getByRole('combobox', { name: 'For' }).fill(player.name.slice(0, -2));
  await choose();
  await page.getByText(`${player.name}’s own`).waitFor();
  await page.getByRole('listbox').waitFor({ state: 'hidden' });
}

test.describe('the shelf', () => {
  test('is ranked against the aim of a fitting, in the dress of its frame', async () => {
    const made = await makeFitting(shop);
    await onShelf('AI-1', { massG: 336, swingWeight: 333, twistWeight: 14.5 });
    await onShelf('AI-2', {});
    await setAim(shop, made, {
      massG: { value: 336, tolerance: 1 },
      swingWeight: { value: 333, tolerance: 2 },
      twistWeight: { value: 13.6, tolerance: 0.2, priority: 'free' },
    });
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await page.getByRole('link', { name: 'Find the closest frame in stock' }).click();
    await page.getByRole('cell', { name: 'the aim' }).waitFor();
    const tags = page.locator('tbody .row-name');
    await expect.poll(async () => (await tags.allInnerTexts())[0]).toBe('AI-1');
    // The balance and the free twist weight are not asked for: nothing is said of them.
    const cells = page.locator('tbody tr.own td');
    await expect
      .poll(async () => (await cells.allInnerTexts()).slice(1, 5))
      .toEqual(['336.0', '—', '333', '—']);
  });

  test('is ranked in the dress of the player’s frame, gives the pair that is alike, and makes it a set in a fitting', async () => {
    const made = await makeFitting(shop);
    // Bare it weighs an overgrip and strings less: it is the same frame.
    const bare = await onShelf('SH-1', { massG: 298.6, balanceCm: 32.53, swingWeight: 288 }, {});
    await onShelf('SH-2', { massG: 322 });
    await onShelf('SH-9', { massG: 340, swingWeight: 345 });
    await hold(made, () => page.keyboard.press('Enter'));
    const asked: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    await hold(made, () => page.getByRole('option', { name: made.player.name }).click());
    const tags = async () =>
      (await page.locator('tbody .row-name').allInnerTexts()).filter((tag) => tag.startsWith('SH-'));
    await expect.poll(async () => (await tags()).at(-1)).toBe('SH-9');
    expect((await tags()).slice(0, 2).toSorted()).toEqual(['SH-1', 'SH-2']);
    await button('Make a set of SH-1 and SH-2').or(button('Make a set of SH-2 and SH-1')).click();
    await page.getByText('Common aim:').waitFor();
    expect(await page.getByText('in tolerance', { exact: true }).count()).toBe(2);
    // A third joins by keys.
    await page.getByRole('checkbox', { name: 'SH-9 in the set' }).focus();
    await page.keyboard.press('Space');
    await page.getByText('A set of 3, so that all come out alike').waitFor();
    await page.keyboard.press('Space');
    await page.getByText('A set of 2, so that all come out alike').waitFor();
    // The list that the player was picked from has come anew since: their frames stand.
    expect(asked.filter((url) => url.includes(`owner=${made.player.id}&sort=measured`)).length).toBe(1);
    await button('Open a fitting with these').click();
    await page.getByRole('dialog').getByRole('button', { name: /^Open/ }).click();
    await page.waitForURL(/fittings\/.*\/measure/);
    const id = /fittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
    const view = await shop.get<FittingView>(`/fittings/${id}`);
    expect(view.player.id).toBe(made.player.id);
    expect(view.frames.map(({ frame }) => frame.id)).toContain(bare.id);
    expect(view.frames).toHaveLength(2);
  });

  test('has a card for each frame, with its numbers, how sure they are, and the dress they are in', async () => {
    const frame = await onShelf('SH-7', {});
    await page.goto(`/frames/${frame.id}`);
    await page.getByRole('link', { name: 'Card' }).click();
    await page.getByRole('heading', { name: 'Velmond Quarr 97' }).waitFor();
    const card = await page.locator('article').innerText();
    for (const said of ['320.0', '32.5', '315', '13.5', '±', 'strung, no base grip, 1 overgrip', '10.16 cm'])
      expect(card).toContain(said);
  });
});
