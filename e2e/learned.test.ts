import { button, dialog, expect, page, shop, test } from './harness';
import { inLight, problemsOf } from './looked-at';

// What the shop has learned of all its players, put to use for the next one.

/** Nine players, each with four frames that swing from light to heavy, and happier with the heavy ones. */
async function shopThatPlayed(): Promise<void> {
  const made = async <T>(path: string, body: object, method = 'POST'): Promise<T> => {
    const answer = await shop.send(method, path, body);
    const found = await answer.json();
    expect(answer.status, JSON.stringify(found)).toBe(200);
    return found as T;
  };
  let count = 0;
  const key = (): string => `made by hand ${++count}`;
  const onePlayer = async (p: number): Promise<void> => {
    const { id: playerId } = await made<{ id: string }>('/players', {
      name: `Quiet ${p}`,
      sports: ['tennis'],
    });
    const frameIds: string[] = [];
    for (let f = 0; f < 4; f++) {
      const frame = {
        tag: `Q${p}-${f}`,
        maker: 'Velmond',
        model: 'Quarr 97',
        shape: { sport: 'tennis', lengthCm: 68.58 },
      };
      frameIds.push((await made<{ id: string }>('/frames', frame)).id);
    }
    const fitting = await made<{ id: string; frames: { frame: { id: string }; rounds: { id: string }[] }[] }>(
      '/fittings',
      { playerId, frameIds },
    );
    for (const [f, { frame, rounds }] of fitting.frames.entries()) {
      const roundId = rounds[0]?.id;
      const specs = { massG: 318, balanceCm: 32.2, swingWeight: 300 + 10 * f + p / 3, twistWeight: 13.5 };
      await made(`/frames/${frame.id}/measurements`, {
        key: key(),
        dress: { strings: true },
        specs,
        purpose: 'found',
        roundId,
      });
      for (let n = 0; n < 3; n++) {
        const isGood = f + ((n + p) % 2) >= 2;
        await made(`/fittings/${fitting.id}/sessions`, {
          key: key(),
          roundId,
          // Light and heavy frames take turns, so that time explains nothing.
          playedOn: `2026-10-${String(2 + 4 * n + ((f * 3) % 4)).padStart(2, '0')}`,
          energyLeft: isGood ? 'plenty' : 'little',
          late: isGood ? 'no' : 'often',
          spin: isGood ? 'more' : 'less',
          arm: 'fine',
        });
      }
    }
  };
  await Promise.all(Array.from({ length: 9 }, (_, p) => onePlayer(p)));
}

test('players of the shop were happier with more: Aim says so beside the guide, and a climb begins by it; it can be switched off', async () => {
  await shopThatPlayed();
  await inLight(page);
  await page.goto('/fittings/f-ilka/aim');
  const said = page.getByRole('region', { name: 'What sessions here say' });
  await expect(said).toContainText(
    /were happiest at \d+ to \d+ kg·cm² swing weight: \d+ sessions of (9|1\d) players\./,
  );
  await expect(said).not.toContainText('Quiet');
  await said
    .getByRole('button', { name: /^Aim at/ })
    .first()
    .click();
  expect(await problemsOf(page)).toEqual([]);
  await page.goto('/fittings/f-ilka/play');
  await button('Begin a programme…').click();
  await dialog()
    .getByRole('radio', { name: /^Climb/ })
    .check({ force: true });
  await dialog()
    .getByRole('checkbox', { name: /^First step toward \d+ to \d+ kg·cm², where players here were happiest/ })
    .waitFor();
  await dialog().getByRole('button', { name: 'Begin it' }).click();
  await dialog().waitFor({ state: 'detached' });
  const view = await shop.get<{ frames: { programmes: { happiest: unknown }[] }[] }>('/fittings/f-ilka');
  expect(view.frames[0]?.programmes.at(-1)?.happiest).toMatchObject({ from: expect.any(Number) });
  await page.goto('/settings');
  await page.getByRole('checkbox', { name: 'Let sessions of all players advise the next one' }).uncheck();
  await page.locator('form.shop').getByRole('button', { name: 'Store' }).click();
  await expect
    .poll(async () => (await shop.get<{ learnsFromAll: boolean }>('/shop')).learnsFromAll)
    .toBe(false);
  await page.goto('/fittings/f-ilka/aim');
  await page
    .getByRole('button', { name: 'Set this aim' })
    .or(page.getByRole('link', { name: 'Go on to Plan' }))
    .first()
    .waitFor();
  await expect(said).toHaveCount(0);
});
