import type { AimRecord, FittingView } from '@kevro/contract';
import { button, expect, field, page, shop, test } from './harness';
import { makeFitting, post, type Made } from './made';

// A page shows within two seconds what was stored on another one; nothing is stored over what it did not show.

const TWO_SECONDS = { timeout: 2000 };
const target = (massG: number) => ({ massG: { value: massG, tolerance: 1, priority: 'want' } });
const aimAt = ({ fitting, roundId }: Made, massG: number): Promise<AimRecord> =>
  post<AimRecord>(shop, `/fittings/${fitting.id}/aims`, {
    roundId,
    way: 'by-hand',
    target: target(massG),
  });

test('what is stored elsewhere is seen within two seconds: a target, a name, a row of a list', async () => {
  const made = await makeFitting(shop);
  await page.goto(`/fittings/${made.fitting.id}/aim`);
  await button('Set this aim').waitFor();
  const list = await page.context().newPage();
  await list.goto('/players');
  await list.getByText(made.player.name).waitFor();
  await page.bringToFront();

  await aimAt(made, 331);
  await expect(field(/^Weight/)).toHaveValue('331', TWO_SECONDS);
  await page.getByRole('link', { name: 'Go on to Plan' }).waitFor();

  await list.bringToFront();
  await post(shop, '/players', { name: 'Anselma Rook', sports: ['tennis'] });
  await expect(list.getByText('Anselma Rook')).toBeVisible(TWO_SECONDS);
  await list.close();
});

test('where there is no stream the page asks now and then', async () => {
  await page.route('**/api/v1/stream*', (route) => route.abort());
  const made = await makeFitting(shop);
  await page.goto(`/fittings/${made.fitting.id}/aim`);
  await button('Set this aim').waitFor();
  await aimAt(made, 332);
  await expect(field(/^Weight/)).toHaveValue('332', { timeout: 5000 });
});

test('a target that was set meanwhile is not replaced unseen: it is said, and both are shown', async () => {
  const made = await makeFitting(shop);
  await page.goto(`/fittings/${made.fitting.id}/aim`);
  await button('Set this aim').waitFor();
  await field(/^Weight/).fill('325');
  // This page hears nothing any more, as on a network that fails for a while.
  await page.route('**/api/v1/stream*', (route) => route.abort());
  const opened = `**/api/v1/fittings/${made.fitting.id}`;
  await page.route(opened, (route) => route.abort());
  await aimAt(made, 333);
  // The network is back by the time at which the page hears that its target is refused: the other one is not on it.
  await page.route('**/aims', async (route) => {
    const response = await route.fetch();
    expect(response.status()).toBe(409);
    await page.unroute(opened);
    await page.unroute('**/aims');
    await route.fulfill({ response });
  });
  await button('Set this aim').click();
  await page.getByText('This changed since you started typing.').waitFor();
  const { frames } = await shop.get<FittingView>(`/fittings/${made.fitting.id}`);
  expect(frames[0]?.rounds[0]?.aims.map(({ target: t }) => t.massG?.value)).toEqual([333]);
  await expect(field(/^Weight/)).toHaveValue('333');
  await button('Use what I typed').click();
  await expect(field(/^Weight/)).toHaveValue('325');
  await button('Set this aim').click();
  await page.waitForURL(/plan/);
});
