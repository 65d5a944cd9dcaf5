import type { FittingView, PlayerPage } from '@kevro/contract';
import { button, expect, openPage, page, settled, shop, test } from './harness';
import { key, makeFitting, post, type Made } from './made';
import type { Page } from '@playwright/test';

// How it plays, from the first session to where a programme stops; and what a shop's day asks for beside it.
const choose = async (on: Page, group: string, answer: string): Promise<void> => {
  await on.getByRole('radiogroup', { name: group }).getByRole('radio', { name: answer, exact: true }).check();
};
const entryOf = async ({ fitting }: Made) => {
  const { frames } = await shop.get<FittingView>(`/fittings/${fitting.id}`);
  const [entry] = frames;
  if (!entry) throw new Error('the fitting has no frame');
  return { ...entry, round: entry.rounds.at(-1) };
};
/** Notes a session at Play. */
async function note(energy: string, arm: string, words = ''): Promise<void> {
  await page.keyboard.press('n');
  await choose(page, 'Energy left at the end', energy);
  await choose(page, 'Arm', arm);
  if (words) await page.getByRole('textbox', { name: 'In your own words' }).fill(words);
  await page.keyboard.press('Control+Enter');
  await page.getByRole('dialog').waitFor({ state: 'detached' });
}
/** What the page laid out is built, checked as planned and signed off, as tests of Build and Check do by hand. */
async function build(made: Made): Promise<void> {
  const { round, frame } = await entryOf(made);
  const plan = round?.plans.at(-1);
  if (!round || !plan) throw new Error('nothing is planned');
  const at = `/fittings/${made.fitting.id}`;
  for (const { key: step } of plan.steps)
    await post(shop, `${at}/marks`, { planId: plan.id, step, mark: 'done' });
  const { axisCm: _, ...specs } = plan.specs;
  const check = await post<{ id: string }>(shop, `/frames/${frame.id}/measurements`, {
    key: key(),
    dress: made.measurement.dress,
    specs,
    purpose: 'check',
    roundId: round.id,
  });
  await post(shop, `${at}/sign-offs`, { key: key(), planId: plan.id, measurementId: check.id });
}
const openPlay = async (made: Made): Promise<void> => {
  await page.goto(`/fittings/${made.fitting.id}/play`);
  await settled(page);
};
const title = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text });

test.describe('a programme', () => {
  test('goes from its start to its stop by keys: noted, taken to the bench, stopped, and the ceiling written down', async () => {
    const made = await makeFitting(shop);
    await openPlay(made);
    await button('Begin a programme…').press('Enter');
    await page.getByRole('radio', { name: /Find the ceiling/ }).check();
    await page.keyboard.press('Control+Enter');
    await title('Play it, and note how it felt').waitFor();

    await note('plenty', 'fine', 'went through the ball');
    await title('2 g onto the tip').waitFor();
    await page.getByText(/swing weight 315 → 32[12] kg·cm² · 1 piece/).waitFor();
    await page.keyboard.press('a');
    await page.waitForURL(/\/build/);
    await page.getByRole('heading', { name: /^Build/ }).waitFor({ state: 'attached' });
    // Half built it is not played, and nothing else is proposed.
    await page.keyboard.press('7');
    await page.getByText('Its last step is still at the bench').waitFor();
    await build(made);

    await openPlay(made);
    await note('none', 'tired', 'could not finish');
    await title('Go back: 2 g off the tip').waitFor();
    await page.getByText(/this player’s ceiling: 315 ±7 kg·cm²/).waitFor();
    await button('Make the build sheet for this step').click();
    await page.waitForURL(/\/build/);
    await build(made);
    await openPlay(made);
    await page.getByText('No programme yet').waitFor();
    const { ceilings, sessions } = await shop.get<PlayerPage>(`/players/${made.player.id}/page`);
    expect(ceilings.tennis?.swingWeight).toBeCloseTo(315, 0);
    expect(sessions.map((s) => s.note)).toEqual(['could not finish', 'went through the ball']);
    await page.goto(`/players/${made.player.id}`);
    await page.getByText(/tennis 315 ±7 kg·cm², found/).waitFor();
    await page.getByText('Programme: Find the ceiling').waitFor();

    // Back to the build that was too heavy: a plan from here to there.
    await openPlay(made);
    await button('Back to this build of round 2').click();
    await page.waitForURL(/\/build/);
    const { round } = await entryOf(made);
    expect([round?.why, round?.plans[0]?.placements.length]).toEqual(['back', 1]);
  });

  test('need not be begun for an answer: after a session the page proposes the one change that follows, and builds it', async () => {
    const made = await makeFitting(shop);
    await openPlay(made);
    await page.keyboard.press('n');
    await choose(page, 'Energy left at the end', 'enough');
    await choose(page, 'Arm', 'fine');
    await choose(page, 'Twists off centre', 'often');
    await page.keyboard.press('Control+Enter');
    await page.getByText('It twists off centre').waitFor();
    await page.getByText('This is the first step of “Steady the face”.').waitFor();
    await page.getByText('Ready plan').waitFor();
    await page.keyboard.press('a');
    await page.waitForURL(/build/);
    const { programmes, rounds } = await entryOf(made);
    expect(programmes.map(({ name }) => name)).toEqual(['settle-face']);
    expect(rounds.at(-1)?.plans.at(-1)?.placements.length).toBeGreaterThan(0);
    expect(rounds.at(-1)?.note).toMatch(/^It twists off centre: /);
  });

  test('stops for a sore arm: less load, and who to see', async () => {
    const made = await makeFitting(shop);
    await post(shop, `/fittings/${made.fitting.id}/programmes`, {
      key: key(),
      frameId: made.frame.id,
      name: 'climb',
    });
    await openPlay(made);
    await page.keyboard.press('n');
    // What must be answered is said beside it; nothing that was chosen is lost.
    await choose(page, 'Late contact', 'often');
    await button('Note it').click();
    await page.getByText('Required.').first().waitFor();
    await choose(page, 'Energy left at the end', 'enough');
    await choose(page, 'Arm', 'sore');
    await page.getByText(/see a physician or physiotherapist/).waitFor();
    await page.reload();
    await settled(page);
    await page.keyboard.press('n');
    expect(
      await page
        .getByRole('radiogroup', { name: 'Late contact' })
        .getByRole('radio', { name: 'often' })
        .isChecked(),
    ).toBe(true);
    await page.keyboard.press('Control+Enter');
    await title('Stop: the arm is sore').waitFor();
    await page.getByText(/see a physician or physiotherapist/).waitFor();
    expect(await button('Make the build sheet for this step').count()).toBe(0);
    // How the arm was is not on the player's page until it is asked for.
    await page.goto(`/players/${made.player.id}`);
    await page.getByRole('cell', { name: 'enough' }).waitFor();
    expect(await page.getByRole('cell', { name: 'sore' }).count()).toBe(0);
    await page.getByLabel('Show the arm and the words').check();
    await page.getByRole('cell', { name: 'sore' }).waitFor();
  });
});

test('a step that a guard speaks against is taken only with a reason', async () => {
  const made = await makeFitting(shop, { player: { ceilings: { tennis: 300 } } });
  const at = `/fittings/${made.fitting.id}`;
  await post(shop, `${at}/programmes`, { key: key(), frameId: made.frame.id, name: 'find-ceiling' });
  await post(shop, `${at}/sessions`, {
    key: key(),
    roundId: made.roundId,
    playedOn: '2026-11-20',
    energyLeft: 'plenty',
    arm: 'fine',
  });
  await openPlay(made);
  await title('2 g onto the tip').waitFor();
  await page.keyboard.press('a');
  const why = page.getByRole('textbox', { name: 'Reason to override' });
  await why.waitFor();
  await page.getByRole('dialog').getByText(/300/).waitFor();
  await page.keyboard.press('Control+Enter');
  // Without a reason it is refused, beside the field too.
  await expect.poll(() => page.getByRole('dialog').getByText(/300/).count()).toBe(2);
  await why.fill('that was before the winter');
  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/\/build/);
  const { round } = await entryOf(made);
  expect(round?.aims[0]?.guards[0]?.note).toBe('that was before the winter');
});

test('a player’s link opens its form on a phone, takes one session, and opens nothing else', async ({
  browser,
}) => {
  const made = await makeFitting(shop);
  const { code } = await post<{ code: string }>(shop, `/fittings/${made.fitting.id}/links`, {
    roundId: made.roundId,
  });
  const phone = await openPage(browser, shop, {
    viewport: { width: 390, height: 844 },
    extraHTTPHeaders: { 'x-forwarded-for': '192.0.2.9' },
  });
  await phone.page.goto(`/played/${code}`);
  await phone.page.getByText(/Quarr 97/).waitFor();
  expect(await phone.page.getByText(made.player.name).count()).toBe(0);
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await choose(phone.page, 'Energy left at the end', 'little');
  await choose(phone.page, 'Arm', 'fine');
  await phone.page.getByRole('button', { name: '90 minutes' }).click();
  await phone.page.getByRole('button', { name: 'Send' }).click();
  await phone.page.getByText('Thanks, it’s saved').waitFor();
  await phone.page.reload();
  await phone.page.getByText('Thanks, it’s saved').waitFor();
  // Nothing of the shop stands behind it.
  for (const path of [`/fittings/${made.fitting.id}/play`, '/players', '/']) {
    await phone.page.goto(path);
    await phone.page.getByRole('heading', { name: 'Sign in' }).waitFor();
  }
  expect(phone.errors).toEqual([]);
  await phone.page.context().close();

  await openPlay(made);
  await page.getByRole('cell', { name: 'little' }).waitFor();
  await button('Show the code').click();
  await page.getByText(/Only this machine reaches Kevro now/).waitFor();
});

test.describe('the shop’s day', () => {
  test('finds anything by Ctrl K, from within a field too, and goes there', async () => {
    await page.goto('/players');
    await page.getByRole('textbox', { name: 'Find a player' }).press('Control+k');
    const find = page.getByRole('combobox', { name: /A player, a frame/ });
    await find.fill('vl-231');
    await page.getByRole('option', { name: /VL-231, Velmond/ }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.getByRole('option', { name: /Liv Harrowdene, VL-231/, selected: true }).waitFor();
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/fittings\/f-liv\/play/);
    await page.keyboard.press('Control+k');
    await find.fill('nothing is called so');
    await page.getByText(/Nothing found/).waitFor();
    await page.keyboard.press('Escape');
    await find.waitFor({ state: 'detached' });
  });

  test('finds what is typed before the field is there', async () => {
    await page.goto('/players');
    await settled(page);
    await page.route(/SearchSheet/, async (route) => {
      await new Promise((later) => setTimeout(later, 600));
      await route.continue();
    });
    await page.keyboard.press('Control+k');
    // A “u” would show other units, and each letter another player.
    await page.keyboard.type('uvl-232');
    await page.keyboard.press('Backspace');
    await page.keyboard.type('1');
    await page.getByRole('combobox', { name: /A player, a frame/ }).press('Home');
    await page.keyboard.press('Delete');
    await page.getByRole('option', { name: /VL-231, Velmond/ }).waitFor();
    expect(await page.getByRole('combobox', { name: /A player, a frame/ }).inputValue()).toBe('vl-231');
  });

  test('groups what waits, narrows it by person, and opens it by one key', async () => {
    await page.goto('/');
    const again = page.getByRole('region', { name: 'To look at again' });
    await again.getByRole('link', { name: /Tobin Ashgrove/ }).waitFor();
    await page.getByRole('region', { name: 'Calibration due' }).getByRole('link').first().waitFor();
    await page.getByRole('textbox', { name: 'Find a player or a frame' }).fill('harrowdene');
    const todo = page.getByRole('region', { name: 'To do' });
    await todo
      .getByRole('link', { name: /Liv Harrowdene.*Find the ceiling: the next step is proposed/ })
      .waitFor();
    await todo.getByText('Ilka Morrow').waitFor({ state: 'detached' });
    await page.getByRole('heading', { name: 'Today' }).click();
    await page.keyboard.press('1');
    await page.waitForURL(/\/fittings\/f-liv\/play/);
  });

  test('works to the shop’s own numbers where it sets them', async () => {
    const made = await makeFitting(shop);
    await page.goto('/settings');
    await settled(page);
    await page.getByRole('textbox', { name: /^Weight, tolerance/ }).fill('2,5');
    await page.getByRole('textbox', { name: /^Twist weight, tolerance/ }).fill('-1');
    await button('Save').click();
    await page.getByText(/must be more than|out of range/).waitFor();
    await page.getByRole('textbox', { name: /^Twist weight, tolerance/ }).fill('');
    await button('Save').click();
    await expect
      .poll(async () => JSON.stringify((await shop.get<{ sports: object }>('/shop')).sports))
      .toContain('2.5');
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await settled(page);
    await page
      .getByRole('textbox', { name: /^Weight/ })
      .first()
      .fill('324');
    await page
      .locator('summary', { hasText: /2\.5 g/ })
      .first()
      .waitFor();
  });

  test('shows the demo once, and again only when it is asked for', async () => {
    await page.goto('/');
    await page.evaluate(() => localStorage.setItem('kevro-tour', 'new'));
    await page.reload();
    const tour = page.getByRole('region', { name: 'Tour of the demo' });
    await tour.getByText('1 of 10').waitFor();
    await tour.getByRole('button', { name: 'Next' }).press('Enter');
    await page.waitForURL(/\/measure/);
    await tour.getByRole('heading', { name: 'Measure' }).waitFor();
    for (let i = 2; i < 10; i++) await tour.getByRole('button', { name: 'Next' }).click();
    await tour.getByText('10 of 10').waitFor();
    await tour.getByRole('button', { name: 'Close' }).click();
    await page.reload();
    await settled(page);
    expect(await tour.count()).toBe(0);
    await page.getByRole('link', { name: 'help' }).click();
    await button('Take the tour of the demo').click();
    await tour.getByText('1 of 10').waitFor();
  });
});
