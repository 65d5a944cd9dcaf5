import type { FittingView, FramePage, Instrument, PartRow, SetupRow } from '@kevro/contract';
import { button, dialog, expect, page, shop, test } from './harness';
import { formReady } from './on-the-page';
import { makeFitting, post } from './made';

// What is typed stays until it is stored or dropped on purpose; what is stored can be put right.

test.describe('what was stored is put right', () => {
  test('a measurement by another, with its reason, or marked as wrong', async () => {
    // Mostly scatter, unlike the usual split: the corrected one is as uncertain in the same parts.
    const mostlyScatter = { random: 0.4, common: 0.1 };
    const { frame } = await makeFitting(shop, {
      measured: {
        uncertainty: {
          massG: mostlyScatter,
          balanceCm: mostlyScatter,
          swingWeight: mostlyScatter,
          twistWeight: mostlyScatter,
        },
      },
    });
    await page.goto(`/frames/${frame.id}`);
    await button(/^Correct…/).click();
    await formReady();
    await dialog()
      .getByRole('textbox', { name: /^Weight/ })
      .fill('311,5');
    await dialog().getByRole('button', { name: 'One overgrip less' }).click();
    const store = dialog().getByRole('button', { name: 'Store the correction' });
    await store.click();
    // Without a reason it is not stored.
    await dialog().locator('.v-input--error').getByLabel('Why').waitFor();
    await dialog().getByRole('textbox', { name: 'Why' }).fill('read off the wrong line');
    await store.click();
    await dialog().waitFor({ state: 'detached' });
    const measured = async () => (await shop.get<FramePage>(`/frames/${frame.id}`)).measurements;
    const counting = async () => (await measured()).filter(({ counts }) => counts);
    const [corrected] = await counting();
    expect(corrected).toMatchObject({
      specs: { massG: 311.5 },
      dress: { overgrips: 0 },
      why: 'read off the wrong line',
      parts: { massG: mostlyScatter, twistWeight: mostlyScatter },
    });
    expect(await measured()).toHaveLength(2);
    await page.getByText('read off the wrong line').first().waitFor();
    await button(/^Discard/).click();
    await dialog().getByRole('textbox').fill('of another frame');
    await dialog().getByRole('button', { name: 'Discard', exact: true }).click();
    await expect.poll(async () => (await counting()).length).toBe(0);
    await page.getByText('of another frame').first().waitFor();
  });

  test('setups, parts, strings and instruments are changed and retired', async () => {
    const setup = await post<SetupRow>(shop, '/setups', {
      name: 'Aino Kestrel',
      sourceKind: 'published',
      shape: { sport: 'tennis', lengthCm: 68.58 },
      dress: { strings: true },
      specs: { massG: 330 },
    });
    await page.goto('/setups');
    await page.getByRole('textbox', { name: 'Find' }).fill('Aino');
    await page.getByRole('link', { name: 'Aino Kestrel', exact: true }).click();
    await button('Change').click();
    await formReady();
    await dialog()
      .getByRole('textbox', { name: /^Weight/ })
      .fill('334.5');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await dialog().waitFor({ state: 'detached' });
    const setups = async (query: string) => (await shop.get<{ rows: SetupRow[] }>(`/setups?${query}`)).rows;
    expect((await setups(`ids=${setup.id}`))[0]?.specs.massG).toBe(334.5);
    await button('Retire').click();
    await expect.poll(() => setups('search=Aino')).toEqual([]);
    await button('Bring back').waitFor();

    await page.goto('/stock');
    await button('Change lead tape 9 mm').click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('lead tape, nine');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await button('Retire lead tape, nine').click();
    const part = async () =>
      (await shop.get<PartRow[]>('/parts')).find(({ part: { name } }) => name === 'lead tape, nine');
    await expect.poll(async () => (await part())?.retired).toBe(true);
    await page.getByRole('checkbox', { name: /^Retired ones/ }).check();
    await button('Bring back lead tape, nine').click();
    await expect.poll(async () => (await part())?.retired).toBe(false);

    const { frame } = await makeFitting(shop);
    await post(shop, `/frames/${frame.id}/stringings`, {
      strungOn: '2026-11-02',
      mains: 'Corda Lisa',
      mainsKg: 24,
      crossesKg: 23,
      unit: 'kg',
    });
    await page.goto(`/frames/${frame.id}`);
    await button(/^Correct… the strings/).click();
    await dialog().getByRole('textbox', { name: 'Mains', exact: true }).fill('Corda Ruvida');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await page.getByText('Corda Ruvida').first().waitFor();
    await button(/^Discard… the strings/).click();
    await button(/^Restore the strings/).waitFor();
    const { stringings } = await shop.get<FramePage>(`/frames/${frame.id}`);
    expect(stringings).toMatchObject([{ mains: 'Corda Ruvida', retired: true }]);

    await page.goto('/settings/instruments');
    await page.getByRole('button', { name: 'Back-room machine', exact: true }).click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('Old machine');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await button('Retire Old machine').click();
    await expect
      .poll(
        async () =>
          (await shop.get<Instrument[]>('/instruments')).find((i) => i.name === 'Old machine')?.retired,
      )
      .toBe(true);
  });

  test('a fitting gets another player, and is removed while it is empty', async () => {
    const first = await makeFitting(shop);
    await page.goto(`/fittings/${first.fitting.id}/measure`);
    await button(/^Change fitting/)
      .or(button(/^Change.*fitting/))
      .first()
      .click();
    await dialog().getByRole('combobox', { name: 'Player' }).fill('Juniper');
    await page.getByRole('option', { name: /Juniper Hale/ }).click();
    await dialog().getByRole('button', { name: 'Store' }).click();
    await page.locator('header').getByText('Juniper Hale').filter({ visible: true }).waitFor();
    const { fitting } = await makeFitting(shop);
    await button(/^Change.*fitting/)
      .first()
      .click();
    await dialog().getByRole('button', { name: 'Remove this fitting' }).click();
    await dialog()
      .getByRole('alert')
      .filter({ hasText: /Something was measured/ })
      .waitFor();
    expect((await shop.get<FittingView>(`/fittings/${first.fitting.id}`)).id).toBe(first.fitting.id);
    const empty = await post<FittingView>(shop, '/fittings', {
      playerId: fitting.player.id,
      frameIds: [first.frame.id],
    });
    await page.goto(`/fittings/${empty.id}/measure`);
    await button(/^Change.*fitting/)
      .first()
      .click();
    await dialog().getByRole('button', { name: 'Remove this fitting' }).click();
    await page.getByRole('heading', { name: 'Today' }).waitFor();
    expect((await shop.send('GET', `/fittings/${empty.id}`, undefined)).status).toBe(404);
  });

  test('a frame’s own page opens a fitting, and asks where one is open already', async () => {
    const { frame, fitting } = await makeFitting(shop);
    await page.goto(`/frames/${frame.id}`);
    await button('Open a fitting').click();
    await button('Open and measure').click();
    await button('Continue that one').click();
    await page.waitForURL(new RegExp(`fittings/${fitting.id}/measure`));
  });
});
