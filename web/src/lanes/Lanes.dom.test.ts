// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia } from 'pinia';
import { describe, expect, it } from 'vitest';
import { frame, measurement, shape } from '../../test/fixtures';
import Lanes from './Lanes.vue';
import type { LaneMarks } from './lane';

const lanes = (marks: LaneMarks, of: { sport: 'tennis' | 'badminton'; lengthCm: number } = shape) =>
  mount(Lanes, {
    props: { marks, shape: of, axisCm: frame.sport.axisCm },
    global: { plugins: [createPinia()] },
  });
const measured: LaneMarks = {
  measured: measurement.specs,
  measuredUncertainty: measurement.uncertainty,
};

describe('the lanes', () => {
  it('show twice the standard uncertainty, and the difference to the aim', () => {
    const wrapper = lanes({ ...measured, aim: { massG: { value: 330, tolerance: 1 } } });
    expect(wrapper.text()).toContain('±0.6');
    expect(wrapper.text()).toMatch(/target 330\.0: add 3\.0 g/);
    const inside = lanes({ ...measured, aim: { massG: { value: 327.8, tolerance: 1 } } });
    expect(inside.text()).toContain('in tolerance');
  });

  it('show the decimals of the frame’s own sport', () => {
    const numbers = (wrapper: ReturnType<typeof lanes>) => wrapper.findAll('.big').map((b) => b.text());
    expect(numbers(lanes(measured))).toEqual(['327.0', '32.2', '320', '13.6']);
    const shuttle = { measured: { massG: 88, balanceCm: 29.5, swingWeight: 88.34, twistWeight: 1.256 } };
    expect(numbers(lanes(shuttle, { sport: 'badminton', lengthCm: 67.5 }))).toEqual([
      '88.0',
      '29.5',
      '88.3',
      '1.26',
    ]);
  });

  it('show what follows from the specs, and open the working of any number', async () => {
    const wrapper = lanes({ ...measured, predicted: { ...measurement.specs, swingWeight: 330 } });
    expect(wrapper.text()).toContain('Recoil weight');
    expect(wrapper.text()).toContain('steadier when the ball comes at you: 161 → 171');
    for (const button of wrapper.findAll('button')) await button.trigger('click');
    expect(wrapper.emitted('open')?.map(([what]) => what)).toEqual([
      'massG',
      'balanceCm',
      'swingWeight',
      'twistWeight',
      'recoilWeight',
    ]);
  });

  it('cut no number off at their ends', () => {
    const nearEnd = Array.from({ length: 20 }, (_, i) => ({ ...measurement.specs, massG: 320 + i }))
      .flatMap((specs) => lanes({ measured: specs }).findAll('text.tick'))
      .filter((tick) => Number(tick.attributes('x')) < 20);
    expect(nearEnd.length).toBeGreaterThan(0);
    expect(new Set(nearEnd.map((tick) => tick.attributes('text-anchor')))).toEqual(new Set(['start']));
  });

  it('are empty, not broken, where nothing is known', () => {
    const wrapper = lanes({});
    expect(wrapper.findAll('.big').map((b) => b.text())).toEqual(['—', '—', '—', '—']);
    expect(wrapper.text()).not.toMatch(/NaN|undefined|Infinity/);
  });

  it('show stiffness where anybody knows it, without a working and without an aim', () => {
    const wrapper = lanes({
      ...measured,
      aim: { massG: { value: 330, tolerance: 1 } },
      setups: [{ id: 'a', specs: { stiffness: 66 }, marked: true }],
      measured: { ...measurement.specs, stiffness: 62 },
    });
    expect(wrapper.text()).toContain('Stiffness');
    expect(wrapper.text()).not.toContain('as stated');
    const stated = lanes({ measured: { ...measurement.specs, stiffness: 62 }, stated: ['stiffness'] });
    expect(stated.text()).toContain('as stated');
    // A check reads what weight changed: stiffness is what it was.
    const checked = lanes({
      measured: { ...measurement.specs, stiffness: 62 },
      checked: { ...measurement.specs, massG: 330 },
    });
    expect(checked.findAll('.big').map((b) => b.text())).toEqual(['330.0', '32.2', '320', '13.6', '62']);
    expect(wrapper.findAll('.big').map((b) => b.text())).toContain('62');
    expect(lanes(measured).text()).not.toContain('Stiffness');
  });

  it('mark an estimate as one', () => {
    expect(lanes({ ...measured, estimated: ['swingWeight'] }).text()).toContain('est.');
    expect(lanes(measured).text()).not.toContain('est.');
  });
});
