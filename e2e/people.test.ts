import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { type Application, button, dialog, expect, openPage, page, settled, shop, test } from './harness';
import { formReady } from './on-the-page';

// People of the shop: an owner lets them in by name; each does what their role allows, and the change log says who it was.
const SHOP_WORD = 'lanterns by the court';
const OWN_WORD = 'a word of my own';

async function letIn(name: string, role: string): Promise<void> {
  await button('Let somebody in by name').click();
  await formReady();
  await dialog().getByRole('textbox', { name: 'Name' }).fill(name);
  if (role !== 'Fitter') {
    await dialog().getByRole('combobox', { name: 'Role' }).press('Enter');
    await page.getByRole('option', { name: role }).click();
  }
  await dialog().getByLabel('Passphrase').fill(OWN_WORD);
  await page.keyboard.press('Control+Enter');
  await dialog().waitFor({ state: 'detached' });
  await page.getByRole('listitem').filter({ hasText: name }).waitFor();
}

test('an owner lets people in by name; a fitter works, a reader looks, and the change log says who it was', async ({
  browser,
}) => {
  await page.goto('/settings/safety');
  await page.getByText('Set a passphrase for the shop above').waitFor();
  await page.getByLabel('A passphrase for the shop').fill(SHOP_WORD);
  await button('Set it').click();
  await page.getByText('This browser is the bench').waitFor();
  await page.reload();
  await letIn('Per Lindqvist', 'Fitter');
  await letIn('Una Reed', 'Reader');
  // The same name once more is refused beside its field, and nothing typed is lost.
  await button('Let somebody in by name').click();
  await formReady();
  await dialog().getByRole('textbox', { name: 'Name' }).fill('per lindqvist');
  await dialog().getByLabel('Passphrase').fill(OWN_WORD);
  await page.keyboard.press('Control+Enter');
  await dialog().getByText('There is already one: somebody named per lindqvist').waitFor();
  await page.keyboard.press('Escape');

  const signIn = async (name: string) => {
    const { page: own, errors } = await openPage(browser, shop);
    await own.goto('/players');
    await own.waitForURL(/sign-in/);
    await own.getByLabel('Your name').fill(name);
    await own.getByLabel('Your passphrase').fill('not mine');
    await own.keyboard.press('Enter');
    await own.getByText('This is not right.').waitFor();
    await own.getByLabel('Your passphrase').fill(OWN_WORD);
    await own.keyboard.press('Enter');
    await own.waitForURL(/\/players/);
    await settled(own);
    return { own, errors };
  };
  const per = await signIn('Per Lindqvist');
  await per.own.getByRole('link', { name: 'Per Lindqvist' }).waitFor();
  await per.own.getByRole('button', { name: 'Add a player' }).click();
  await per.own.getByRole('dialog').getByRole('textbox', { name: 'Name' }).fill('Wilm Ackerley');
  await per.own.keyboard.press('Control+Enter');
  await per.own.getByRole('link', { name: 'Wilm Ackerley' }).first().waitFor();

  const una = await signIn('Una Reed');
  await una.own.getByText('Una Reed, may look only').waitFor();
  await una.own.getByRole('button', { name: 'Add a player' }).click();
  await una.own.getByRole('dialog').getByRole('textbox', { name: 'Name' }).fill('Not Mine To Add');
  await una.own.keyboard.press('Control+Enter');
  await una.own.getByText('You may look at the shop’s work, not change it.').first().waitFor();
  expect(await shop.get<{ total: number }>('/players?search=Mine')).toMatchObject({ total: 0 });

  // One’s own passphrase is changed where one is signed in.
  await per.own.goto('/settings/safety');
  await per.own.getByText('You are signed in as Per Lindqvist').waitFor();
  await per.own.getByLabel('Your passphrase').fill(OWN_WORD);
  await per.own.getByLabel('Your new passphrase').fill('another word of mine');
  await per.own.getByRole('button', { name: 'Change it' }).click();
  await expect(per.own.getByLabel('Your new passphrase')).toHaveValue('');

  // Whoever has left comes in no more, at once.
  await button('Per Lindqvist has left').click();
  await page.getByText('has left', { exact: true }).waitFor();
  await per.own.goto('/players');
  await per.own.waitForURL(/sign-in/);
  await page.goto('/settings/changes');
  await page.getByText('Per Lindqvist').first().waitFor();
  expect([...per.errors, ...una.errors]).toEqual([]);
  for (const { own } of [per, una]) await own.context().close();
});

test.describe('on a machine without a screen', () => {
  test.use({ ownProcess: true });
  test('a command beside the server lets an owner in by name, and gives another passphrase where it was forgotten', async ({
    browser,
  }) => {
    const { data } = shop as Application;
    const command = (word: string): string =>
      execFileSync(process.execPath, [join(import.meta.dirname, '../server/dist/owner.js'), 'Halla Brandt'], {
        env: { ...process.env, KEVRO_DATA: data },
        input: `${word}\n`,
      }).toString();
    expect(command(OWN_WORD)).toContain('as an owner');
    expect(command('another word of mine')).toContain('as an owner');
    const { page: own, errors } = await openPage(browser, shop);
    await own.goto('/settings/safety');
    await own.waitForURL(/sign-in/);
    await own.getByLabel('Your name').fill('Halla Brandt');
    await own.getByLabel('Your passphrase').fill('another word of mine');
    await own.keyboard.press('Enter');
    await own.getByRole('listitem').filter({ hasText: 'Halla Brandt' }).getByText('Owner').waitFor();
    expect(errors).toEqual([]);
    await own.context().close();
  });
});
