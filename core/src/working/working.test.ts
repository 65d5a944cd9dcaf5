import { describe, expect, it } from 'vitest';
import { bringTo } from '../compare';
import { settleFrame } from '../frame';
import { recoilWeight } from '../mass';
import type { Placement } from '../plan';
import { explainPlan, explainReading, explainRecoil, explainRedress } from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const frame = settleFrame(shape);
const before = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 };
const placements: Placement[] = [{ zone: 'tip', massG: 4, xCm: 68.58, yCm: 0, mirrored: false }];
const value = (values: { symbol: string; value: number }[], symbol: string): number =>
  values.find((v) => v.symbol === symbol)?.value ?? Number.NaN;

describe('workings hold what their equation needs to give their result', () => {
  it('of a planned swing weight: S and what each placement adds', () => {
    const { values, result } = explainPlan('swingWeight', frame, before, placements, () => 'tip');
    expect(value(values, 'S') + value(values, 'ΔS')).toBeCloseTo(result.value, 9);
    expect(value(values, 'ΔS')).toBeCloseTo((4 * (68.58 - 10.16) ** 2) / 1000, 9);
  });

  it('of a planned balance: moments over the new weight', () => {
    const { values, result } = explainPlan('balanceCm', frame, before, placements, () => 'tip');
    const moment = value(values, 'M') * value(values, 'B') + value(values, 'm·x');
    expect(moment / (value(values, 'M') + 4)).toBeCloseTo(result.value, 9);
  });

  it('of a setup in another dress: what came off and what went on', () => {
    const specs = { massG: 340, balanceCm: 32.5, swingWeight: 337 };
    const brought = bringTo(
      { shape, dress: { strings: true, overgrips: 1 }, specs },
      { strings: true },
      10.16,
    );
    const { values, result } = explainRedress('massG', specs, brought, 10.16);
    expect(value(values, 'M') + value(values, 'm')).toBeCloseTo(result.value, 9);
    expect(values.map((v) => v.meaning).join()).toContain('taken off');
  });

  it('of a recoil weight and of a reading', () => {
    expect(explainRecoil(before).result.value).toBeCloseTo(recoilWeight(before), 9);
    const reading = explainReading('massG', 327, 0.3, frame, { overgrips: 1 }, 10.16);
    expect(reading.result.value).toBe(327);
    expect(reading.assumes).toContain('overgrip');
  });
});
