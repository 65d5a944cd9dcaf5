import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RODS, calibrate, readingByInstrument, settleFrame } from '@kevro/core';
import type { DataSheet, InstrumentKind } from '@kevro/contract';
import { Lost } from './driver';
import type { Truth } from './driver';
import { StandIn, StandInModel } from './stand-in';

const SHEET: DataSheet = {
  repeatability: 0.4,
  accuracy: 2,
  resolution: 0.1,
  driftPerHour: 0.05,
  warmUpMinutes: 10,
  axisCm: null,
};
const HOUR = 3_600_000;
const WARM = 24 * HOUR;
const specs = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.6, axisCm: 10.16 };
const frame = settleFrame({ sport: 'tennis', lengthCm: 68.58 });
const truth: Truth = { specs, leftRightG: 0.5, frame, layup: { deeper: 0, airier: 0 } };
const seeds = fc.integer({ min: 1, max: 1e6 });
const model = (kind: InstrumentKind, seed: number, sheet: Partial<DataSheet> = {}) =>
  new StandInModel(kind, { ...SHEET, ...sheet }, seed);

describe('how a stand-in errs', () => {
  it('is always the same for the same seed', () => {
    const run = (seed: number) => {
      const one = model('machine', seed);
      return [1, 2, 3].map(() => one.value(truth, { quantity: 'swingWeight' }, 0, WARM));
    };
    expect(run(7)).toEqual(run(7));
    expect(run(7)).not.toEqual(run(8));
  });

  it('shows steps of its resolution', () => {
    fc.assert(
      fc.property(seeds, fc.constantFrom(0.05, 0.1, 0.5, 1), (seed, resolution) => {
        const value = model('scale', seed, { resolution }).value(truth, { quantity: 'massG' }, 0, WARM);
        expect(Math.abs(value / resolution - Math.round(value / resolution))).toBeLessThan(1e-6);
      }),
    );
  });

  it('drifts with the hours of the day, never faster than its data sheet says', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 1000 }), (seed, hour) => {
        const one = model('machine', seed);
        const at = (h: number) => one.shown(truth, { quantity: 'swingWeight' }, h * HOUR, WARM);
        expect(Math.abs(at(hour + 1) - at(hour))).toBeLessThanOrEqual(SHEET.driftPerHour + 1e-9);
        expect(at(hour + 24)).toBeCloseTo(at(hour), 6);
      }),
    );
  });

  it('is cold after it was plugged in, and after its warm-up time has 2 % of that left', () => {
    const one = model('machine', 3);
    const shown = (onFor: number) => one.shown(truth, { quantity: 'swingWeight' }, 0, onFor);
    const cold = shown(0) - shown(WARM);
    const warm = shown(SHEET.warmUpMinutes * 60_000) - shown(WARM);
    expect(Math.abs(cold)).toBeGreaterThan(0);
    expect(warm / cold).toBeCloseTo(Math.exp(-4), 6);
  });

  it('reads a frame edge-on by its twist weight more (perpendicular axes) less its depth, and about the axis of its data sheet', () => {
    const exact = { accuracy: 0, driftPerHour: 0, warmUpMinutes: 0 };
    const one = model('machine', 5, exact);
    const read = (quantity: 'swingWeight' | 'twistWeight', m = one) => m.shown(truth, { quantity }, 0, WARM);
    expect(read('swingWeight')).toBeCloseTo(320, 9);
    // Less what lies off the plane of the face: 2 ∫ z² dm, 8 mm as a root mean square.
    expect(read('twistWeight') - read('swingWeight')).toBeCloseTo(13.6 - (2 * 327 * 0.8 ** 2) / 1000, 9);
    const other = model('machine', 5, { ...exact, axisCm: 10 });
    const moved = (327 * ((32.2 - 10) ** 2 - (32.2 - 10.16) ** 2)) / 1000;
    expect(read('swingWeight', other) - 320).toBeCloseTo(moved, 9);
  });

  it('gives rods that a calibration can use, whatever its seed', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const one = model('machine', seed, { repeatability: 0.01, accuracy: 1 });
        const rods = RODS.map((rod) => ({ trueValue: rod, read: one.value({ rod }, { rod }, 0, WARM) }));
        const { slope, residuals } = calibrate(rods);
        expect(Math.abs(slope - 1)).toBeLessThan(0.03);
        for (const left of residuals) expect(Math.abs(left)).toBeLessThan(1.5);
      }),
    );
  });
});

describe('a stand-in as a driver', () => {
  const open = () => {
    const states: string[] = [];
    const samples: number[] = [];
    const one = new StandIn('scale', { ...SHEET, warmUpMinutes: 0.001 }, 1, { aValue: 10, aSample: 5 });
    one.open({
      state: (state) => states.push(state),
      sample: (value) => samples.push(value),
      trouble: () => undefined,
    });
    return { one, states, samples };
  };
  const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
  const massG = { quantity: 'massG' } as const;

  it('says its state at once, shows what lies on it, and stops when it is closed', async () => {
    const { one, states, samples } = open();
    expect(states).toEqual(['ready']);
    one.put(truth);
    await wait(60);
    expect(samples.length).toBeGreaterThan(3);
    expect(Math.max(...samples)).toBeGreaterThan(0);
    one.close();
    const count = samples.length;
    await wait(30);
    expect(samples).toHaveLength(count);
  });

  it('loses a reading when its cable is pulled, warms up again, and reads on', async () => {
    const { one, states } = open();
    one.put(truth);
    const reading = one.read(massG, new AbortController().signal);
    one.plug(false);
    await expect(reading).rejects.toBeInstanceOf(Lost);
    await expect(one.read(massG, new AbortController().signal)).rejects.toBeInstanceOf(Lost);
    one.plug(true);
    expect(states).toEqual(['ready', 'lost', 'warming']);
    await wait(120);
    expect(states.at(-1)).toBe('ready');
    expect(Math.abs((await one.read(massG, new AbortController().signal)) - 327)).toBeLessThan(15);
    one.close();
  });

  it('ends a reading that is stopped, with the reason', async () => {
    const { one } = open();
    one.put(truth);
    const stop = new AbortController();
    const reading = one.read(massG, stop.signal);
    stop.abort(new Error('enough'));
    await expect(reading).rejects.toThrow('enough');
    one.close();
  });
});

describe('what a reading is uncertain by', () => {
  const calibration = {
    id: 'c',
    instrumentId: 'm',
    takenAt: '2026-11-23T08:00:00.000Z',
    rods: RODS.map((trueValue) => ({ trueValue, reads: [1.01 * trueValue, 1.01 * trueValue] })),
    slope: 1.01,
    offset: 0,
    residuals: [0, 0, 0],
    refused: null,
  };
  const read = (change: object = {}) =>
    readingByInstrument({
      source: 'm',
      sheet: SHEET,
      calibrates: true,
      calibration,
      quantity: 'swingWeight',
      raw: [323.2],
      takenAt: calibration.takenAt,
      coldError: 0,
      ...change,
    });

  it('is corrected and surer with a calibration, and raw and less sure without', () => {
    expect(read().value).toBeCloseTo(320, 9);
    expect(read({ calibration: undefined }).value).toBe(323.2);
    expect(read().common).toBeLessThan(read({ calibration: undefined }).common);
    expect(read({ calibration: undefined }).common).toBeGreaterThanOrEqual(SHEET.accuracy);
  });

  it('grows with the age of the calibration up to eight hours, and while it is cold', () => {
    const after = (hours: number) =>
      read({ takenAt: new Date(Date.parse(calibration.takenAt) + hours * HOUR).toISOString() }).common;
    expect(after(4)).toBeGreaterThan(after(0));
    expect(after(8)).toBeGreaterThan(after(4));
    expect(after(300)).toBeCloseTo(after(8), 9);
    expect(read({ coldError: 1 }).common).toBeCloseTo(Math.hypot(read().common, 1), 9);
  });

  it('counts the rounding of the display: step/√12 (JCGM 100:2008, F.2.2.1)', () => {
    const coarse = read({ sheet: { ...SHEET, resolution: 2 } });
    expect(coarse.random).toBeCloseTo(Math.hypot(SHEET.repeatability, 2 / Math.sqrt(12)), 9);
  });

  it('names the axis only where the machine has one of its own, and edge-on for a twist weight', () => {
    expect(read()).not.toHaveProperty('axisCm');
    expect(read({ sheet: { ...SHEET, axisCm: 10 } }).axisCm).toBe(10);
    expect(read({ quantity: 'twistWeight' }).means).toBe('edge-on');
    expect(read({ quantity: 'leftRightG', raw: [0.4] })).toMatchObject({ value: 0.4, means: 'instrument' });
  });
});
