// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { noFilters, useSetupView, type SavedView } from './setup-view';

it('a view that was kept before there was a spec is shown, with no range of it', () => {
  const { massG, balanceCm, swingWeight, twistWeight } = noFilters().ranges;
  const older = {
    name: 'heavy',
    filters: { ...noFilters(), ranges: { massG: [330, massG[1]], balanceCm, swingWeight, twistWeight } },
    columns: ['source', 'massG'],
  } as unknown as SavedView;
  const { show, query, ranged } = useSetupView();
  show(older);
  expect(ranged.value).toBe(1);
  expect(query.value).toMatchObject({ minWeight: 330 });
});
