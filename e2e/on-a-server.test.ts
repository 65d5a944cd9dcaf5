import { startCluster, newDatabase, type Cluster } from '../server/src/db/test-cluster';
import { expect, test } from '@playwright/test';
import { Application, openPage, settled } from './harness';

// A shop whose database lies on a PostgreSQL server: the page is the same.
let cluster: Cluster;
test.beforeAll(async () => {
  cluster = await startCluster();
});
test.afterAll(() => cluster.stop());

test('a shop on a database server takes its work by the page, loses nothing when that server is killed, and is one Kevro’s at a time', async ({
  browser,
}) => {
  const url = await newDatabase(cluster.url('postgres'));
  const own = new Application(undefined, undefined, undefined, { DATABASE_URL: url });
  const second = new Application(undefined, undefined, undefined, { DATABASE_URL: url });
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

    await expect(second.start()).rejects.toThrow('the server ended with 1');

    await page.goto('/settings/safety');
    await page.getByText('naming an empty database').waitFor();
    expect(errors).toEqual([]);

    // What was stored is there for the next Kevro on that database, whatever folder it has.
    await own.stop();
    await second.start();
    const { total } = await second.get<{ total: number }>('/players?search=Berit');
    expect(total).toBe(1);
    await page.context().close();
  } finally {
    await own.remove();
    await second.remove();
  }
});
