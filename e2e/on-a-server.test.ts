import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { databaseForShops, newDatabase, startCluster, type Cluster } from '../server/src/db/test-cluster';
import { expect, test, type Page } from '@playwright/test';
import type { FittingView, Instrument } from '@kevro/contract';
import { Application, openPage, settled } from './harness';

// A shop whose database lies on a PostgreSQL server: the page is the same.
let cluster: Cluster;
test.beforeAll(async () => {
  cluster = await startCluster();
});
test.afterAll(() => cluster.stop());

test('a shop on a database server takes its work by the page, and loses nothing when that server is killed', async ({
  browser,
}) => {
  const url = await newDatabase(cluster.url('postgres'));
  const own = new Application(undefined, undefined, undefined, { DATABASE_URL: url });
  try {
    await own.start();
    const { page, errors } = await openPage(browser, own);
    const add = async (name: string): Promise<void> => {
      await page.goto('/players');
      await settled(page);
      await page.getByRole('button', { name: 'Add a player' }).click();
      await page.getByRole('dialog').getByRole('textbox', { name: 'Name' }).fill(name);
      await page.keyboard.press('Control+Enter');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await page.getByRole('link', { name }).first().waitFor();
    };
    // It began with the demo's shop, as a folder would.
    await page.goto('/players');
    await page.getByRole('link', { name: 'Ilka Morrow' }).first().waitFor();
    await add('Wilm Ackerley');

    await cluster.killAndStart();
    await add('Berit Sundholm');
    await page.goto('/players');
    for (const name of ['Ilka Morrow', 'Wilm Ackerley', 'Berit Sundholm'])
      await page.getByRole('link', { name }).first().waitFor();

    await page.goto('/settings/safety');
    await page.getByText('naming an empty database').waitFor();
    expect(errors).toEqual([]);
    await page.context().close();
  } finally {
    await own.remove();
  }
});

test('two Kevros serve one shop: what is done at one bench shows at the other within two seconds, and goes on when one is killed', async ({
  browser,
}) => {
  const url = await newDatabase(cluster.url('postgres'));
  const at = (bench: string) =>
    new Application(undefined, undefined, undefined, { DATABASE_URL: url, KEVRO_BENCH: bench });
  const [front, back] = [at('the front bench'), at('the back bench')];
  try {
    await front.start();
    await back.start();
    const [one, two] = [await openPage(browser, front), await openPage(browser, back)];
    const ticks = (page: Page) => page.getByRole('checkbox', { checked: true });
    for (const { page } of [one, two]) {
      await page.goto('/fittings/f-odo/build');
      await settled(page);
    }
    const before = await ticks(one.page).count();
    await one.page.getByRole('checkbox', { checked: false }).first().click();
    await expect(ticks(two.page)).toHaveCount(before + 1, { timeout: 2000 });
    // A step that was marked at the other bench since is not overwritten unseen.
    const { frames } = await back.get<FittingView>('/fittings/f-odo');
    const round = frames[0]?.rounds.at(-1);
    const [step] = Object.entries(round?.state.steps ?? {}).at(-1) ?? [];
    const late = await back.send('POST', '/fittings/f-odo/marks', {
      planId: round?.state.planId,
      step,
      mark: 'skipped',
      seen: 'open',
    });
    expect(late.status).toBe(409);

    // What is plugged in at one is said at the other.
    await two.page.goto('/settings/instruments');
    await two.page.getByText('plugged in at the front bench').first().waitFor();
    await two.page
      .getByRole('button', { name: /is plugged in here$/ })
      .first()
      .click();
    await expect
      .poll(
        async () =>
          (await front.get<Instrument[]>('/instruments')).find(({ bench }) => bench !== null)?.bench,
      )
      .toBe('the back bench');

    await front.kill();
    await two.page.goto('/fittings/f-odo/build');
    await settled(two.page);
    const marked = await ticks(two.page).count();
    await two.page.getByRole('checkbox', { checked: false }).first().click();
    await expect(ticks(two.page)).toHaveCount(marked + 1);
    await front.start();
    await one.page.goto('/fittings/f-odo/build');
    await expect(ticks(one.page)).toHaveCount(marked + 1);
    expect(two.errors).toEqual([]);
    for (const { page } of [one, two]) await page.context().close();
  } finally {
    await front.remove();
    await back.remove();
  }
});

test('several shops in one database: each comes in at its own, and finds nothing at a foreign shop’s address', async ({
  browser,
}) => {
  const url = await databaseForShops(cluster.url('postgres'));
  const command = (of: Application, name: string, words: string[], shop = '', input = ''): string =>
    execFileSync(process.execPath, [join(import.meta.dirname, '../server/dist', `${name}.js`), ...words], {
      env: { ...process.env, DATABASE_URL: url, KEVRO_DATA: of.data, KEVRO_SHOP: shop },
      input,
    }).toString();
  const kevro = new Application(undefined, undefined, undefined, { DATABASE_URL: url });
  try {
    // It begins with the demo's shop.
    await kevro.start();
    await kevro.stop();
    expect(command(kevro, 'shops', ['rename', 'one', 'plumb-and-loop'])).toContain('plumb-and-loop');
    expect(command(kevro, 'shops', ['add', 'harbour'])).toContain('harbour');
    await kevro.start();
    for (const [shop, owner] of [
      ['plumb-and-loop', 'Halla Brandt'],
      ['harbour', 'Per Lindqvist'],
    ] as const)
      command(kevro, 'owner', [owner], shop, 'a word of my own');
    const come = async (shop: string, name: string) => {
      const { page, errors } = await openPage(browser, kevro);
      await page.goto('/players');
      await page.waitForURL(/sign-in/);
      await page.getByLabel('Which shop').fill(shop);
      await page.keyboard.press('Enter');
      await page.getByLabel('Your name').fill(name);
      await page.getByLabel('Your passphrase').fill('a word of my own');
      await page.keyboard.press('Enter');
      await page.waitForURL(/\/players$/);
      await settled(page);
      return { page, errors };
    };
    const plumb = await come('plumb-and-loop', 'Halla Brandt');
    await plumb.page.getByRole('link', { name: 'Ilka Morrow' }).first().waitFor();
    const harbour = await come('harbour', 'Per Lindqvist');
    expect(await harbour.page.getByRole('link', { name: 'Ilka Morrow' }).count()).toBe(0);
    await harbour.page.goto('/fittings/f-odo/build');
    await harbour.page.getByText('There is nothing here by that name.').first().waitFor();
    // Nobody of one shop comes in at the other.
    const stranger = await openPage(browser, kevro);
    await stranger.page.goto('/sign-in?shop=harbour');
    await stranger.page.getByLabel('Your name').fill('Halla Brandt');
    await stranger.page.getByLabel('Your passphrase').fill('a word of my own');
    await stranger.page.keyboard.press('Enter');
    await stranger.page.getByText('This is not right.').waitFor();
    for (const { page, errors } of [plumb, harbour, stranger]) {
      expect(errors).toEqual([]);
      await page.context().close();
    }
  } finally {
    await kevro.remove();
  }
});
