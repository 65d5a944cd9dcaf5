// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia } from 'pinia';
import { describe, expect, it } from 'vitest';
import { pointOnLine, type Placement } from '@kevro/core';
import { frame, laid } from '../../test/fixtures';
import Rail from './Rail.vue';
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
      .findAll('[role="button"]')
      .map((w) => w.attributes('aria-label'));
    expect(names).toEqual(['Sides, 6.0 g in two halves', 'Tip, 2.0 g']);
  });

  it('calls a weight that was moved by its new place', () => {
    const moved = { ...weights[0], ...laid('shoulders', 6, 8, 'sides') } as Placement;
    const [first] = rail({ weights: [moved] }).findAll('[role="button"]');
    expect(first?.attributes('aria-label')).toBe('Shoulders, 6.0 g in two halves');
  });

  it('gives the point in cm where a weight is dragged to, and says when it is let go', async () => {
    const wrapper = rail();
    const [weight] = wrapper.findAll<SVGGElement>('[role="button"]');
    if (!weight) throw new Error('no weight');
    weight.element.setPointerCapture = () => undefined;
    const scale = railScale(frame, 320);
    const to = pointOnLine(frame, 'rim', 10);
    const at = { clientX: scale.px(to.xCm), clientY: scale.py(to.yCm) };
    await weight.trigger('pointermove', at);
    expect(wrapper.emitted('drag')).toBeUndefined();
    await weight.trigger('pointerdown', at);
    await weight.trigger('pointermove', at);
    await weight.trigger('pointerup', at);
    await weight.trigger('pointermove', at);
    const drags = wrapper.emitted<[string, number, number, boolean]>('drag') ?? [];
    expect(drags.map(([id, , , last]) => [id, last])).toEqual([
      ['sides', false],
      ['sides', true],
    ]);
    expect(drags[0]?.[1]).toBeCloseTo(to.xCm, 6);
    expect(drags[0]?.[2]).toBeCloseTo(to.yCm, 6);
    expect(wrapper.emitted('select')?.[0]).toEqual(['sides']);
  });

  it('marks the chosen weight and none that cannot be moved', () => {
    const pressed = rail({ selected: 'tip' })
      .findAll('[role="button"]')
      .map((w) => w.attributes('aria-pressed'));
    expect(pressed).toEqual(['false', 'true']);
    expect(rail({ movable: false }).findAll('[role="button"]')).toHaveLength(0);
  });

  it('says the planned balance beside the measured one only where they differ', () => {
    const text = (planned: number): string =>
      rail({ measuredBalanceCm: 32.2, plannedBalanceCm: planned }).text();
    expect(text(32.6)).toContain('32.6 planned');
    expect(text(32.2)).not.toContain('planned');
  });
});
