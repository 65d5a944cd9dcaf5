import type { AimRecord, FittingView, Measurement } from '@kevro/contract';
import { button, expect, field, page, shop, test } from './harness';
import { key, makeFitting, post, type Made } from './made';

// An aim is come to from anywhere, says what it means, and is set past a warning only with a reason.
const way = (name: string) => page.getByRole('radio', { name, exact: true }).click();
const aimsOf = async ({ fitting }: Made): Promise<AimRecord[]> =>
  (await shop.get<FittingView>(`/fittings/${fitting.id}`)).frames[0]?.rounds[0]?.aims ?? [];
async function set(made: Made): Promise<AimRecord> {
  const before = (await aimsOf(made)).length;
  await button('Set this aim').click();
  await expect.poll(async () => (await aimsOf(made)).length).toBe(before + 1);
  return (await aimsOf(made)).at(-1) as AimRecord;
}
const change = async ({ player }: Made, more: object): Promise<void> => {
  const { id, archived: _, hasArmHistory: __, ...rest } = player;
  expect((await shop.send('PUT', `/players/${id}`, { ...rest, ...more })).status).toBe(200);
};

test.describe('an aim is come to', () => {
  test('from another frame, in the dress of this one', async () => {
    const made = await makeFitting(shop);
    const other = await makeFitting(shop, { frame: { onIt: {} } });
    // The other was measured without strings: 16 g and near 30 in swing weight are missing on it.
    await post<Measurement>(shop, `/frames/${other.frame.id}/measurements`, {
      key: key(),
      dress: { overgrips: 1 },
      specs: { massG: 309, balanceCm: 32.1, swingWeight: 295, twistWeight: 13 },
      purpose: 'later',
    });
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('Another frame');
    await page.getByRole('combobox', { name: 'Match this frame' }).fill(other.frame.tag);
    await page.getByRole('option', { name: new RegExp(other.frame.tag) }).click();
    await expect.poll(() => field(/^Weight/).inputValue()).toMatch(/^325/);
    const aim = await set(made);
    expect(aim).toMatchObject({ way: 'frame', source: { frameId: other.frame.id, share: 1 } });
    expect(aim.target.massG?.value).toBeCloseTo(325, 0);
    // Come back to, it is said by its tag.
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await expect
      .poll(() => page.getByRole('combobox', { name: 'Match this frame' }).inputValue())
      .toBe(other.frame.tag);
  });

  test('from the guide that suits the player, whose reasons are said; a growing one goes half the way', async () => {
    const made = await makeFitting(shop);
    await change(made, { birthYear: new Date().getFullYear() - 15, levelScale: 5 });
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('A guide');
    await page.getByText('still growing').waitFor();
    await page.getByText('How far: 50 % of the way').waitFor();
    // Both schools of swing weight stand side by side.
    await page.getByText('As heavy as you can handle').waitFor();
    await page.getByText('Never late', { exact: true }).waitFor();
    const aim = await set(made);
    expect(aim).toMatchObject({ way: 'guide', source: { guide: 'strong-adult', share: 0.5 } });
    // Half the way from 315 to the middle of 308 to 330.
    expect(aim.target.swingWeight?.value).toBe(317);
  });

  test('from complaints, each with what it moves; those of the record only when asked for', async () => {
    const made = await makeFitting(shop);
    await change(made, { bothers: ['late', 'sore-arm'] });
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('Complaints');
    const late = page.getByRole('checkbox', { name: /late on the ball/ });
    expect(await late.isChecked()).toBe(false);
    await button('Use the player’s complaints').click();
    expect(await late.isChecked()).toBe(true);
    await page.getByText('physician or physiotherapist').first().waitFor();
    const aim = await set(made);
    expect(aim).toMatchObject({ way: 'complaints', source: { bothers: ['late', 'sore-arm'] } });
    expect(aim.target.swingWeight?.value).toBe(299);
  });

  test('aims at one number at least', async () => {
    const { fitting } = await makeFitting(shop);
    await page.goto(`/fittings/${fitting.id}/aim`);
    await button('Set this aim').click();
    await page.getByRole('alert').filter({ hasText: 'Aim at one number at least.' }).waitFor();
    await field(/^Weight/).fill('3250');
    await button('Set this aim').click();
    await page.getByText(/Unlikely for this sport.*between/).waitFor();
    // A click takes hold of the whole number: what is typed replaces it.
    await field(/^Weight/).click();
    await page.keyboard.type('325');
    // What is wrong behind a line is shown, also where nobody has opened it since.
    const close = page.getByRole('group').filter({ has: field(/^Weight/) });
    await close.locator('summary').click();
    await close.getByRole('textbox', { name: /^within ±/ }).fill('a bit');
    await page.reload();
    await expect.poll(() => field(/^Weight/).inputValue()).toBe('325');
    await expect.poll(() => close.getByRole('textbox', { name: /^within ±/ }).count()).toBe(0);
    await button('Set this aim').click();
    await close.getByText('This is not a number.').waitFor();
    await close.getByRole('textbox', { name: /^within ±/ }).fill('1.5');
    await button('Set this aim').click();
    await page.waitForURL(/plan/);
  });

  test('in the lanes, by keys and by dragging, and what it means follows', async () => {
    const made = await makeFitting(shop);
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('My numbers');
    await field(/^Swing weight/).fill('320');
    const aim = page.getByRole('slider', { name: 'Aim of swing weight' });
    await aim.focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => field(/^Swing weight/).inputValue()).toBe('326');
    await page.getByText('about 3 % harder to swing').waitFor();
    const box = (await aim.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => Number(await field(/^Swing weight/).inputValue())).toBeLessThan(326);
    await page.getByText(/Reachable with .* of such builds pass the first check/).waitFor();
  });
});

test.describe('where it is played', () => {
  test('moves the balance by half a step, and the aim says why', async () => {
    const made = await makeFitting(shop);
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('My numbers');
    await field(/^Balance/).fill('32.4');
    await button('hot, fast courts').click();
    await expect.poll(() => field(/^Balance/).inputValue()).toBe('32.25');
    const aim = await set(made);
    expect(aim.target.balanceCm?.value).toBeCloseTo(32.25, 9);
    expect(aim.note).toBe('for hot and fast play');
  });
});

test.describe('guards', () => {
  test('speak with their reason; a strong one is gone past only with a note, which stands with the aim', async () => {
    const made = await makeFitting(shop);
    await change(made, { ceilings: { tennis: 318 } });
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('My numbers');
    await field(/^Swing weight/).fill('329');
    await page.getByText(/11 kg·cm² above the ceiling/).waitFor();
    await button('Set this aim').click();
    await page.getByText('Give a reason beside').waitFor();
    expect(await aimsOf(made)).toEqual([]);
    await field('Reason to override').fill('a trial for one week');
    // By its key: what is said of the reason may still move the line.
    await page.locator('summary').filter({ hasText: 'Notes' }).press('Enter');
    await field('Decided by').fill('Maud');
    const aim = await set(made);
    expect(aim.guards).toEqual([{ code: 'over-ceiling', note: 'a trial for one week' }]);
    expect(aim.by).toBe('Maud');
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await page.getByText('Targets set').click();
    await page.getByText('despite a warning: a trial for one week').waitFor();
  });

  test('an aim out of reach is changed to the nearest by one click', async () => {
    const made = await makeFitting(shop);
    await page.goto(`/fittings/${made.fitting.id}/aim`);
    await way('My numbers');
    await field(/^Weight/).fill('322');
    await field(/^Balance/).fill('34.5');
    await button('Take the nearest').click();
    await expect.poll(async () => Number(await field(/^Balance/).inputValue())).toBeLessThan(34.4);
    await page.getByRole('button', { name: 'Take the nearest' }).waitFor({ state: 'detached' });
  });
});
