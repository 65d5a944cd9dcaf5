import { describe, expect, it } from 'vitest';
import { ALL_SPORTS, SPORTS, fromSpot, settleFrame, type Frame, type Sport } from '@kevro/core';
import { frameDrawing, weightDrawing } from './drawing';
import { railScale } from './scale';

const frameOf = (sport: Sport): Frame => settleFrame({ sport, lengthCm: SPORTS[sport].lengthCm });

/** The points of a path, in pixels. */
const points = (d: string): [number, number][] =>
  [...d.matchAll(/(-?\d+(?:\.\d+)?) (-?\d+(?:\.\d+)?)/g)].map((found) => [
    Number(found[1]),
    Number(found[2]),
  ]);

describe.each(ALL_SPORTS)('the rail of a %s frame', (sport) => {
  const frame = frameOf(sport);

  it.each([320, 560, 730, 1100])('is drawn to scale and stays inside at a width of %i', (width) => {
    const scale = railScale(frame, width);
    expect(scale.px(10) - scale.px(0)).toBeCloseTo(10 * scale.k, 9);
    expect(scale.py(0) - scale.py(10)).toBeCloseTo(10 * scale.k, 9);
    expect(scale.px(frame.lengthCm)).toBeLessThanOrEqual(width);
    expect(scale.px(0)).toBeGreaterThan(0);
    expect(scale.height).toBeLessThan(400);
    // Nothing of the head reaches into the ruler.
    expect(scale.py(-frame.head.acrossCm)).toBeLessThan(scale.rulerY);
  });

  it('has the tip of its head at its length and its greatest width where the core says', () => {
    const scale = railScale(frame, 800);
    const outline = points(frameDrawing(scale, frame, {}).outer);
    const [xs, ys] = [outline.map(([x]) => x), outline.map(([, y]) => y)];
    expect(Math.max(...xs)).toBeCloseTo(scale.px(frame.lengthCm), 0);
    expect(Math.min(...xs)).toBeCloseTo(scale.px(frame.head.centreXCm - frame.head.alongCm), 0);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(2 * frame.head.acrossCm * scale.k, -0.5);
  });

  it('shows strings only where the sport has them and they are on', () => {
    const scale = railScale(frame, 800);
    const strung = frameDrawing(scale, frame, { strings: true, dampener: true });
    const has = sport === 'tennis' || sport === 'badminton';
    expect(strung.mesh.length > 0).toBe(has);
    expect(strung.dampener !== undefined).toBe(has);
    expect(frameDrawing(scale, frame, {}).mesh).toEqual([]);
    expect(frameDrawing(scale, frame, { overgrips: 1 }).wraps.length).toBeGreaterThan(0);
  });

  it('draws a strip at the sides on both sides, within the head', () => {
    const scale = railScale(frame, 800);
    const placement = fromSpot(
      frame,
      { at: { zone: 'sides' }, massG: 4, spanCm: 4 },
      { id: 'p', partId: '' },
    );
    const { strokes, labels } = weightDrawing(scale, frame, placement);
    expect(strokes).toHaveLength(2);
    // One above the hoop, one inside: below it stands the balance.
    const edge = frame.head.acrossCm * scale.k;
    expect(labels).toHaveLength(2);
    expect(labels[0]?.y).toBeLessThan(scale.axisY - edge);
    expect(labels[1]?.y).toBeLessThan(scale.axisY + edge);
    for (const { d } of strokes) {
      for (const [x, y] of points(d)) {
        expect(x).toBeLessThanOrEqual(scale.px(frame.lengthCm));
        expect(Math.abs(y - scale.axisY)).toBeLessThanOrEqual(frame.head.acrossCm * scale.k + 1);
      }
    }
  });
});

describe('what joins the head to the handle', () => {
  it('is a throat, a shaft, or nothing', () => {
    const limbs = (sport: Sport) =>
      frameDrawing(railScale(frameOf(sport), 800), frameOf(sport), {}).limbs.length;
    expect(limbs('tennis')).toBe(3);
    expect(limbs('padel')).toBe(3);
    expect(limbs('badminton')).toBe(2);
    expect(limbs('pickleball')).toBe(0);
  });
});

describe('a heavier weight', () => {
  it('looks heavier', () => {
    const frame = frameOf('tennis');
    const scale = railScale(frame, 800);
    const width = (massG: number) =>
      weightDrawing(
        scale,
        frame,
        fromSpot(frame, { at: { zone: 'tip' }, massG, spanCm: 6 }, { id: 'p', partId: '' }),
      ).strokes[0]?.width ?? 0;
    expect(width(6)).toBeGreaterThan(width(2));
  });
});
