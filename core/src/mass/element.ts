import { arcMoments, areaIntegrals, type Outline, type Point } from '../frame';
import type { MassSums } from './sums';

/**
 * Sums of a mass at a point: i_x = i_y = 0.
 * @param massG g @param xCm from the butt @param yCm from the long axis
 * @example point(4, 68.58).secondGCm2 // 18812.9…
 */
export const point = (massG: number, xCm: number, yCm = 0): MassSums => ({
  massG,
  firstGCm: massG * xCm,
  secondGCm2: massG * xCm * xCm,
  twistGCm2: massG * yCm * yCm,
});

/** A point mass with inertia of its own about axes through its centre, g·cm²: i_y parallel to y, i_x parallel to x. */
const extended = (massG: number, xCm: number, yCm: number, iY: number, iX: number): MassSums => {
  const sums = point(massG, xCm, yCm);
  return { ...sums, secondGCm2: sums.secondGCm2 + iY, twistGCm2: sums.twistGCm2 + iX };
};

/**
 * A thin straight strip parallel to the long axis: i_y = m l²/12 (uniform rod, handbook), i_x = 0.
 * @param spanCm its length, cm
 */
export const straightStrip = (massG: number, xCm: number, yCm: number, spanCm: number): MassSums =>
  extended(massG, xCm, yCm, (massG * spanCm * spanCm) / 12, 0);

/**
 * A thin even strip from one point to another: i about each axis is m Δ²/12, Δ its extent across that axis (uniform rod, handbook).
 * @example segmentStrip(2, { xCm: 30, yCm: 3 }, { xCm: 34, yCm: 6 }).firstGCm // 64
 */
export const segmentStrip = (massG: number, from: Point, to: Point): MassSums =>
  extended(
    massG,
    (from.xCm + to.xCm) / 2,
    (from.yCm + to.yCm) / 2,
    (massG * (to.xCm - from.xCm) ** 2) / 12,
    (massG * (to.yCm - from.yCm) ** 2) / 12,
  );

/**
 * A filled column in the handle: i_y = m l²/12, i_x = m r²/2 (solid cylinder about its axis, handbook).
 * The share of r in i_y (m r²/4) is left out as in physics.md: under 0.01 kg·cm² for 10 g.
 */
export const handleColumn = (massG: number, xCm: number, spanCm: number, radiusCm: number): MassSums =>
  extended(massG, xCm, 0, (massG * spanCm * spanCm) / 12, (massG * radiusCm * radiusCm) / 2);

/**
 * A wrap around the handle (thin tube): i_y = m (l²/12 + r²/2), i_x = m r² (handbook).
 */
export const handleWrap = (massG: number, xCm: number, spanCm: number, radiusCm: number): MassSums =>
  extended(
    massG,
    xCm,
    0,
    massG * ((spanCm * spanCm) / 12 + (radiusCm * radiusCm) / 2),
    massG * radiusCm * radiusCm,
  );

/**
 * An even sheet over an outline (a string bed, a face): from the outline's area integrals.
 * For an ellipse with half-axes p along x and q along y that is i_y = m p²/4, i_x = m q²/4 (handbook).
 */
export function sheet(massG: number, outline: Outline): MassSums {
  const { area, x, xx, yy } = areaIntegrals(outline);
  const perCm2 = massG / area;
  return { massG, firstGCm: perCm2 * x, secondGCm2: perCm2 * xx, twistGCm2: perCm2 * yy };
}

/**
 * An even strip that follows the edge, from one arc length to another, measured from the tip; integrated along the arc.
 * @param fromCm, toCm arc lengths, cm; negative on the side with negative y; a strip across the tip has fromCm < 0 < toCm
 * @example rimStrip(4, head, -5, 5) // 10 cm across the tip
 */
export function rimStrip(massG: number, outline: Outline, fromCm: number, toCm: number): MassSums {
  const perCm = massG / (toCm - fromCm);
  const { x, xx, yy } = arcMoments(outline, fromCm, toCm);
  return { massG, firstGCm: perCm * x, secondGCm2: perCm * xx, twistGCm2: perCm * yy };
}
