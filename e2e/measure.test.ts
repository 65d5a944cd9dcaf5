import type { CalibrationRecord, FramePage, Measurement } from '@kevro/contract';
import { button, expect, field, page, press, shop, test, until } from './harness';
import { instrument, put, readings } from './on-the-page';
import { makeFitting, post } from './made';

/** How long a stand-in may take on a busy machine, ms. */
const LONG_MS = 60_000;

const measurements = (frame: string): Promise<Measurement[]> => shop.get(`/frames/${frame}/measurements`);
const ready = () =>
  button(/^Take m$|^Take$/)
    .first()
    .waitFor();

test.describe('a capture', () => {
  test('by the stand-ins, with keys alone', async () => {
    await page.goto('/fittings/f-wren/measure');
    await page.getByText('First: check what’s on it').waitFor();
    await ready();
    const steps: [number, string][] = [
      [1, 'massG'],
      [1, 'balanceCm'],
      [2, 'swingWeight'],
      [2, 'twistWeight'],
      [1, 'leftRightG'],
    ];
    let taken = 0;
    for (const [times, quantity] of steps) {
      if (await button(/^Put VL-118 on/).isVisible()) await press('p');
      await page.getByText('On it: VL-118').waitFor();
      // A stand-in takes all that is asked for, one after the other.
      await press('m');
      await expect
        .poll(async () => (await readings('vl-118')).length, { timeout: LONG_MS })
        .toBe(taken + times);
      await ready();
      taken += times;
      expect((await readings('vl-118')).at(-1)?.quantity).toBe(quantity);
      await press('ArrowDown');
    }
    // A reload in the middle keeps every reading.
    await page.reload();
    await button('Save measurement').waitFor();
    await expect.poll(async () => (await readings('vl-118')).length).toBe(taken);
    await button('Save measurement').focus();
    await press('Enter');
    await page.getByRole('link', { name: 'Go on to Compare' }).waitFor();
    const [stored, ...more] = await measurements('vl-118');
    expect(more).toEqual([]);
    const { id } = (await instrument('machine-front')).calibration as CalibrationRecord;
    expect(stored?.how.swingWeight).toEqual({
      means: ['instrument'],
      count: 2,
      instruments: ['machine-front'],
      calibrations: [id],
    });
    expect(stored?.how.twistWeight?.means).toEqual(['edge-on']);
    expect(stored?.estimated).toEqual([]);
    expect(stored?.leftRight).not.toBeNull();
    // The stand-in showed a frame as the maker states it, in the dress that was said.
    const { frame } = await shop.get<FramePage>('/frames/vl-118');
    expect(
      Math.abs((stored?.specs.massG ?? 0) - ((frame.nominal?.specs.massG ?? 0) + 16 + 5.5)),
    ).toBeLessThan(1);
  });

  test('by typing in mixed units, with an outlier set aside and the rest in one line', async () => {
    await page.goto('/fittings/f-tobin/measure');
    await button('Confirm').click();
    for (const text of ['10.6 oz', '300,6', '300.2', '318']) {
      const before = (await readings('vl-207')).length;
      await field(/^Weight/).fill(text);
      await field(/^Weight/).press('Shift+Enter');
      await expect.poll(async () => (await readings('vl-207')).length).toBe(before + 1);
    }
    await page.getByText('318.00 looks off.').or(page.getByText('318.0 looks off')).first().waitFor();
    await button(/Weight reading 318.*ignore it/).click();
    await button(/Weight reading 318.*restore it/).waitFor();
    await field(/^Swing weight/).focus();
    await field(/^Swing weight/).blur();
    await press('/');
    await page
      .getByRole('dialog')
      .getByRole('textbox', { name: 'Readings' })
      .fill('12.9 in, sw 303, twist 13.2, moon');
    await page.getByText('Not understood: “moon”').waitFor();
    await press('Enter');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await expect.poll(async () => (await readings('vl-207')).length).toBe(7);
    // A click too many stores nothing twice.
    const before = (await measurements('vl-207')).length;
    await button('Save measurement').dblclick();
    await page.getByRole('link', { name: /^Go on to/ }).waitFor();
    const all = await measurements('vl-207');
    expect(all.length).toBe(before + 1);
    const { specs, how, dress } = all[0] as Measurement;
    expect(specs.massG).toBeCloseTo((10.6 * 28.349523125 + 300.6 + 300.2) / 3, 6);
    expect(specs.balanceCm).toBeCloseTo(12.9 * 2.54, 6);
    expect(specs.swingWeight).toBe(303);
    expect(how.massG?.count).toBe(3);
    expect(dress.strings).toBe(true);
  });

  test('by a pendulum and an estimate, on a frame of another sport', async () => {
    await page.clock.install();
    await page.goto('/frames/hz-003/measure');
    await field(/^Weight/).fill('229');
    await field(/^Weight/).press('Enter');
    await field(/^Balance/).fill('235 mm');
    await field(/^Balance/).press('Enter');
    await expect.poll(async () => (await readings('hz-003')).length).toBe(2);
    await page.getByRole('combobox', { name: 'Swing weight by' }).press('Enter');
    await page.getByRole('option', { name: 'pendulum and stopwatch' }).click();
    await page.getByText(/Most accurate hung [\d.]+ cm from the butt/).waitFor();
    await field(/^Hangs at/).fill('1');
    await field(/^Full swings/).fill('2');
    await field(/^Full swings/).blur();
    // This paddle's period from 1 cm: T = 2π √(I / (M g d)) ≈ 1.10 s for a swing weight of about 115.
    await press(' ');
    await button(/^Stop after 2/).waitFor();
    await page.clock.fastForward(2150);
    await press(' ');
    await expect.poll(async () => (await readings('hz-003')).length).toBe(3);
    const timed = (await readings('hz-003')).at(-1);
    expect(timed).toMatchObject({ means: 'pendulum', timing: { pivotCm: 1, swings: 2 } });
    // Timed longer by hand, typed.
    await field(/^Full swings/).fill('20');
    await field(/^Time/).fill('21.66');
    await field(/^Time/).press('Enter');
    await expect.poll(async () => (await readings('hz-003')).length).toBe(4);
    await button('Take Twist weight').click();
    await page.getByRole('combobox', { name: 'Twist weight by' }).press('Enter');
    await page.getByRole('option', { name: /^estimate/ }).click();
    await button(/^Estimate/).click();
    await page.getByRole('group', { name: 'Twist weight' }).getByText('est.').waitFor();
    await button('Save measurement').click();
    await page.getByRole('link', { name: 'Go to HZ-003' }).click();
    const [stored] = await measurements('hz-003');
    // m ω² d from the typed timing alone: I = M g d (T/2π)², moved to the hand axis at 5 cm.
    const inertia =
      (229 * 980.665 * 22.5 * (21.66 / 20 / (1 + (8 * Math.PI) ** 2 / 180 ** 2 / 16)) ** 2) /
      (2 * Math.PI) ** 2;
    const swing = (inertia + 229 * (18.5 ** 2 - 22.5 ** 2)) / 1000;
    expect(Math.abs((stored?.specs.swingWeight ?? 0) - swing)).toBeLessThan(
      2 * (stored?.uncertainty.swingWeight ?? 0),
    );
    expect(stored?.estimated).toEqual(['twistWeight']);
    await page.getByText(/est\./).first().waitFor();
    await page.goto('/frames');
    await page
      .getByRole('row', { name: /HZ-003/ })
      .getByText('est.')
      .waitFor();
  });

  test('is judged at once: more weight than last time, and a swing weight that cannot be', async () => {
    await page.goto('/frames/bd-052/measure');
    await field(/^Weight/).fill('330');
    await page.getByText(/8\.9 g more.* than on .*, strung and gripped the same/).waitFor();
    await field(/^Balance/).fill('33.1');
    await page
      .getByText(/near the tip|near the shoulders/)
      .first()
      .waitFor();
    await field(/^Swing weight/).fill('150');
    await page.getByText('Cannot be.').waitFor();
    page.on('dialog', (dialog) => void dialog.accept());
  });

  test('of weight and balance alone is stored with its swing weight estimated, by one click', async () => {
    const { frame } = await makeFitting(shop);
    await page.goto(`/frames/${frame.id}/measure`);
    await button('Confirm').click();
    await field(/^Weight/).fill('318');
    await field(/^Balance/).fill('32.4');
    await button('Estimate it from weight and balance').click();
    await button('Save measurement').click();
    await expect.poll(async () => (await measurements(frame.id)).length).toBe(2);
    const [stored] = await measurements(frame.id);
    expect(stored).toMatchObject({ estimated: ['swingWeight'], specs: { massG: 318, balanceCm: 32.4 } });
    expect(stored?.specs.swingWeight).toBeGreaterThan(280);
  });
});

test.describe('an instrument that drops out', () => {
  test.use({ ownProcess: true });
  test('is shown, and the reading goes on with the swings it had, over a reload', async () => {
    await page.goto('/frames/ot-015/measure');
    await button('Take Swing weight').click();
    await ready();
    await button(/^Put OT-015 on/).click();
    await page.getByText('On it: OT-015').waitFor();
    await press('m');
    // As the server has it: a busy page may show the swings only when they are over.
    await until(async () => (await instrument('machine-front')).reading?.swings.length);
    await put('/instruments/machine-front/stand-in', { plugged: false });
    await page.getByText(/Front machine is lost\. [12] of 3 swings are kept/).waitFor();
    const kept = (await instrument('machine-front')).reading?.swings ?? [];
    expect(kept.length).toBeGreaterThan(0);
    await page.reload();
    await button('Take Swing weight').click();
    await page.getByText(/Front machine is lost/).waitFor();
    expect(await readings('ot-015')).toEqual([]);
    await put('/instruments/machine-front/stand-in', { plugged: true });
    await expect.poll(async () => (await readings('ot-015')).length, { timeout: LONG_MS }).toBe(1);
    await page.getByText(/warming up/).waitFor();
    await page.getByRole('group', { name: 'Swing weight' }).getByText('±').waitFor();
    expect(await readings('ot-015')).toHaveLength(1);
  });
});

test.describe('a sport that quotes swing weights about more than one axis', () => {
  test('asks about which the typed ones are, once, and moves them', async () => {
    const frame = await post<{ id: string }>(shop, '/frames', {
      tag: 'BD-AXIS',
      maker: 'Oskerra',
      model: 'Reed',
      shape: { sport: 'badminton', lengthCm: 67.5 },
    });
    await page.goto(`/frames/${frame.id}/measure`);
    await page.getByText(/Not said yet: counted about/).waitFor();
    await page.getByRole('combobox', { name: 'Swing weights are about' }).press('Enter');
    await page.getByRole('option', { name: 'the end of the butt' }).click();
    await page.getByText(/Not said yet/).waitFor({ state: 'detached' });
    await field(/^Weight/).fill('88');
    await field(/^Balance/).fill('29.5');
    await field(/^Swing weight/).fill('125');
    await page.reload();
    await page.getByText(/Not said yet/).waitFor({ state: 'detached' });
    await button('Save measurement').click();
    await expect.poll(async () => (await measurements(frame.id)).length).toBe(1);
    const [stored] = await measurements(frame.id);
    const byHand = 125 + (88 * ((29.5 - 10.16) ** 2 - 29.5 ** 2)) / 1000;
    expect(stored?.specs.swingWeight).toBeCloseTo(byHand, 6);
  });
});
