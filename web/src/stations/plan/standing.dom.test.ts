// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { fittingView, laid, plan, tape, within } from '../../../test/fixtures';
import { useFitting } from '../../stores/fitting';
import { useByHand } from './by-hand';
import { useStanding } from './standing';

beforeEach(() => localStorage.clear());
const wrappers: { unmount: () => void }[] = [];
afterEach(() => wrappers.splice(0).forEach((w) => w.unmount()));

/** The plan station's own state, on a fitting with or without a plan. */
function station(planned = true) {
  const { result, wrapper } = within(() => {
    const fitting = useFitting();
    fitting.view = fittingView(planned ? plan([laid('sides', 4.24, 8), laid('tip', 2.12, 8)]) : undefined);
    const standing = useStanding();
    return { standing, byHand: useByHand(standing.history) };
  });
  wrappers.push(wrapper);
  return result;
}
const press = (key: string, more: KeyboardEventInit = {}): void => {
  window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
};
const middle = (s: ReturnType<typeof station>, id: string): number => {
  const p = s.standing.history.now.value.placements.find((one) => one.id === id);
  return p && p.path !== 'slot' ? (p.startCm + p.endCm) / 2 : Number.NaN;
};

describe('the standing plan', () => {
  it('starts as it is stored and is not changed by being looked at', () => {
    const { standing } = station();
    expect(standing.history.now.value.placements.map((p) => p.id)).toEqual(['sides', 'tip']);
    expect(standing.dirty.value).toBe(false);
    expect(standing.startedEmpty).toBe(false);
    expect(station(false).standing.startedEmpty).toBe(true);
  });

  it('keeps a draft changed by hand until it is stored, and begins with it again', async () => {
    const first = station(false);
    const draft = {
      school: 'free' as const,
      byHand: true,
      placements: [laid('sides', 3.18, 6)],
      swaps: [],
      removals: [],
      parts: [tape],
    };
    first.standing.history.change(draft);
    await nextTick();
    expect(first.standing.dirty.value).toBe(true);
    const again = station(false);
    expect(again.standing.history.now.value).toEqual(draft);
    again.standing.markStored();
    await nextTick();
    expect(again.standing.dirty.value).toBe(false);
    expect(station(false).standing.history.now.value.placements).toEqual([]);
  });
});

describe('changing it by hand', () => {
  it('moves the chosen weight by keys: 5 mm, with Shift 1 mm, and back by undo', () => {
    const s = station();
    s.byHand.selected.value = 'sides';
    const start = middle(s, 'sides');
    press('ArrowRight');
    // Toward the tip is nearer along the hoop, which is measured from there.
    expect(middle(s, 'sides')).toBeCloseTo(start - 0.5, 9);
    press('ArrowLeft', { shiftKey: true });
    expect(middle(s, 'sides')).toBeCloseTo(start - 0.4, 9);
    expect(s.standing.history.now.value.byHand).toBe(true);
    press('z');
    expect(middle(s, 'sides')).toBeCloseTo(start, 9);
    press('Z', { shiftKey: true });
    expect(middle(s, 'sides')).toBeCloseTo(start - 0.4, 9);
  });

  it('does nothing while no weight is chosen', () => {
    const s = station();
    press('ArrowRight');
    press('+');
    expect(s.standing.history.canUndo.value).toBe(false);
  });

  it('takes pieces off until none is left, keeps the others chosen by their own name, and brings all back', () => {
    const s = station();
    s.byHand.selected.value = 'sides';
    for (let i = 0; i < 16; i++) press('-');
    expect(s.standing.history.now.value.placements.map((p) => p.id)).toEqual(['tip']);
    expect(s.byHand.selected.value).toBeUndefined();
    for (let i = 0; i < 16; i++) press('z');
    expect(s.standing.history.now.value.placements.map((p) => [p.id, p.massG])).toEqual([
      ['sides', 4.24],
      ['tip', 2.12],
    ]);
  });

  it('takes a drag as one step, however many points it has', () => {
    const s = station();
    const start = middle(s, 'sides');
    for (const [i, yCm] of [12, 11, 10].entries()) s.byHand.drag('sides', 60, yCm, i === 2);
    expect(middle(s, 'sides')).not.toBeCloseTo(start, 1);
    press('z');
    expect(middle(s, 'sides')).toBeCloseTo(start, 9);
    expect(s.standing.history.canUndo.value).toBe(false);
  });
});
