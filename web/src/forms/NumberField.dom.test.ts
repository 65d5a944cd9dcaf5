// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { G_PER_OUNCE, type Measure, type AnySpecKey } from '@kevro/core';
import { WAYS, useUnits } from '../stores/units';
import { VTextField } from 'vuetify/components/VTextField';
import { vuetify } from '../ui/theme';
import NumberField from './NumberField.vue';
import type { Typed } from '../ui/typed';

beforeEach(() => {
  localStorage.clear();
  setActivePinia(createPinia());
});
const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
interface Asked {
  spec?: AnySpecKey;
  measure?: Measure;
  unit?: string;
  width?: boolean;
}
/** A field as a form holds it. */
function field(asked: Asked, start: Typed = null) {
  const pinia = createPinia();
  setActivePinia(pinia);
  const wrapper = mount(NumberField, {
    props: {
      label: 'It',
      ...asked,
      ...(asked.spec ? { shape } : {}),
      modelValue: start,
      'onUpdate:modelValue': (modelValue: Typed) => wrapper.setProps({ modelValue }),
    },
    global: { plugins: [pinia, vuetify], components: { VTextField } },
  });
  const input = wrapper.find('input');
  return {
    wrapper,
    units: useUnits(),
    /** Typed sign by sign, as a hand does: nothing is changed under it. */
    async type(text: string) {
      for (let i = 1; i <= text.length; i++) {
        await input.setValue(text.slice(0, i));
        expect(input.element.value).toBe(text.slice(0, i));
      }
    },
    leave: () => input.trigger('blur'),
    shown: () => input.element.value,
    holds: () => wrapper.props('modelValue'),
    says: () => wrapper.text(),
  };
}

describe('the number field', () => {
  it.each([
    ['16.5', 16.5],
    ['17,2', 17.2],
    ['0,6 oz', 0.6 * G_PER_OUNCE],
    ['−3', -3],
    ['70', 70],
  ])('takes «%s» for a weight in grams, sign by sign', async (text, grams) => {
    const f = field({ measure: 'mass', unit: 'g' });
    await f.type(text);
    expect(f.holds()).toBeCloseTo(grams, 9);
  });

  it('keeps what cannot be read, and says so once it is left', async () => {
    const f = field({ measure: 'mass', unit: 'g' });
    await f.type('abc');
    expect(f.says()).not.toContain('not a number');
    await f.leave();
    expect(f.holds()).toBe('abc');
    expect(f.shown()).toBe('abc');
    expect(f.says()).toContain('This is not a number.');
    await f.type('16,5');
    expect(f.says()).not.toContain('not a number');
    expect(f.holds()).toBe(16.5);
  });

  it.each(WAYS.map((way, index) => ({ index, ...way })))(
    'reads what is typed in any unit while $label is shown, and without a unit in that',
    async ({ index, mass, balance }) => {
      localStorage.setItem('kevro-units', String(index));
      for (const [spec, text, value] of [
        ['massG', '11.5 oz', 11.5 * G_PER_OUNCE],
        ['massG', '327,5 g', 327.5],
        ['massG', mass === 'oz' ? '11,5' : '327.5', mass === 'oz' ? 11.5 * G_PER_OUNCE : 327.5],
        ['balanceCm', '6 HL', 34.29 - 6 * 0.3175],
        ['balanceCm', 'even', 34.29],
        ['balanceCm', '324 mm', 32.4],
        ['balanceCm', '12.75 in', 12.75 * 2.54],
        ['balanceCm', '2 HH', 34.29 + 2 * 0.3175],
        [
          'balanceCm',
          { cm: '32,4', in: '12,75', points: '6' }[balance],
          { cm: 32.4, in: 12.75 * 2.54, points: 34.29 - 6 * 0.3175 }[balance],
        ],
        ['swingWeight', '121.5', 121.5],
        ['swingWeight', '320 kg·cm²', 320],
      ] as const) {
        const f = field({ spec });
        await f.type(text);
        expect(f.holds(), `${text} as ${spec}`).toBeCloseTo(value, 9);
        // Left and looked at again it is the same number.
        await f.leave();
        expect(f.holds()).toBeCloseTo(value, 9);
      }
      for (const [measure, text, value] of [
        ['length', '27 in', 68.58],
        ['length', '68,58 cm', 68.58],
        ['area', '98 sq in', 98 * 6.4516],
        ['area', '632.3 cm2', 632.3],
      ] as const) {
        const f = field({ measure });
        await f.type(text);
        expect(f.holds(), text).toBeCloseTo(value, 9);
      }
    },
  );

  it('shows the same number in other units and never changes it by that', async () => {
    const f = field({ spec: 'balanceCm' });
    await f.type('33,85');
    await f.leave();
    expect(f.shown()).toBe('33.85');
    const seen = [];
    for (let i = 0; i < WAYS.length; i++) {
      f.units.next();
      await nextTick();
      seen.push(f.shown());
      expect(f.holds()).toBe(33.85);
    }
    expect(seen).toEqual(['1.39 HL', '13.327', '1.39 HL', '33.85']);
  });

  it('shows what was typed, and a value that was worked out with one decimal more than the sport has', async () => {
    expect(field({ spec: 'massG' }, 327.25).shown()).toBe('327.25');
    expect(field({ spec: 'massG' }, 327.418333).shown()).toBe('327.42');
    expect(field({ spec: 'swingWeight' }, 121.5).shown()).toBe('121.5');
    const width = field({ spec: 'balanceCm', width: true }, 0.15);
    expect(width.shown()).toBe('0.15');
    width.units.next();
    await nextTick();
    // A tolerance in points has no side.
    expect(Number(width.shown())).toBeCloseTo(0.15 / 0.3175, 2);
  });

  it('names its unit', () => {
    expect(field({ spec: 'massG' }).says()).toContain('It, g');
    expect(field({ measure: 'tension', unit: 'lb' }).says()).toContain('It, lb');
  });
});
