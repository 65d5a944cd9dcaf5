import type { PartRow } from '@kevro/contract';
import { Application, expect, openPage, settled, test } from './harness';
import { makeFitting } from './made';
import { inLight, problemsOf } from './looked-at';

// What is typed stays until it is stored or dropped on purpose; what is stored can be put right.

test.describe('a shop with nothing in it', () => {
  test('is asked a few things and leads to a first fitting, of the sport that it fits and with parts to put on', async ({
    browser,
  }) => {
    const empty = new Application(undefined, '');
    await empty.start();
    const opened = await openPage(browser, empty);
    const there = opened.page;
    try {
      await there.goto('/');
      await there.getByRole('textbox', { name: 'Name' }).fill('Bench & Bow');
      await there.getByText('Badminton', { exact: true }).click();
      await there.getByRole('textbox', { name: '100 cm on the scale, g' }).first().fill('11.6');
      await there.getByRole('button', { name: 'Start the first fitting' }).click();
      const inDialog = (title: string) => there.getByRole('dialog', { name: title });
      await inDialog('Open a fitting').getByRole('button', { name: 'New player' }).click();
      await inDialog('Add a player').getByRole('textbox', { name: 'Name' }).fill('Signe Lindqvist');
      await inDialog('Add a player').getByRole('button', { name: 'Add' }).click();
      await inDialog('Open a fitting').getByRole('button', { name: 'New frame' }).click();
      for (const [name, value] of [
        ['Tag', 'A-1'],
        ['Maker', 'Oskerra'],
        ['Model', 'Tide 98'],
      ] as const) {
        await inDialog('Add a frame').getByRole('textbox', { name, exact: true }).fill(value);
      }
      await inDialog('Add a frame').getByRole('button', { name: 'Add', exact: true }).click();
      await inDialog('Open a fitting').getByText('A-1').waitFor();
      await inDialog('Open a fitting').getByRole('button', { name: 'Open and measure' }).click();
      await there.waitForURL(/measure/);
      await there.locator('header').getByText('Signe Lindqvist').filter({ visible: true }).waitFor();
      const [frame] = (await empty.get<{ rows: { shape: { sport: string } }[] }>('/frames')).rows;
      expect(frame?.shape.sport).toBe('badminton');
      const parts = await empty.get<PartRow[]>('/parts');
      expect(parts.map(({ part }) => part.name)).toContain('Overgrip');
      expect(parts.find(({ part }) => part.name === 'Lead tape 6 mm')?.part).toMatchObject({ gPerCm: 0.116 });

      // What is typical is weighed by one field.
      await there.goto('/stock');
      await there.getByRole('button', { name: 'Weigh Handle putty' }).click();
      await inDialog('Weigh Handle putty').getByRole('textbox').fill('17.4');
      await there.keyboard.press('Enter');
      await there
        .getByRole('row', { name: /Handle putty 1\.74/ })
        .or(there.getByRole('row', { name: /Handle putty putty 1\.74/ }))
        .waitFor();
      expect(opened.errors).toEqual([]);
    } finally {
      await there.context().close();
      await empty.remove();
    }
  });

  test('goes on without an answer; the same parts are offered where a plan has nothing to put on', async ({
    browser,
  }) => {
    const empty = new Application(undefined, '');
    await empty.start();
    const { page: there, errors } = await openPage(browser, empty);
    try {
      await there.goto('/');
      await there.getByRole('button', { name: 'skip and start a fitting' }).click();
      await there.getByRole('dialog', { name: 'Open a fitting' }).waitFor();
      await there.keyboard.press('Escape');
      await there.getByText('No open fittings.').waitFor();
      expect(await empty.get<PartRow[]>('/parts')).toEqual([]);

      const { fitting, roundId } = await makeFitting(empty);
      const to = (value: number, tolerance: number) => ({ value, tolerance, priority: 'want' });
      const target = { massG: to(325, 1.5), swingWeight: to(320, 2) };
      await empty.send('POST', `/fittings/${fitting.id}/aims`, { roundId, way: 'by-hand', target });
      await there.goto(`/fittings/${fitting.id}/plan`);
      await there.getByRole('button', { name: 'Add these to Stock' }).click();
      await there.getByText('all in tolerance').first().waitFor();
      expect((await empty.get<PartRow[]>('/parts')).length).toBeGreaterThan(3);
      expect(errors).toEqual([]);
    } finally {
      await there.context().close();
      await empty.remove();
    }
  });

  test('is asked on a page that can be read, used by keys and pressed by finger: three widths, two themes', async ({
    browser,
  }) => {
    const empty = new Application(undefined, '');
    await empty.start();
    const { page: there, errors } = await openPage(browser, empty);
    try {
      await inLight(there);
      await there.goto('/');
      await there.getByRole('heading', { name: 'Set up your bench' }).waitFor();
      await settled(there);
      expect(await problemsOf(there)).toEqual([]);
      expect(errors).toEqual([]);
    } finally {
      await there.context().close();
      await empty.remove();
    }
  });
});
