import type { SeasonPage } from '@kevro/contract';
import { button, dialog, expect, field, page, shop, test } from './harness';
import { inLight, problemsOf } from './looked-at';

// A season: matches and rests, typed or read from a calendar file, with what is to be done between them.

const dayIn = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const LIV = '/players/liv-harrowdene/season';
const season = (): Promise<SeasonPage> => shop.get<SeasonPage>(LIV);
const lines = () => page.getByRole('region', { name: 'By day' }).getByRole('listitem');

test('a match is typed by keys alone, what is to be done moves around it, and it is taken out again', async () => {
  await inLight(page);
  await page.goto('/players/liv-harrowdene');
  await page.getByRole('link', { name: 'Season' }).click();
  await lines().filter({ hasText: 'the last step of “Find the ceiling”' }).waitFor();
  await button('Add matches or a rest').press('Enter');
  await page.getByLabel('From', { exact: true }).fill(dayIn(10));
  await page.getByLabel('To, if longer than a day').fill(dayIn(8));
  await field('What it is called').fill('Harbour cup');
  await page.keyboard.press('Enter');
  await dialog().getByText('It ends before it begins.').waitFor();
  await page.getByLabel('To, if longer than a day').fill(dayIn(11));
  await page.keyboard.press('Enter');
  await dialog().waitFor({ state: 'detached' });
  const match = lines().filter({ hasText: 'Match Harbour cup' });
  await match.waitFor();
  expect((await season()).dates).toMatchObject([{ kind: 'match', fromDay: dayIn(10), toDay: dayIn(11) }]);
  expect(await problemsOf(page)).toEqual([]);
  // Today says that it is near, and leads here.
  await page.goto('/');
  await page
    .getByRole('region', { name: 'Matches soon' })
    .getByRole('link', { name: /Liv Harrowdene/ })
    .click();
  await match.getByRole('button', { name: /^change/ }).click();
  // The form has the focus before anything is opened in it.
  await expect(page.getByLabel('From', { exact: true })).toBeFocused();
  const hot = page.getByRole('option', { name: 'hot, fast' });
  await expect(async () => {
    await page.getByRole('combobox', { name: 'How it plays there' }).press('ArrowDown');
    await hot.waitFor({ timeout: 1000 });
  }).toPass();
  await hot.click();
  await dialog().getByRole('button', { name: 'Store' }).click();
  await dialog().waitFor({ state: 'detached' });
  await lines().filter({ hasText: 'make it ready for hot and fast' }).waitFor();
  await match.getByRole('button', { name: /^remove/ }).press('Enter');
  await expect(match).toHaveCount(0);
  await expect(page.getByRole('heading', { name: 'By day' })).toBeFocused();
  expect((await season()).dates).toEqual([]);
});

test('a calendar file is read, its next edition changes it, and the season goes out as one', async () => {
  await page.goto(LIV);
  const day = (days: number): string => dayIn(days).replaceAll('-', '');
  const give = (text: string) =>
    page
      .getByLabel('A calendar file', { exact: true })
      .setInputFiles({ name: 'fixtures.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
  const file = (from: number): string =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'BEGIN:VEVENT',
      'UID:league-1',
      `DTSTART;VALUE=DATE:${day(from)}`,
      'SUMMARY:League',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:rest-1',
      `DTSTART;VALUE=DATE:${day(60)}`,
      `DTEND;VALUE=DATE:${day(70)}`,
      'SUMMARY:Spring break',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
  await give(file(30));
  await page.getByText('2 dates added.').waitFor();
  await lines().filter({ hasText: 'Match League' }).waitFor();
  await lines().filter({ hasText: 'Rest Spring break' }).waitFor();
  await give(file(33));
  await page.getByText('2 dates brought up to date.').waitFor();
  expect((await season()).dates).toMatchObject([{ fromDay: dayIn(33) }, { kind: 'rest', toDay: dayIn(69) }]);
  await give('no calendar at all');
  await page.getByRole('alert').filter({ hasText: 'This is no calendar file.' }).waitFor();
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save it as a calendar file' }).click();
  expect((await saved).suggestedFilename()).toBe('kevro-season-liv-harrowdene.ics');
});
