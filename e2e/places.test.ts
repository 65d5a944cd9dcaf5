import { readFile } from 'node:fs/promises';
import type { FramePage, FrameRow, Player } from '@kevro/contract';
import { button, dialog, expect, page, shop, test } from './harness';

const field = (name: string) => page.getByRole('textbox', { name, exact: true });
async function choose(name: string, option: string | RegExp): Promise<void> {
  await dialog().getByRole('combobox', { name }).press('Enter');
  await page.getByRole('option', { name: option }).click();
}
const players = async (search: string) =>
  (await shop.get<{ rows: Player[] }>(`/players?search=${search}`)).rows;

test.describe('players', () => {
  test('keep their arm history hidden until it is asked for, and out of an export unless it is chosen', async () => {
    const secret = 'right elbow since spring';
    await page.goto('/players');
    await page.getByText('Hedda Vosslane').waitFor();
    expect(await page.content()).not.toContain(secret);
    // What bothers a player stands in no list that a customer sees, until it is asked for.
    expect(await page.content()).not.toContain('sore arm');
    await page
      .getByRole('checkbox', { name: 'Show what bothers them' })
      .or(page.getByRole('switch', { name: 'Show what bothers them' }))
      .first()
      .check();
    await page.getByText('sore arm').first().waitFor();
    await page.getByRole('button', { name: 'Change Hedda Vosslane' }).click();
    await dialog().getByText('something is noted').waitFor();
    await dialog().getByText('A sore arm: propose less load').waitFor();
    expect(await page.content()).not.toContain(secret);
    await button('Show it').click();
    await expect
      .poll(() =>
        dialog()
          .getByRole('textbox', { name: /^Arm history/ })
          .inputValue(),
      )
      .toContain(secret);
    await dialog()
      .getByRole('textbox', { name: /^Height/ })
      .fill('170');
    await button('Store').click();
    await dialog().waitFor({ state: 'detached' });
    expect((await players('vosslane'))[0]).toMatchObject({ heightCm: 170, hasArmHistory: true });

    const saved = async (withArm: boolean): Promise<string> => {
      await button('Export as CSV').click();
      if (withArm) await page.getByRole('checkbox', { name: /^With their arm history/ }).check();
      const [download] = await Promise.all([page.waitForEvent('download'), button('Save the file').click()]);
      await dialog().waitFor({ state: 'detached' });
      return readFile(await download.path(), 'utf8');
    };
    const plain = await saved(false);
    expect(plain).toContain('Hedda Vosslane');
    expect(plain).not.toMatch(/elbow|arm history|sore arm/);
    expect(await saved(true)).toContain(secret);
    // Printed, the list shows players and nothing private.
    await page.emulateMedia({ media: 'print' });
    expect(await page.locator('main').innerText()).not.toMatch(/elbow|sore arm/);
  });

  test('are added with all that counts, found, and put away', async () => {
    await page.goto('/players');
    await button('Add a player').click();
    await field('Name').fill('Odile Brackenshaw');
    await choose('Level, 1 to 7', /^4/);
    await page.getByRole('textbox', { name: 'Year of birth' }).fill('201x');
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await dialog().getByText('This is not a number.').waitFor();
    await page.getByRole('textbox', { name: 'Year of birth' }).fill('2013');
    await dialog().getByText('Still growing').waitFor();
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await dialog().waitFor({ state: 'detached' });
    await field('Find a player').fill('bracken odile');
    await expect.poll(() => page.locator('tbody tr').count()).toBe(1);
    expect((await players('brackenshaw'))[0]).toMatchObject({ birthYear: 2013, levelScale: 4 });
    await button('Archive Odile Brackenshaw').click();
    await page.getByText('No player like that.').waitFor();
    await page.getByRole('checkbox', { name: 'Show the archived ones' }).check();
    await button('Bring back Odile Brackenshaw').click();
    await expect.poll(async () => (await players('brackenshaw')).length).toBe(1);
  });
});

test.describe('one page after another of the same kind', () => {
  test('shows the player, and the frame, that was asked for last, also where the first answer comes late', async () => {
    const [liv] = await players('harrowdene');
    const [hedda] = await players('vosslane');
    // The first answer is held back until the second is there.
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((done) => (letGo = done));
    await page.route(`**/api/v1/players/${liv?.id}/page`, async (route) => {
      await held;
      await route.continue().catch(() => undefined);
    });
    await page.goto(`/players/${liv?.id}`);
    // The page stands before it listens to keys.
    await page.getByRole('navigation').first().waitFor();
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox').or(page.getByRole('searchbox')).last().fill('Vosslane');
    await page
      .getByRole('option', { name: /Vosslane/ })
      .first()
      .click();
    await page.waitForURL(`**/players/${hedda?.id}`);
    await page.getByRole('heading', { name: 'Hedda Vosslane' }).waitFor();
    letGo();
    await page.waitForResponse(`**/api/v1/players/${liv?.id}/page`).catch(() => undefined);
    await page.getByRole('heading', { name: 'Hedda Vosslane' }).waitFor();
    expect(await page.getByRole('heading', { name: 'Liv Harrowdene' }).count()).toBe(0);
    // From one player's page to another's, with nothing held back.
    await page.unroute(`**/api/v1/players/${liv?.id}/page`);
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox').or(page.getByRole('searchbox')).last().fill('Harrowdene');
    await page
      .getByRole('option', { name: /Liv Harrowdene/ })
      .first()
      .click();
    await page.getByRole('heading', { name: 'Liv Harrowdene' }).waitFor();
    expect(await page.getByRole('heading', { name: 'Hedda Vosslane' }).count()).toBe(0);
  });
});

test.describe('frames', () => {
  test('of another sport are added, duplicated for a pair, and judged by their maker’s statement', async () => {
    await page.goto('/frames');
    await button('Add a frame').click();
    await field('Tag').fill('NW-001');
    await choose('Sport', 'padel');
    await field('Maker').fill('Norwold');
    await field('Model').fill('Keel');
    await dialog().getByRole('combobox', { name: 'Shape' }).press('Enter');
    await page.getByRole('option', { name: 'diamond' }).click();
    await page.getByText('Already on it').click();
    await button('Add an item').click();
    await field('Item').fill('lead');
    await field('Total weight, g').fill('4');
    await page.getByText('Manufacturer’s specs').click();
    // A give or take without its value is a sentence, not a silent drop.
    await field('tolerance, g').fill('5');
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await dialog().getByText('Enter the value as well as its tolerance.').waitFor();
    await field('Weight, g').fill('360');
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await page.waitForURL(/frames\/[0-9a-f-]{36}$/);
    await page.getByRole('heading', { name: /NW-001/ }).waitFor();
    await page.getByText('4 g lead').waitFor();
    await button('Duplicate').click();
    await field('Its tag').fill('KN-041');
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await dialog().getByText('There is already one').waitFor();
    await field('Its tag').fill('NW-002');
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('heading', { name: /NW-002/ }).waitFor();
    expect(await page.getByText('4 g lead').count()).toBe(0);
    await page.getByRole('link', { name: 'Measure' }).click();
    await page.getByRole('textbox', { name: /^Weight/ }).fill('372');
    await page.getByText(/over what the maker states/).waitFor();
    await page.getByRole('textbox', { name: /^Weight/ }).fill('');
  });

  test('keep the history of their strings, in lb or kg', async () => {
    await page.goto('/frames/ot-014');
    await page.getByText('round poly 1.25 mm / soft multifilament 1.30 mm').first().waitFor();
    // Swing weight about the butt is more than about the wrist, and that more than about the balance point: there it is the recoil weight.
    const swings = /butt (\d+), wrist (\d+), balance point (\d+) kg·cm²/.exec(
      await page.getByText(/butt \d+, wrist/).innerText(),
    );
    const [butt, wrist, balance] = (swings ?? []).slice(1).map(Number);
    expect(balance).toBeGreaterThan(100);
    expect(wrist).toBeGreaterThan(2 * (balance ?? NaN));
    expect(butt).toBeGreaterThan(wrist ?? NaN);
    await button('New strings').click();
    // What such strings weigh in this bed, from the gauges of the last ones.
    await page.getByText(/16 × 19 of these weighs about 1[5-9]\.\d g in polyester/).waitFor();
    await page.getByRole('radio', { name: 'lb' }).check();
    await field('Mains tension, lb').fill('50');
    await field('Crosses tension, if different, lb').fill('48');
    await button('Store').click();
    await page.getByRole('region', { name: 'History' }).getByText('50 / 48 lb').waitFor();
    const { stringings } = await shop.get<FramePage>('/frames/ot-014');
    expect(stringings[0]?.mainsKg).toBeCloseTo(50 * 0.45359237, 9);
  });

  test('are found by owner and tag, and put away', async () => {
    await page.goto('/frames');
    await field('Find by tag, model or owner').fill('thornaby lark');
    await expect.poll(() => page.locator('tbody tr').count()).toBe(2);
    await page.getByRole('link', { name: 'SW-082' }).click();
    await button('Archive').click();
    await button('Bring back').waitFor();
    const { rows } = await shop.get<{ rows: FrameRow[] }>('/frames?search=SW-082');
    expect(rows).toEqual([]);
  });
});
