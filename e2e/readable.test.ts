import type { Page } from '@playwright/test';
import type { FittingView } from '@kevro/contract';
import { expect, page, settled, shop, test } from './harness';
import { inLight, problemsOf, problemsOnPaper } from './looked-at';

test.beforeEach(() => checkOdo());

/** A build that was checked and is not inside: its trims, and what it taught, are there to be looked at. */
async function checkOdo(): Promise<void> {
  const { frames } = await shop.get<FittingView>('/fittings/f-odo');
  const [{ frame, rounds } = { frame: undefined, rounds: [] }] = frames;
  const round = rounds.at(-1);
  const plan = round?.plans.find(({ id }) => id === round.state.planId);
  if (!frame || !round || !plan) throw new Error('the demo has no build of Odo');
  const { axisCm: _, ...specs } = plan.specs;
  await shop.send('POST', `/frames/${frame.id}/measurements`, {
    key: 'a check to look at',
    dress: frame.onIt,
    specs: { ...specs, swingWeight: specs.swingWeight + 3.1 },
    purpose: 'check',
    roundId: round.id,
  });
}

const PAGES = [
  '/',
  '/frames',
  '/setups',
  '/setups/rook-a',
  '/setups/guides',
  '/stock',
  '/settings',
  '/guide',
  '/frames/ot-014',
  '/frames/ot-014/card',
  '/frames/bd-040/outline',
  '/labels?frames=bd-040,ot-014',
  '/settings/safety',
  '/settings/instruments',
  '/settings/instruments/machine-back',
  '/fittings/f-ilka/measure',
  '/fittings/f-barto/plan',
  '/fittings/f-ilka/compare',
  '/fittings/f-tobin/compare#plane',
  '/fittings/f-ilka/aim',
  '/fittings/f-ilka/plan',
  '/fittings/f-liv/play',
  '/players/liv-harrowdene',
  '/players/ilka-morrow/season',
  '/fittings/f-odo/build',
  '/fittings/f-odo/check',
  '/stock/match',
  '/fittings/f-ines/match',
  '/players',
  '/sign-in',
];

/** Views of a page that are chosen on it: what the device keeps of the choice. */
const VIEW = /#(\w+)$/;
async function open(page: Page, path: string): Promise<void> {
  const view = VIEW.exec(path)?.[1];
  if (view) await page.addInitScript((one) => localStorage.setItem('kevro-compare-view', one), view);
  await page.goto(path.replace(VIEW, ''));
  await settled(page);
  // What comes late on these pages is to be looked at too.
  if (view === 'plane') await page.getByRole('group', { name: 'Only setups between' }).waitFor();
  if (path.endsWith('/measure')) await page.getByText('First: check what’s on it').waitFor();
}

test.describe('a page', () => {
  for (const path of PAGES)
    test(`${path} can be read, used by keys, pressed by finger and printed: three widths, two themes`, async () => {
      await inLight(page);
      await open(page, path);
      expect(await page.locator('h1').count()).toBe(1);
      expect(await problemsOf(page)).toEqual([]);
      expect(await problemsOnPaper(page)).toEqual([]);
      const players = /Barto|Ilka Morrow|Ines|Liv Harrowdene|Odo Pellam|Tobin/;
      if (path.startsWith('/fittings'))
        expect(await page.locator('.paper-head').innerText()).toMatch(players);
    });
});

test('fetches nothing from elsewhere', async () => {
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(shop.url) && !/^(data|blob):/.test(request.url()))
      elsewhere.push(request.url());
  });
  await open(page, '/fittings/f-ilka/plan');
  expect(elsewhere).toEqual([]);
});
