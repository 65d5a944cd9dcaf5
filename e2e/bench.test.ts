import { readFile } from 'node:fs/promises';
import { changeOutcome, expectedAfter, settleFrame, type Placement } from '@kevro/core';
import type { FittingView, FramePage, PlanRecord, RoundView } from '@kevro/contract';
import { button, expect, field, page, shop, test } from './harness';
import { makeFitting, makePlan, markSteps, measureFor, post, type Made } from './made';

// From a build sheet to a frame that is signed off.
const roundOf = async ({ fitting }: Made): Promise<RoundView> =>
  (await shop.get<FittingView>(`/fittings/${fitting.id}`)).frames[0]?.rounds[0] as RoundView;
const step = (title: RegExp) => page.locator('.steps > li').filter({ hasText: title });

async function planned(tolerance?: {
  massG: number;
  swingWeight: number;
}): Promise<{ made: Made; plan: PlanRecord }> {
  const made = await makeFitting(shop);
  return { made, plan: await makePlan(shop, made, tolerance) };
}
/** What should be read after a step, by the core. */
const expected = ({ frame, measurement }: Made, plan: PlanRecord, key: string) =>
  expectedAfter(
    {
      frame: settleFrame(frame.shape),
      before: measurement.specs,
      readings: measurement.uncertainty,
      dress: measurement.dress,
      change: plan,
      steps: plan.steps,
    },
    key,
  );

test.describe('a build', () => {
  test('says what to read after a step, points at what explains a surprise, and takes the reading once it is put right', async () => {
    const { made, plan } = await planned();
    await markSteps(shop, made, plan, ['weigh-before', 'strip-handle', 'cut', 'trial', 'measure-trial']);
    await page.goto(`/fittings/${made.fitting.id}/build`);
    const fix = step(/^Stick on: shoulders/);
    const { specs } = expected(made, plan, 'fix-head:p1');
    await fix.getByText(`Expect after this step ${specs.massG.toFixed(1)} ±`).waitFor();
    await fix.getByRole('checkbox').click();
    // What a tick brings moves what stands below it.
    await expect(fix.getByRole('checkbox')).toBeChecked();
    // Who is quicker than the server goes on all the same only when the measurement stands.
    await page.route(/\/api\/v1\/frames\/[\w-]+$/, async (route) => {
      await new Promise((done) => setTimeout(done, 700));
      await route.continue();
    });
    // Read at this step, without the strips: somebody forgot them.
    await fix.getByRole('link', { name: 'measure it' }).click();
    await page.getByRole('heading', { name: `Measure ${made.frame.tag}` }).waitFor({ state: 'attached' });
    const bare = expected(made, plan, 'strip-handle').specs;
    const read = async (of: typeof bare): Promise<void> => {
      await field(/^Weight/).fill(of.massG.toFixed(1));
      await field(/^Balance/).fill(of.balanceCm.toFixed(2));
      await field(/^Swing weight/).fill(of.swingWeight.toFixed(1));
      await field(/^Swing weight/).press('Enter');
      await page.getByText('in the middle of the build').waitFor();
      await button('Save measurement').click();
      await page.getByRole('link', { name: 'Go on to Build' }).click();
    };
    await read(bare);
    const alert = fix.getByRole('alert');
    await alert.getByText(/Off: weight 5\.8 g less/).waitFor();
    await alert.getByText('Nothing at the shoulders: is that piece on?').waitFor();
    await fix.getByRole('link', { name: 'measure it again' }).click();
    await read(specs);
    await fix.getByText('as expected', { exact: true }).waitFor();
    await alert.waitFor({ state: 'detached' });
    // Both readings stand with the step.
    const marks = (await roundOf(made)).marks.filter((m) => m.step === 'fix-head:p1' && m.measurementId);
    expect(marks).toHaveLength(2);
  });

  test('puts new strings in: chosen in Plan, weighed, noted in the log of the frame from the bench', async () => {
    const { made, plan } = await planned();
    await page.goto(`/fittings/${made.fitting.id}/plan`);
    await page.getByText('Change grips or strings').click();
    await page.getByRole('combobox', { name: 'Strings' }).press('ArrowDown');
    await page.getByRole('option', { name: 'new strings' }).click();
    await field(/^Weight/).fill('18.4');
    await field(/^Weight/).press('Tab');
    await page.getByText('Changed to new strings, 18.4 g').waitFor();
    await button('Make the build sheet').click();
    const strung = step(/^Put new strings in/);
    await strung.getByText('Then on it: new strings, 18.4 g.').waitFor();
    const steps = (await roundOf(made)).plans.at(-1);
    expect(steps?.id).not.toBe(plan.id);
    const before = steps?.steps.map(({ key }) => key).filter((k) => k !== 'restring' && k !== 'final-check');
    await markSteps(shop, made, steps as PlanRecord, before ?? []);
    await page.reload();
    await strung.getByRole('button', { name: 'note the new strings…' }).click();
    const form = page.getByRole('dialog', { name: 'New strings' });
    await form.getByRole('textbox', { name: 'Mains', exact: true }).fill('Corda Lisa');
    await form.getByRole('textbox', { name: 'Mains tension' }).fill('24');
    await form.getByRole('button', { name: 'Store' }).click();
    await strung.getByText(/^done/).waitFor();
    const { stringings } = await shop.get<FramePage>(`/frames/${made.frame.id}`);
    expect(stringings).toMatchObject([{ mains: 'Corda Lisa', mainsKg: 24, crossesKg: 24 }]);
    expect((await roundOf(made)).state.next?.step).toBe('final-check');
  });

  test('seals lead on a child’s frame in four coats, each with its time', async () => {
    const made = await makeFitting(shop, { player: { birthYear: new Date().getFullYear() - 17 } });
    const plan = await makePlan(shop, made);
    const before = plan.steps
      .map(({ key }) => key)
      .filter((k) => /^(weigh|strip|cut|trial|measure|fix)/.test(k));
    await markSteps(shop, made, plan, before);
    await page.goto(`/fittings/${made.fitting.id}/build`);
    const first = step(/^Seal the lead with a clear coat: 1 of 4/);
    await first.getByText(/Solvents and curing silicone: open a window/).waitFor();
    await first.getByRole('checkbox').click();
    await first.getByText(/Curing until .* 30 min left/).waitFor();
    expect((await roundOf(made)).state.next).toMatchObject({ because: 'setting', step: 'seal:2' });
    const calendar = await (
      await page.request.get(`/api/v1/fittings/${made.fitting.id}/calendar.ics`)
    ).text();
    expect(calendar).toContain(`${made.frame.tag} has set: seal the lead with a clear coat`);
  });

  test('keeps why a step was skipped and what was built otherwise, and what follows counts with it', async () => {
    const { made, plan } = await planned();
    await markSteps(shop, made, plan, ['weigh-before', 'strip-handle']);
    await page.goto(`/fittings/${made.fitting.id}/build`);
    const cut = step(/^Cut the pieces/);
    await cut.getByRole('button', { name: 'Skip…' }).click();
    await button('Skip it').click();
    await page.getByText('Give a reason: it is kept with the build.').waitFor();
    await field('Reason').fill('cut by Odo yesterday');
    await field('Reason').press('Enter');
    await cut.getByText('skipped').waitFor();
    await cut.getByText('cut by Odo yesterday').waitFor();
    await markSteps(shop, made, plan, ['trial', 'measure-trial']);
    await page.reload();
    const fix = step(/^Stick on: shoulders/);
    await fix.getByRole('button', { name: 'Built differently…' }).click();
    await field(/^Grams, all of it/).fill('5.4');
    await field(/^to/).fill('15.5');
    await button('Save as built').click();
    await fix.getByText('as built 5.40 g, 7.5 cm long (planned 5.76 g)').waitFor();
    const built = expected(made, plan, 'fill-handle:p2').specs.massG - 0.36;
    await step(/^Fill the handle/)
      .getByText(`Expect after this step ${built.toFixed(1)} ±`)
      .waitFor();
    expect((await roundOf(made)).marks.at(-1)).toMatchObject({
      step: 'fix-head:p1',
      asBuilt: [{ id: 'p1', massG: 5.4, startCm: 8, endCm: 15.5 }],
    });
    // A reading at the step takes nothing of it away.
    await post(shop, `/frames/${made.frame.id}/measurements`, {
      key: 'read after it was built otherwise',
      dress: { strings: true },
      specs: { massG: 319.9, balanceCm: 33.4, swingWeight: 329 },
      purpose: 'step',
      roundId: made.roundId,
      step: 'fix-head:p1',
    });
    await page.reload();
    await fix.getByText('as built 5.40 g, 7.5 cm long (planned 5.76 g)').waitFor();
  });

  test('takes over where putty dabs ended in the trial: they are the new plan', async () => {
    const { made, plan } = await planned();
    await markSteps(shop, made, plan, ['weigh-before', 'strip-handle', 'cut']);
    await page.goto(`/fittings/${made.fitting.id}/build`);
    await step(/^Trial/)
      .getByRole('link', { name: /^Used putty dabs/ })
      .click();
    const pieces = page.locator('.pieces .piece');
    await pieces.first().waitFor();
    // The strips come off on the page as they did on the frame; a dab of putty lies where it ended.
    while ((await pieces.count()) > 0) {
      await pieces.first().click();
      await button('take off').click();
    }
    await page.getByText('Add a piece').click();
    await page.getByRole('combobox', { name: 'Place' }).press('Enter');
    await page.getByRole('option').first().click();
    await button('Add').click();
    const own = page.getByRole('group', { name: 'The chosen piece' });
    await own.getByRole('textbox', { name: /^Grams/ }).fill('5.2');
    await own.getByRole('textbox', { name: /^Grams/ }).press('Enter');
    await button('Make the build sheet').click();
    await page.waitForURL(/build/);
    const now = (await roundOf(made)).plans.at(-1);
    expect(now?.id).not.toBe(plan.id);
    expect(now).toMatchObject({ byHand: true, placements: [{ massG: 5.2 }] });
    // The first plan is kept with what was done of it.
    expect((await roundOf(made)).state.lapsed[plan.id]).toBe('another-plan');
  });

  test('has a timer for what sets, which a reload does not lose, and a calendar file', async () => {
    const { made, plan } = await planned();
    await markSteps(
      shop,
      made,
      plan,
      plan.steps.map(({ key }) => key).filter((k) => !/regrip|final/.test(k)),
    );
    await page.goto(`/fittings/${made.fitting.id}/build`);
    const fill = step(/^Fill the handle/);
    const timer = fill.getByRole('timer');
    await timer.getByText(/Curing until .*: 1[12] h.* left/).waitFor();
    await page.reload();
    await timer.getByText(/Curing until .*: 1[12] h.* left/).waitFor();
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      timer.getByRole('link', { name: 'Add to calendar' }).click(),
    ]);
    expect(await readFile(await file.path(), 'utf8')).toContain('BEGIN:VEVENT');
    await page.goto('/');
    await page
      .getByRole('region', { name: 'Drying and curing' })
      .getByText(/1[12] h.* left, until/)
      .first()
      .waitFor();
    // A template comes as a file too.
    await page.goto(`/fittings/${made.fitting.id}/build`);
    const [pdf] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'PDF, Letter' }).click(),
    ]);
    expect((await readFile(await pdf.path())).subarray(0, 5).toString()).toBe('%PDF-');
  });
});

test.describe('the check', () => {
  const allSteps = (plan: PlanRecord): string[] =>
    plan.steps.map(({ key }) => key).filter((k) => k !== 'final-check');

  test('is measured from its station, brought in by the smallest trim, measured again and signed off, by keys', async () => {
    const { made, plan } = await planned();
    await markSteps(shop, made, plan, allSteps(plan));
    await page.goto(`/fittings/${made.fitting.id}/check`);
    await page.getByText('Not checked yet').waitFor();
    await page.keyboard.press('m');
    await page.waitForURL(/measure\?for=check/);
    await field(/^Weight/).fill((plan.specs.massG + 0.2).toFixed(1));
    await field(/^Balance/).fill(plan.specs.balanceCm.toFixed(2));
    await field(/^Swing weight/).fill((plan.specs.swingWeight + 2.6).toFixed(1));
    await field(/^Swing weight/).press('Enter');
    await button('Save measurement').click();
    await page.getByRole('link', { name: 'Go on to Check' }).click();
    await page
      .getByText(/Not yet: swing weight 2\.6 kg·cm² over|Not yet: swing weight 2\.6 kg·cm² short/)
      .waitFor();
    await page.getByText(/% sure it is really in tolerance/).waitFor();
    const trims = page.getByRole('radio');
    await page
      .getByText(/Take .* off the strips at the shoulders, each 8\.0 → /)
      .first()
      .waitFor();
    expect(await trims.count()).toBeGreaterThan(1);
    await page.keyboard.press('t');
    await page.waitForURL(/build/);
    const trim = (await roundOf(made)).plans.at(-1);
    expect(trim?.trims).toBe(plan.id);
    expect(trim?.steps.map(({ kind }) => kind)).not.toContain('weigh-before');
    await markSteps(shop, made, trim as PlanRecord, allSteps(trim as PlanRecord));
    await measureFor(shop, made, 'check', (trim as PlanRecord).specs);
    await page.goto(`/fittings/${made.fitting.id}/check`);
    await page.getByText('Yes: it measures right').waitFor();
    await field('Signed off by').fill('Maud');
    await button('Sign off').click();
    await page.getByText('all in tolerance').waitFor();
    const round = await roundOf(made);
    expect(round.signOffs).toMatchObject([{ passed: true, by: 'Maud' }]);
    const { frame } = await shop.get<FramePage>(`/frames/${made.frame.id}`);
    const massG = frame.weights.reduce((sum, w) => sum + w.massG, 0);
    const checked = round.measurements.find(({ id }) => id === trim?.startId);
    const change = (trim?.specs.massG ?? 0) - (checked?.specs.massG ?? 0);
    expect(massG).toBeCloseTo(9.76 + change, 6);
    const [record] = await Promise.all([page.waitForEvent('download'), button('Its record as JSON').click()]);
    const json = JSON.parse(await readFile(await record.path(), 'utf8')) as FramePage;
    expect(json.frame.id).toBe(made.frame.id);
    await page.getByRole('link', { name: 'The spec card' }).click();
    await page.getByRole('heading', { name: 'Velmond Quarr 97' }).waitFor();
  });

  test('is signed off out of tolerance only with a note', async () => {
    const { made, plan } = await planned();
    await markSteps(shop, made, plan, allSteps(plan));
    await measureFor(shop, made, 'check', { ...plan.specs, massG: plan.specs.massG + 30 });
    // The parts of the shop come after the ways were worked out, which then are worked out anew: what was chosen stays.
    let come = (): void => undefined;
    const coming = new Promise<void>((done) => (come = done));
    await page.route('**/api/v1/parts', async (route) => {
      await coming;
      await route.continue();
    });
    await page.goto(`/fittings/${made.fitting.id}/check`);
    await page.getByText('No trim of one or two pieces fixes this.').waitFor();
    await page.getByText('Accept as is').click();
    await button('Sign off out of tolerance').waitFor();
    const came = page.waitForResponse('**/api/v1/parts');
    come();
    await came;
    await page.getByText('No trim of one or two pieces fixes this.').waitFor();
    expect(await page.getByRole('radio', { name: /^Accept as is/ }).isChecked()).toBe(true);
    await button('Sign off out of tolerance').click();
    await page.getByText('Out of tolerance. Trim it, or give a reason').waitFor();
    expect((await roundOf(made)).signOffs).toEqual([]);
    await field('Reason').fill('he likes it heavy');
    await button('Sign off out of tolerance').click();
    await page.getByText('out of tolerance', { exact: true }).waitFor();
    expect((await roundOf(made)).signOffs).toMatchObject([{ passed: false, note: 'he likes it heavy' }]);
    // Measured again, it is judged and signed off again.
    await measureFor(shop, made, 'check', plan.specs);
    await page.reload();
    await page.getByText('Yes: it measures right').waitFor();
    await button('Sign off').click();
    await page.getByText('all in tolerance', { exact: true }).waitFor();
    expect((await roundOf(made)).signOffs.map(({ passed }) => passed)).toEqual([false, true]);
  });

  test('holds the frames of a set against one another, in one dress', async () => {
    const made = await makeFitting(shop);
    const other = await makeFitting(shop);
    const set = await post<FittingView>(shop, '/fittings', {
      playerId: made.player.id,
      frameIds: [made.frame.id, other.frame.id],
      evenIfOpen: true,
    });
    const [a, b] = set.frames.map(({ frame, rounds }) => ({ frame, roundId: rounds[0]?.id ?? '' }));
    const inRound = { ...made, ...a, fitting: set } as Made;
    const specs = { ...made.measurement.specs };
    await measureFor(shop, inRound, 'found', specs);
    // The second wears an overgrip more: without it, it is 2 g heavier.
    await measureFor(
      shop,
      { ...other, ...b, fitting: set } as Made,
      'found',
      { ...specs, massG: specs.massG + 5.5 + 2, balanceCm: specs.balanceCm - 0.3 },
      { strings: true, overgrips: 2 },
    );
    const view = await shop.get<FittingView>(`/fittings/${set.id}`);
    inRound.measurement = view.frames[0]?.rounds[0]?.measurements.at(-1) as Made['measurement'];
    const plan = await makePlan(shop, inRound);
    expect(plan.roundId).toBe(inRound.roundId);
    await page.goto(`/fittings/${set.id}/check?frame=${made.frame.id}`);
    const table = page.getByRole('region', { name: 'The set' });
    await table.getByRole('cell', { name: '322.0' }).waitFor();
    await table.getByText(new RegExp(`${made.frame.tag} and ${other.frame.tag}`)).waitFor();
  });
});

test.describe('what builds taught', () => {
  test('is said beside the check, offered in Stock with its evidence, taken, and taken back', async () => {
    const { made, plan } = await planned();
    const steps = plan.steps.map(({ key }) => key).filter((k) => k !== 'final-check');
    await markSteps(shop, made, plan, steps);
    // Weight and swing weight as if the tape were 12 % heavier than it says.
    const tape = plan.placements.find(({ id }) => id === 'p1');
    const heavier = changeOutcome(
      settleFrame(made.frame.shape),
      made.measurement.specs,
      made.measurement.dress,
      {
        ...plan,
        placements: plan.placements.map((p) =>
          p === tape ? { ...p, massG: 1.12 * p.massG } : p,
        ) as Placement[],
      },
    ).specs;
    await measureFor(shop, made, 'check', heavier);
    await page.goto(`/fittings/${made.fitting.id}/check`);
    const taught = page.getByRole('region', { name: 'What builds taught' });
    await taught.getByText(/One build with lead tape 9 mm .*: \+\d/).waitFor();
    await taught.getByRole('link', { name: 'Look at the evidence' }).click();
    const name = plan.parts.find(({ id }) => id === tape?.partId)?.name ?? '';
    await page.getByRole('cell', { name: new RegExp(made.frame.tag) }).waitFor();
    await button(`Use this correction: ${name}`).click();
    await button(`Take back: ${name}`).waitFor();
    const density = async (): Promise<number> => {
      const rows = await shop.get<{ part: { id: string; gPerCm: number } }[]>('/parts');
      return rows.find(({ part }) => part.id === tape?.partId)?.part.gPerCm ?? NaN;
    };
    expect(await density()).toBeGreaterThan(0.36);
    await button(`Take back: ${name}`).click();
    await button(`Use this correction: ${name}`).waitFor();
    expect(await density()).toBe(0.36);
  });
});
