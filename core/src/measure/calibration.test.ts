import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Fault } from '../fault';
import {
  RODS,
  ROD_UNCERTAINTY,
  calibrate,
  corrected,
  correctionUncertainty,
  propagate,
  repeats,
  seededNormals,
} from '.';

const codes = (run: () => unknown): string[] => {
  try {
    run();
    return [];
  } catch (fault) {
    return (fault as Fault).problems.map((p) => `${p.code} ${p.path}`);
  }
};

describe('calibration', () => {
  const rods = (slope: number, offset: number, bump = 0) =>
    [100, 200, 300].map((trueValue, i) => ({
      trueValue,
      read: slope * trueValue + offset + (i === 1 ? bump : 0),
    }));

  it('finds a line and undoes it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.975, max: 1.025, noNaN: true }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (slope, offset) => {
          const line = calibrate(rods(slope, offset));
          expect(line.refused).toBeUndefined();
          expect(line.slope).toBeCloseTo(slope, 9);
          expect(corrected(line, slope * 251 + offset)).toBeCloseTo(251, 7);
        },
      ),
    );
  });

  it('refuses a rod still off by over 1, a slope outside 0.97 to 1.03, and fewer than two rods', () => {
    expect(calibrate(rods(1, 0, 1.4)).refused).toBeUndefined();
    expect(calibrate(rods(1, 0, 2)).refused).toBe('rod-off');
    expect(calibrate(rods(1.04, 0)).refused).toBe('slope-off');
    expect(codes(() => calibrate([{ trueValue: 100, read: 100 }]))).toEqual(['too-few-rods rods']);
    expect(
      codes(() =>
        calibrate([
          { trueValue: 100, read: 100 },
          { trueValue: 100, read: 101 },
        ]),
      ),
    ).toEqual(['too-few-rods rods']);
  });
});

describe('what a calibration leaves uncertain (JCGM 100:2008, H.3)', () => {
  it('is what Monte Carlo finds of corrected readings, inside and beyond the rods', () => {
    const normal = seededNormals(33);
    const rodReading = 0.5;
    for (const at of [100, 200, 320]) {
      const stated = correctionUncertainty(RODS, rodReading, at);
      const errors = Array.from({ length: 20_000 }, () => {
        const read = RODS.map((trueValue) => ({
          trueValue,
          read: 1.01 * (trueValue + ROD_UNCERTAINTY * normal()) + 2 + rodReading * normal(),
        }));
        return corrected(calibrate(read), 1.01 * at + 2) - at;
      });
      const spread = Math.sqrt(errors.reduce((s, e) => s + e * e, 0) / errors.length);
      expect(stated.value / spread).toBeGreaterThan(0.96);
      expect(stated.value / spread).toBeLessThan(1.04);
    }
    const { value, scale } = correctionUncertainty(RODS, rodReading, 200);
    expect(correctionUncertainty(RODS, rodReading, 300).value).toBeCloseTo(Math.hypot(value, scale * 100), 9);
  });
});

describe('repeated readings', () => {
  it('average, and the uncertainty falls with the root of their number', () => {
    expect(repeats([320, 321, 319], 0.8).mean).toBe(320);
    expect(repeats([320, 320, 320, 320], 0.8).uncertainty).toBeCloseTo(0.4, 9);
  });

  it('cover 95 % with twice their uncertainty, whether the instrument is as good as it says or half as good', () => {
    for (const truly of [1, 2]) {
      for (const n of [3, 4, 6]) {
        const normal = seededNormals(100 * truly + n);
        let covered = 0;
        const RUNS = 4000;
        for (let run = 0; run < RUNS; run++) {
          const { mean, uncertainty } = repeats(
            Array.from({ length: n }, () => truly * normal()),
            1,
          );
          if (Math.abs(mean) <= 2 * uncertainty) covered++;
        }
        expect(covered / RUNS).toBeGreaterThan(truly === 1 ? 0.94 : 0.83);
        expect(covered / RUNS).toBeLessThan(0.995);
      }
    }
    // Student's t of 2 degrees of freedom (Abramowitz & Stegun, table 26.10).
    expect(repeats([300, 320, 340], 0.1).uncertainty).toBeCloseTo((4.303 / 2) * (20 / Math.sqrt(3)), 3);
  });

  it('find a reading 8σ off among three, but for the rarest draws', () => {
    const normal = seededNormals(5);
    const RUNS = 2000;
    let found = 0;
    for (let run = 0; run < RUNS; run++) {
      if (repeats([normal(), normal(), 8 + normal()], 1).outliers.includes(2)) found++;
    }
    expect(found / RUNS).toBeGreaterThan(0.995);
  });

  it('points out an outlier and leaves it to the fitter to set it aside', () => {
    const values = [320.1, 319.8, 327, 320.3];
    const seen = repeats(values, 0.8);
    expect(seen.outliers).toEqual([2]);
    expect(seen.mean).toBeCloseTo(321.8, 9);
    expect(repeats(values, 0.8, [2]).mean).toBeCloseTo(320.0667, 3);
    expect(repeats([320, 330], 0.8).outliers).toEqual([]);
    expect(codes(() => repeats([320], 0.8, [0]))).toEqual(['missing-readings values']);
  });
});

it('propagation adds independent inputs in squares', () => {
  expect(
    propagate(
      ([a, b]) => (a ?? 0) + (b ?? 0),
      [
        { value: 1, u: 3 },
        { value: 2, u: 4 },
      ],
    ),
  ).toBeCloseTo(5, 9);
});
