import { execFile } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join, resolve } from 'node:path';
import { promisify } from 'node:util';
import type { AnswerOf, FittingView, Player } from '@kevro/contract';
import { Application, button, demoShop, expect, openPage, page, settled, shop, test, until } from './harness';
import { makeFitting, post } from './made';

// Who comes in, what is kept, and what goes.
const root = resolve(import.meta.dirname, '..');

/** This machine by its address in the network, as another would name it. */
const address = Object.values(networkInterfaces())
  .flatMap((all) => all ?? [])
  .find(({ internal, family }) => !internal && family === 'IPv4')?.address;

test('works by plain HTTP and an address, where the browser offers a page less', async () => {
  test.skip(!address, 'this machine has no address but its own');
  const open = new Application(demoShop(), undefined, '0.0.0.0');
  await open.start();
  const url = open.url.replace('127.0.0.1', address ?? '');
  await page.goto(`${url}/frames/hz-003/measure`);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  const weight = page.getByRole('textbox', { name: /^Weight/ });
  await weight.fill('331.5');
  await weight.press('Enter');
  const typed = async (): Promise<string> => JSON.stringify(await open.get('/frames/hz-003/capture'));
  await expect.poll(typed).toContain('331.5');
  await open.remove();
});

/** Saves a backup from the page, beside the data of the shop. */
async function saveBackup(app: Application): Promise<string> {
  await page.goto('/settings/safety');
  await settled(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save a backup' }).click(),
  ]);
  const file = join(app.folder, 'saved.zip');
  await download.saveAs(file);
  return file;
}

test.describe('a backup', () => {
  test.use({ ownProcess: true });
  test('is saved from the page while the shop is open, and restored into another folder it is the same shop', async () => {
    const app = shop as Application;
    const file = await saveBackup(app);
    const other = new Application(undefined, '');
    const run = promisify(execFile);
    const restored = await run(process.execPath, [
      join(root, 'server/dist/restore-shop.js'),
      file,
      other.data,
    ]);
    expect(restored.stdout).toMatch(/rows in \d+ tables/);
    await other.start();
    const path = '/fittings/f-odo';
    expect(await other.get<FittingView>(path)).toEqual(await shop.get<FittingView>(path));
    // By the command as well, with the server at work.
    const second = join(app.folder, 'by-command.zip');
    const env = { ...process.env, KEVRO_DATA: app.data };
    await run(process.execPath, [join(root, 'server/dist/backup-shop.js'), second], { env });
    const over = run(process.execPath, [join(root, 'server/dist/restore-shop.js'), second, app.data], {
      env,
    });
    await expect(over).rejects.toThrow(/Another Kevro is at work|a shop in/);
    await other.remove();
  });
});

test.describe('a backup, from the page', () => {
  test.use({ ownProcess: true });
  test('takes the place of the shop, which is a backup itself by then; another file changes nothing', async () => {
    const app = shop as Application;
    const file = await saveBackup(app);
    await post(shop, '/players', { name: 'Came Later', sports: ['padel'] });
    const players = () => shop.get<{ rows: Player[] }>('/players?search=Came');
    expect((await players()).rows).toHaveLength(1);

    await page.getByRole('textbox', { name: 'A passphrase for the shop' }).fill('loops and plumb lines');
    await button('Set it').click();
    await page.getByRole('textbox', { name: 'Another passphrase' }).waitFor();
    await button('Restore from a file').click();
    const dialog = page.getByRole('dialog', { name: 'Restore a backup' });
    await dialog.getByRole('button', { name: 'Restore', exact: true }).click();
    await dialog.getByText('Choose the backup file.').first().waitFor();
    const chosen = dialog.locator('input[type=file]');
    await chosen.setInputFiles({ name: 'a.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip') });
    await dialog.getByRole('button', { name: 'Restore', exact: true }).click();
    await dialog.getByText(/Nothing was changed/).waitFor();
    expect((await players()).rows).toHaveLength(1);

    await chosen.setInputFiles(file);
    await dialog.getByRole('button', { name: 'Restore', exact: true }).click();
    await page.waitForURL((url) => url.pathname === '/', { timeout: 60_000 });
    await page.locator('.fittings a').first().waitFor();
    app.readOwnersKey();
    expect((await players()).rows).toHaveLength(0);
    const { rows } = await shop.get<AnswerOf<'changes'>>('/changes?limit=1');
    expect(rows[0]).toMatchObject({ call: 'restoreBackup', who: 'bench' });

    // The lock is the machine's own: a shop that was locked does not stand open now.
    expect(await shop.get<AnswerOf<'access'>>('/access')).toMatchObject({ passphraseSet: true, bench: true });

    // And back to what it was, from the list.
    await page.goto('/settings/safety');
    await settled(page);
    await button(/^Restore kevro-/)
      .last()
      .click();
    await dialog.getByText(/replaces this shop/).waitFor();
    await dialog.getByRole('button', { name: 'Restore', exact: true }).click();
    await page.waitForURL((url) => url.pathname === '/', { timeout: 60_000 });
    app.readOwnersKey();
    expect((await players()).rows).toHaveLength(1);
    await expect.poll(() => readdirSync(app.data).toSorted()).toEqual(['backups', 'database', 'owners-key']);
    // The process that was started first ends with the one that took its place.
    await app.stop();
    await expect(shop.get('/health')).rejects.toThrow();
  });
});

test.describe('a person', () => {
  test('is archived, then erased once their name is typed', async () => {
    const { player, fitting } = await makeFitting(shop, { name: 'Zenobia Thackwell' });
    // Something about her is typed, and not stored.
    await page.goto(`/fittings/${fitting.id}/measure`);
    await button('Close fitting').click();
    await page.getByRole('dialog').getByRole('textbox', { name: 'Note' }).fill('her wrist again');
    await page.keyboard.press('Escape');
    const drafts = () => page.evaluate(() => Object.values(localStorage).join(' '));
    expect(await drafts()).toContain('her wrist again');
    await post(shop, '/players', { name: 'Zenobia Other', sports: ['padel'] });
    await page.goto('/players');
    await button('Archive Zenobia Thackwell').click();
    await page
      .getByRole('checkbox', { name: /archive/i })
      .first()
      .check();
    await button('Erase Zenobia Thackwell').click();
    const dialog = page.getByRole('dialog', { name: 'Erase Zenobia Thackwell' });
    await dialog.getByRole('textbox', { name: 'Their name, to be sure' }).fill('Zenobia');
    await dialog.getByRole('button', { name: 'Erase for good' }).click();
    await dialog.getByText('Type the name as it is written there').waitFor();
    await dialog.getByRole('textbox', { name: 'Their name, to be sure' }).fill('Zenobia Thackwell');
    await dialog.getByRole('button', { name: 'Erase for good' }).click();
    await dialog.waitFor({ state: 'detached' });
    await button('Erase Zenobia Thackwell').waitFor({ state: 'detached' });
    expect(await drafts()).not.toContain('her wrist again');
    expect(await shop.get<Player>(`/players/${player.id}`)).toMatchObject({ name: 'erased', archived: true });
  });
});

test.describe('another device', () => {
  test('finds the door, comes in by the code that the bench shows, and is where it wanted to be', async ({
    browser,
  }) => {
    await page.goto('/settings/safety');
    await settled(page);
    await page.getByRole('textbox', { name: 'A passphrase for the shop' }).fill('too short');
    await button('Set it').click();
    await page.getByText('This is too short: at least 10 characters.').waitFor();
    await page.getByRole('textbox', { name: 'A passphrase for the shop' }).fill('loops and plumb lines');
    await button('Set it').click();
    await page.getByRole('textbox', { name: 'Another passphrase' }).waitFor();
    const { code } = await post<{ code: string }>(shop, '/pairings', undefined);

    // A phone: what it sends was passed on, so that it is not this machine.
    const phone = await openPage(browser, shop, {
      viewport: { width: 390, height: 844 },
      extraHTTPHeaders: { 'x-forwarded-for': '192.0.2.7' },
    });
    await phone.page.goto('/players');
    await phone.page.getByRole('heading', { name: 'Sign in' }).waitFor();
    const passphrase = phone.page.getByRole('textbox', { name: 'Or the shop’s passphrase' });
    await passphrase.fill('loops and plumb line');
    await passphrase.press('Enter');
    await phone.page.getByText('This is not right.').waitFor();
    await phone.page.getByRole('textbox', { name: 'What this device is called' }).fill('court 2');
    await phone.page.getByRole('textbox', { name: 'Code from the bench machine' }).fill(code);
    await phone.page.getByRole('button', { name: 'Sign in with the code' }).click();
    await phone.page.getByText('Ilka Morrow').waitFor();
    expect(new URL(phone.page.url()).pathname).toBe('/players');
    await phone.page.goto('/settings/safety');
    await phone.page.getByText('This device is signed in.').waitFor();
    await page.reload();
    await page.getByText(/court 2, until/).waitFor();
    // The picture leads here with its code: nothing has to be typed.
    const again = await post<{ address: string; code: string }>(shop, '/pairings', undefined);
    await phone.page.context().clearCookies();
    await phone.page.goto(`/sign-in#${again.code}`);
    await phone.page.getByRole('heading', { name: 'Today' }).waitFor();
    expect(phone.errors).toEqual([]);
    await phone.page.context().close();
  });
});

test.describe('other devices', () => {
  test.use({ ownProcess: true });
  test('are let in from the page, after a restart too, until the bench says otherwise', async () => {
    const onNetwork = Object.values(networkInterfaces()).some((all) =>
      all?.some(({ internal }) => !internal),
    );
    await page.goto('/settings/safety');
    await settled(page);
    expect(await button('Let other devices in').count()).toBe(0);
    await page.getByRole('textbox', { name: 'A passphrase for the shop' }).fill('loops and plumb lines');
    await button('Set it').click();
    await button('Let other devices in').click();
    if (!onNetwork) {
      await page.getByText('This machine is on no network').waitFor();
      return;
    }
    await page.getByRole('img', { name: /^QR code of http/ }).waitFor();
    const address = (await page.locator('.address').first().innerText()).trim();
    const reached = (): Promise<unknown> =>
      fetch(`${address}/api/v1/access`).then(
        (r) => r.json(),
        () => 'not reached',
      );
    expect(await reached()).toMatchObject({ bench: false, signedIn: false });
    const own = shop as Application;
    await own.stop();
    await own.start();
    expect(await reached()).toMatchObject({ signedIn: false });
    await page.reload();
    await button('Only this machine').click();
    await button('Let other devices in').waitFor();
    expect(await reached()).toBe('not reached');
  });
});

test.describe('a shop with a passphrase', () => {
  test('prints at its start how another browser of this machine comes in, and gives its owner a backup', async ({
    browser,
  }) => {
    const locked = new Application(demoShop());
    await locked.start();
    expect((await locked.send('PUT', '/passphrase', { passphrase: 'loops and plumb lines' })).status).toBe(
      200,
    );
    await locked.stop();
    await locked.start();
    expect((await fetch(`${locked.url}/api/v1/players`)).status).toBe(401);
    const printed = await until(() => /is let in, once, by (\S+)/.exec(locked.said)?.[1]);
    expect(printed).toMatch(new RegExp(`^${locked.url}/sign-in#[A-Z0-9]{16}$`));
    const own = await openPage(browser, locked);
    await own.page.goto(printed);
    await own.page.getByRole('heading', { name: 'Today' }).waitFor();
    await own.page.goto('/settings/safety');
    await own.page.getByRole('textbox', { name: 'Another passphrase' }).waitFor();
    expect(own.errors).toEqual([]);
    await own.page.context().close();
    const file = join(locked.folder, 'by-command.zip');
    const env = { ...process.env, KEVRO_DATA: locked.data };
    const run = promisify(execFile);
    await run(process.execPath, [join(root, 'server/dist/backup-shop.js'), file], { env });
    await run(process.execPath, [
      join(root, 'server/dist/restore-shop.js'),
      file,
      join(locked.folder, 'restored'),
    ]);
    await locked.remove();
  });
});
