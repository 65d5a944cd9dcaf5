import type { SetupPage, SetupRow } from '@kevro/contract';
import { button, dialog, expect, page, settled, shop, test } from './harness';
import { makeFitting, post } from './made';

const rows = async (query: string) => (await shop.get<{ rows: SetupRow[] }>(`/setups?${query}`)).rows;
const csv = (text: string, name = 'list.csv') => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });

test.describe('a list of setups is read in', () => {
  test('its columns are said, its bad rows mended in place or skipped, and it is stored whole', async () => {
    await page.goto('/setups');
    await button('Import').click();
    await dialog()
      .locator('input[type=file]')
      .setInputFiles(
        csv(
          'Player;Gewicht;Balance;SW\nNia Foss;11,9;6 HL;331\nRul Obb;11,5;abc;320\nTam Gill;11,4;5 HL;9\n',
        ),
      );
    // What is not understood is left out until it is said.
    const column = dialog().getByRole('combobox', { name: '“Gewicht” is' });
    await column.fill('weight');
    await column.press('Enter');
    const unit = dialog().getByRole('combobox', { name: 'Unit of “Gewicht”' });
    await unit.press('Enter');
    await page.getByRole('option', { name: 'oz', exact: true }).click();
    await dialog().getByRole('cell', { name: '337.4' }).waitFor();

    await dialog().getByRole('button', { name: 'Import all' }).click();
    await dialog().getByText('2 to fix').waitFor();
    expect(await rows('search=Foss')).toEqual([]);
    await dialog().getByRole('button', { name: 'Fix line 3' }).click();
    const balance = dialog().getByRole('textbox', { name: 'Balance' });
    await balance.fill('4,5 HL');
    await balance.press('Enter');
    await dialog().getByText('1 to fix').waitFor();
    await dialog().getByRole('button', { name: 'Skip those and import the rest' }).click();
    await dialog().getByText('2 setups stored; 1 row was left out.').waitFor();
    const [obb] = await rows('search=Rul+Obb');
    expect(obb?.specs.massG).toBeCloseTo(11.5 * 28.349523125, 6);
    expect(obb?.specs.balanceCm).toBeCloseTo(34.29 - 4.5 * 0.3175, 6);
    expect(await rows('search=Tam+Gill')).toEqual([]);
  });

  test('lines are pasted as they would be typed, and what is there already is not stored again', async () => {
    await page.goto('/setups');
    await button('Import').click();
    const paste = async (): Promise<void> => {
      await dialog().getByText('Pasted lines').click();
      await dialog()
        .getByRole('textbox', { name: 'One setup per line' })
        .fill('Orla Quist 2024: 337 g, 6 HL, 331 strung');
      await dialog().getByRole('button', { name: 'Import all' }).click();
    };
    await paste();
    await dialog().getByText('1 setup stored.').waitFor();
    await paste();
    await dialog().getByText('0 setups stored; 1 row was already there.').waitFor();
    expect(await rows('search=Orla')).toMatchObject([
      { name: 'Orla Quist', year: 2024, dress: { strings: true } },
    ]);
  });

  test('swing weights of a sport that quotes two axes say theirs once a source, in a list and in a form', async () => {
    const atButt = async (): Promise<void> => {
      await dialog().getByRole('combobox', { name: 'Swing weights are about' }).press('Enter');
      await page.getByRole('option', { name: 'the end of the butt' }).click();
      await dialog()
        .getByText(/Not said yet/)
        .waitFor({ state: 'detached' });
    };
    const axisOf = async (name: string) => (await rows(`search=${name}`))[0]?.specs.axisCm;
    await page.goto('/setups');
    await button('Import').click();
    // The list says its sport row by row: what holds where a row does not say stays another.
    await dialog()
      .locator('input[type=file]')
      .setInputFiles(csv('name,sport,weight (g),swing weight\nSefa Brun,badminton,88,145\n', 'reeds.csv'));
    await atButt();
    await dialog().getByRole('button', { name: 'Import all' }).click();
    await dialog().getByText('1 setup stored.').waitFor();
    expect(await axisOf('Sefa')).toBe(0);

    await page.goto('/setups');
    await button('Add a setup').click();
    await dialog().getByRole('textbox', { name: 'Whose frame' }).fill('Ida Morn');
    await dialog().getByRole('combobox', { name: 'Sport' }).press('Enter');
    await page.getByRole('option', { name: 'Badminton' }).click();
    await dialog()
      .getByRole('textbox', { name: /^Swing weight/ })
      .first()
      .fill('147');
    await atButt();
    await dialog().getByRole('button', { name: 'Add', exact: true }).click();
    await expect.poll(() => axisOf('Ida')).toBe(0);
  });

  test('a workbook is refused in a sentence, and HTML in a name is a name', async () => {
    await page.goto('/setups');
    await button('Import').click();
    const file = dialog().locator('input[type=file]');
    await file.setInputFiles({
      name: 'book.xlsx',
      mimeType: 'text/csv',
      buffer: Buffer.from('PK\u0003\u0004rest'),
    });
    await dialog().getByText('Save it as CSV').waitFor();
    await file.setInputFiles(csv('name,weight (g)\n<img src=x onerror=document.title=1>,333\n'));
    await dialog().getByRole('button', { name: 'Import all' }).click();
    await dialog().getByText('1 setup stored.').waitFor();
    await dialog().getByRole('button', { name: 'Close' }).click();
    await page.getByRole('textbox', { name: 'Find' }).fill('onerror');
    await page.getByRole('link', { name: '<img src=x onerror=document.title=1>' }).waitFor();
    expect(await page.title()).toContain('Setups');
  });
});

test.describe('the library is looked through', () => {
  test('by ranges, in the order of a column, in a view that is kept and found again', async () => {
    await page.goto('/setups');
    await page.getByText('More filters, views, export').click();
    const weight = page.getByRole('group', { name: 'Weight, as published', exact: true });
    await weight.getByRole('textbox', { name: 'from' }).fill('330');
    await weight.getByRole('textbox', { name: 'to' }).fill('336');
    await button(/^Weight/).click();
    await expect
      .poll(() =>
        page
          .getByRole('columnheader', { name: /Weight/ })
          .first()
          .getAttribute('aria-sort'),
      )
      .toBe('ascending');
    const wanted = (await rows('minWeight=330&maxWeight=336&sort=weight')).map(({ name }) => name);
    expect(wanted.length).toBeGreaterThan(1);
    await expect.poll(() => page.locator('tbody .row-name').allInnerTexts()).toEqual(wanted);

    await button('Save view').click();
    await dialog().getByRole('textbox', { name: 'Name' }).fill('around 333');
    await dialog().getByRole('button', { name: 'Save', exact: true }).click();
    await page.reload();
    await settled(page);
    await page.getByText('More filters, views, export').click();
    await button('around 333').first().click();
    await expect.poll(() => page.locator('tbody .row-name').allInnerTexts()).toEqual(wanted);
    await button('Forget the view around 333').click();
  });

  test('draws only the rows that are seen, however many there are, and more as it is scrolled by keys', async () => {
    const list = Array.from(
      { length: 700 },
      (_, i) => `Zz ${String(i).padStart(4, '0')},badminton,${80 + (i % 9)}`,
    );
    const sent = await fetch(`${shop.url}/api/v1/setups/import?mode=store`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: `name,sport,weight (g)\n${list.join('\n')}`,
    });
    expect(await sent.json()).toMatchObject({ stored: 700 });
    await page.goto('/setups');
    await page.getByRole('textbox', { name: 'Find' }).fill('zz');
    await page.getByText('700 setups').waitFor();
    expect(await page.locator('tbody tr').count()).toBeLessThan(60);
    await page.getByRole('region', { name: 'Setups' }).focus();
    await page.keyboard.press('End');
    await page.getByRole('link', { name: 'Zz 0699' }).waitFor();
    expect(await page.locator('tbody tr').count()).toBeLessThan(60);
  });
});

test.describe('a setup has a page', () => {
  test('where reports that disagree stand side by side, and one of them, or their average, is chosen', async () => {
    const report = (massG: number, source: string, confidence: string) =>
      post<SetupRow>(shop, '/setups', {
        name: 'Ines Calloway',
        sourceKind: 'published',
        source,
        confidence,
        shape: { sport: 'tennis', lengthCm: 68.58 },
        dress: { strings: true },
        specs: { massG, balanceCm: 32.4, swingWeight: 325 },
      });
    const first = await report(331, 'spring paper', 'high');
    await report(345, 'letter', 'low');
    await page.goto(`/setups/${first.id}`);
    await page.getByText('2 reports of this player’s frame').waitFor();
    await page.getByText('disagree').first().waitFor();
    // Each number opens how it came about.
    await page
      .getByRole('button', { name: /show how it came about/ })
      .first()
      .click();
    await dialog()
      .getByText(/taken off/)
      .first()
      .waitFor();
    await page.keyboard.press('Escape');
    await dialog().waitFor({ state: 'detached' });
    await button('Use the average').click();
    await page.getByText('3 reports of this player’s frame').waitFor();
    const id = page.url().split('/').at(-1) ?? '';
    expect(id).not.toBe(first.id);
    const { setup } = await shop.get<SetupPage>(`/setups/${id}`);
    expect(setup.specs.massG).toBeCloseTo((331 + 0.2 * 345) / 1.2, 9);
    // Only the average is offered beside a frame.
    const { fitting } = await makeFitting(shop);
    await page.goto(`/fittings/${fitting.id}/compare`);
    await page.getByRole('textbox', { name: /^Find by name/ }).fill('Calloway');
    await expect.poll(() => page.getByRole('button', { name: /Ines Calloway/ }).count()).toBe(1);
  });
});

test.describe('guides', () => {
  test('are the shop’s own where it changed them, drawn so in the lanes, and as they ship again when asked', async () => {
    await page.goto('/setups');
    await page.getByRole('link', { name: 'Guides' }).click();
    await button('Change advanced, college').click();
    const from = dialog().getByRole('textbox', { name: /^Swing weight from/ });
    await from.fill('400');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await dialog().getByText('This end must be above the other.').waitFor();
    await from.fill('324');
    await dialog().getByRole('button', { name: 'Store' }).click();
    await page.getByRole('cell', { name: '324 to 340' }).waitFor();
    const { player, fitting } = await makeFitting(shop);
    const { id, archived: _, hasArmHistory: __, ...rest } = player;
    await shop.send('PUT', `/players/${id}`, { ...rest, guides: { tennis: 'advanced' } });
    await page.goto(`/fittings/${fitting.id}/aim`);
    await page.getByRole('radio', { name: 'A guide', exact: true }).click();
    await expect
      .poll(() => page.getByRole('textbox', { name: /^Swing weight/ }).inputValue())
      .toMatch(/^33\d/);
    await page.goto('/setups/guides');
    await button('advanced, college as it ships').click();
    await page.getByRole('cell', { name: '318 to 340' }).waitFor();
  });

  test('say which shape of paddle suits what a player puts first', async () => {
    await page.goto('/setups/guides');
    await page.getByRole('radio', { name: 'pickleball' }).click();
    const shapes = () => page.locator('.shapes b').allInnerTexts();
    await expect.poll(async () => (await shapes())[0]).toBe('wide');
    await page.getByRole('radio', { name: 'Power' }).click();
    await expect.poll(async () => (await shapes())[0]).toBe('extra long');
    await page.getByRole('radio', { name: 'new to it' }).click();
    await expect.poll(async () => (await shapes())[0]).toBe('standard');
  });
});
