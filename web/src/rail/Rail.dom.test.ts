// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { describe, expect, it } from 'vitest';
import { sportData, type Placement, type Point } from '@kevro/core';
import { frame, laid } from '../../test/fixtures';
import { sweetOf } from './sweet';
import { useStroke } from '../stores/stroke';
import Rail from './Rail.vue';
import { weightDrawing } from './drawing';
import { railScale } from './scale';

const weights: Placement[] = [laid('sides', 6, 8), laid('tip', 2, 6)];
const rail = (props: object = {}) =>
  mount(Rail, {
    props: { frame, weights, weightLabels: ['3.0 g', '2.0 g'], movable: true, ...props },
    global: { plugins: [createPinia()] },
    attachTo: document.body,
  });

describe('the rail', () => {
  it('offers each weight by the name of where it lies and its grams', () => {
    const names = rail()
      .findAll('button.hold:not([aria-hidden])')
      .map((w) => w.attributes('aria-label'));
    expect(names).toEqual(['Sides, 6.0 g in two halves', 'Tip, 2.0 g']);
  });

  it('calls a weight that was moved by its new place', () => {
    const moved = { ...weights[0], ...laid('shoulders', 6, 8, 'sides') } as Placement;
    const [first] = rail({ weights: [moved] }).findAll('button.hold:not([aria-hidden])');
    expect(first?.attributes('aria-label')).toBe('Shoulders, 6.0 g in two halves');
  });

  it('moves a weight as far as the hand goes, and says when it is let go', async () => {
    const wrapper = rail();
    const [weight] = wrapper.findAll<HTMLElement>('button.hold');
    if (!weight) throw new Error('no weight');
    weight.element.setPointerCapture = () => undefined;
    const scale = railScale(frame, 280);
    const { middle } = weightDrawing(scale, frame, weights[0] as Placement).holds[0] as { middle: Point };
    const from = { clientX: 200, clientY: 90, button: 0 };
    const to = { clientX: 200 + 3 * scale.k, clientY: 90 - 2 * scale.k };
    await weight.trigger('pointermove', to);
    expect(wrapper.emitted('drag')).toBeUndefined();
    await weight.trigger('pointerdown', from);
    await weight.trigger('pointermove', to);
    await weight.trigger('pointerup', to);
    await weight.trigger('pointermove', from);
    const drags = wrapper.emitted<[string, number, number, boolean]>('drag') ?? [];
    expect(drags.map(([id, , , last]) => [id, last])).toEqual([
      ['sides', false],
      ['sides', true],
    ]);
    expect(drags[0]?.[1]).toBeCloseTo(middle.xCm + 3, 6);
    expect(drags[0]?.[2]).toBeCloseTo(middle.yCm + 2, 6);
    expect(wrapper.emitted('select')?.[0]).toEqual(['sides']);
  });

  it('only chooses where the hand merely trembles', async () => {
    const wrapper = rail();
    const [weight] = wrapper.findAll<HTMLElement>('button.hold');
    if (!weight) throw new Error('no weight');
    weight.element.setPointerCapture = () => undefined;
    await weight.trigger('pointerdown', { clientX: 200, clientY: 90, button: 0 });
    await weight.trigger('pointermove', { clientX: 203, clientY: 92 });
    await weight.trigger('pointerup', { clientX: 203, clientY: 92 });
    expect(wrapper.emitted('drag')).toBeUndefined();
    expect(wrapper.emitted('select')).toBeDefined();
  });

  it('can be taken hold of by a finger: 44 px at least', () => {
    for (const hold of rail().findAll<HTMLElement>('button.hold')) {
      expect(parseFloat(hold.element.style.width)).toBeGreaterThanOrEqual(44);
      expect(parseFloat(hold.element.style.height)).toBeGreaterThanOrEqual(44);
    }
  });

  it('marks the chosen weight and none that cannot be moved', () => {
    const pressed = rail({ selected: 'tip' })
      .findAll('button.hold:not([aria-hidden])')
      .map((w) => w.attributes('aria-pressed'));
    expect(pressed).toEqual(['false', 'true']);
    expect(rail({ movable: false }).findAll('button.hold:not([aria-hidden])')).toHaveLength(0);
  });

  it('says the planned balance beside the measured one only where they differ', () => {
    const text = (planned: number): string =>
      rail({ measuredBalanceCm: 32.2, plannedBalanceCm: planned }).text();
    expect(text(32.6)).toContain('32.6 planned');
    expect(text(32.2)).not.toContain('planned');
  });

  it('draws the sweet spot for the stroke that is chosen, and keeps the choice for the sport', async () => {
    const pinia = createPinia();
    setActivePinia(pinia);
    const specs = { massG: 320, balanceCm: 32.5, swingWeight: 320, twistWeight: 13.5, axisCm: 10.16 };
    const best = (): number => sweetOf(frame, specs)?.best.xCm ?? NaN;
    const before = best();
    const wrapper = mount(Rail, {
      props: { frame, sweetBefore: sweetOf(frame, specs) },
      global: { plugins: [pinia] },
    });
    const choices = wrapper.findAll<HTMLInputElement>('input[type=radio]');
    expect(choices.map((one) => one.element.value)).toEqual(['groundstroke', 'volley', 'serve']);
    await choices[2]?.setValue(true);
    expect(useStroke().of(frame.sport).name).toBe('serve');
    // A serve turns about nearer the hand: the tip is faster, and the best point lies further out.
    expect(best()).toBeGreaterThan(before + 1);
    expect(useStroke().of(sportData('padel')).name).toBe('drive');
  });
});
