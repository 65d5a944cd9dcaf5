/** A head as an ellipse: half-axes along x and across y, and where its middle lies on the long axis. All cm. */
export interface Ellipse {
  centreXCm: number;
  alongCm: number;
  acrossCm: number;
}

export interface Point {
  xCm: number;
  yCm: number;
}

// Gauss–Legendre on 16 nodes: abscissae and weights of the positive half (Abramowitz & Stegun, table 25.4).
const NODES = [
  0.0950125098376374, 0.2816035507792589, 0.4580167776572274, 0.6178762444026438, 0.755404408355003,
  0.8656312023878318, 0.9445750230732326, 0.9894009349916499,
];
const WEIGHTS = [
  0.1894506104550685, 0.1826034150449236, 0.1691565193950025, 0.1495959888165767, 0.1246289712555339,
  0.0951585116824928, 0.0622535239386479, 0.0271524594117541,
];

/** ∫ f from a to b by 16-point Gauss–Legendre: exact far beyond a micrometre for the smooth arcs used here. */
export function integrate(f: (t: number) => number, a: number, b: number): number {
  const half = (b - a) / 2;
  const middle = (a + b) / 2;
  let sum = 0;
  for (let i = 0; i < NODES.length; i++) {
    const step = half * (NODES[i] ?? 0);
    sum += (WEIGHTS[i] ?? 0) * (f(middle - step) + f(middle + step));
  }
  return sum * half;
}

/** The point of the ellipse at parameter t; t = 0 is the tip, t = π/2 the side with positive y. */
export const pointAt = (e: Ellipse, t: number): Point => ({
  xCm: e.centreXCm + e.alongCm * Math.cos(t),
  yCm: e.acrossCm * Math.sin(t),
});

/** |dr/dt|, the speed of the parametrisation, cm per radian. */
export const speedAt = (e: Ellipse, t: number): number =>
  Math.hypot(e.alongCm * Math.sin(t), e.acrossCm * Math.cos(t));

/** Arc length from the tip to parameter t, cm; negative on the side with negative y. Panels of at most π/4 keep it exact. */
export function arcLength(e: Ellipse, t: number): number {
  const panels = Math.max(1, Math.ceil(Math.abs(t) / (Math.PI / 4)));
  let sum = 0;
  for (let i = 0; i < panels; i++) {
    sum += integrate((u) => speedAt(e, u), (t * i) / panels, (t * (i + 1)) / panels);
  }
  return sum;
}

/** The parameter at an arc length from the tip (Newton's method on {@link arcLength}). */
export function parameterAtArc(e: Ellipse, arcCm: number): number {
  let t = arcCm / ((e.alongCm + e.acrossCm) / 2);
  for (let i = 0; i < 30; i++) {
    const miss = arcLength(e, t) - arcCm;
    if (Math.abs(miss) < 1e-12) break;
    t -= miss / speedAt(e, t);
  }
  return t;
}

/**
 * The parameter of a clock hour, which is a polar angle seen from the middle of the head: 12 is the tip, 3 has positive y.
 * @param hour 0 to 12
 */
export function parameterAtClock(e: Ellipse, hour: number): number {
  const angle = (hour % 12) * (Math.PI / 6);
  const t = Math.atan2(Math.sin(angle) / e.acrossCm, Math.cos(angle) / e.alongCm);
  return t;
}

export const ellipseArea = (e: Ellipse): number => Math.PI * e.alongCm * e.acrossCm;
