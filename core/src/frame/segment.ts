import { eachNode, eachNodeOfPanel, integrate } from './quadrature';

export interface Point {
  xCm: number;
  yCm: number;
}

/**
 * A piece of an outline: a straight line, or an arc of an ellipse x = cx + p cos t, y = cy + q sin t from t0 to t1. All cm, t in radians.
 */
export type Segment =
  | { kind: 'line'; from: Point; to: Point; lengthCm: number }
  | {
      kind: 'arc';
      centre: Point;
      alongCm: number;
      acrossCm: number;
      t0: number;
      t1: number;
      lengthCm: number;
    };

type Arc = Extract<Segment, { kind: 'arc' }>;

const speed = (arc: Arc, t: number): number =>
  Math.hypot(arc.alongCm * Math.sin(t), arc.acrossCm * Math.cos(t));

/** Panels of at most π/4 keep the quadrature exact on any ellipse met here. */
function overPanels(f: (t: number) => number, a: number, b: number): number {
  const panels = Math.max(1, Math.ceil(Math.abs(b - a) / (Math.PI / 4) - 1e-9));
  let sum = 0;
  for (let i = 0; i < panels; i++) {
    sum += integrate(f, a + ((b - a) * i) / panels, a + ((b - a) * (i + 1)) / panels);
  }
  return sum;
}

/** Length of an arc from its start to t; closed form on a circle. */
function arcTo(arc: Arc, t: number): number {
  if (arc.alongCm === arc.acrossCm) return arc.alongCm * (t - arc.t0);
  return overPanels((u) => speed(arc, u), arc.t0, t);
}

export const line = (from: Point, to: Point): Segment => ({
  kind: 'line',
  from,
  to,
  lengthCm: Math.hypot(to.xCm - from.xCm, to.yCm - from.yCm),
});

export function arc(centre: Point, alongCm: number, acrossCm: number, t0: number, t1: number): Segment {
  const bare: Arc = { kind: 'arc', centre, alongCm, acrossCm, t0, t1, lengthCm: 0 };
  return { ...bare, lengthCm: arcTo(bare, t1) };
}

export const onArc = (a: Arc, t: number): Point => ({
  xCm: a.centre.xCm + a.alongCm * Math.cos(t),
  yCm: a.centre.yCm + a.acrossCm * Math.sin(t),
});

/** Panels of an arc in which lengths and moments up to their ends are kept, so that what is asked again and again is a step within one. */
const PANELS = 24;
interface Kept {
  t: Float64Array;
  lengthCm: Float64Array;
  /** ∫ x, ∫ x² and ∫ y² ds up to each panel. */
  moments: Float64Array;
}
const kept = new WeakMap<Arc, Kept>();

function keptOf(arc: Arc): Kept {
  const before = kept.get(arc);
  if (before) return before;
  const t = Float64Array.from({ length: PANELS + 1 }, (_, i) => arc.t0 + ((arc.t1 - arc.t0) * i) / PANELS);
  const lengthCm = new Float64Array(PANELS + 1);
  const moments = new Float64Array(3 * (PANELS + 1));
  for (let i = 0; i < PANELS; i++) {
    const sums = { x: 0, xx: 0, yy: 0 };
    lengthCm[i + 1] = (lengthCm[i] as number) + along(arc, t[i] as number, t[i + 1] as number, sums);
    moments[3 * i + 3] = (moments[3 * i] as number) + sums.x;
    moments[3 * i + 4] = (moments[3 * i + 1] as number) + sums.xx;
    moments[3 * i + 5] = (moments[3 * i + 2] as number) + sums.yy;
  }
  const made = { t, lengthCm, moments };
  kept.set(arc, made);
  return made;
}

/** The length of a short piece of an arc; its moments are added to `sums`. */
function along(arc: Arc, a: number, b: number, sums?: ArcMoments): number {
  let lengthCm = 0;
  eachNodeOfPanel(a, b, (t, weight) => {
    const ds = weight * speed(arc, t);
    lengthCm += ds;
    if (!sums) return;
    const { xCm, yCm } = onArc(arc, t);
    sums.x += ds * xCm;
    sums.xx += ds * xCm * xCm;
    sums.yy += ds * yCm * yCm;
  });
  return lengthCm;
}

/** Length of an arc from its start to a parameter within it. */
function arcLength(arc: Arc, t: number): number {
  if (arc.alongCm === arc.acrossCm) return arc.alongCm * (t - arc.t0);
  const known = keptOf(arc);
  const share = (t - arc.t0) / (arc.t1 - arc.t0);
  const panel = Math.min(PANELS - 1, Math.max(0, Math.floor(share * PANELS)));
  return (known.lengthCm[panel] as number) + along(arc, known.t[panel] as number, t);
}

/** The panel in which a length from the start lies. */
function panelAt({ lengthCm }: Kept, fromStartCm: number): number {
  let low = 0;
  let high = PANELS - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((lengthCm[middle] as number) <= fromStartCm) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The parameter at a length from the segment's start: a share of a line, the angle of an arc (Newton's method). */
export function parameterAt(segment: Segment, fromStartCm: number): number {
  if (segment.kind === 'line') return segment.lengthCm === 0 ? 0 : fromStartCm / segment.lengthCm;
  if (segment.alongCm === segment.acrossCm) return segment.t0 + fromStartCm / segment.alongCm;
  const known = keptOf(segment);
  const panel = panelAt(known, fromStartCm);
  const [t0, t1] = [known.t[panel] as number, known.t[panel + 1] as number];
  const [s0, s1] = [known.lengthCm[panel] as number, known.lengthCm[panel + 1] as number];
  let t = t0 + ((t1 - t0) * (fromStartCm - s0)) / (s1 - s0);
  for (let i = 0; i < 30; i++) {
    const miss = s0 + along(segment, t0, t) - fromStartCm;
    if (Math.abs(miss) < 1e-11) break;
    t -= miss / speed(segment, t);
  }
  return t;
}

/** Length from the segment's start to a parameter. */
export const lengthTo = (segment: Segment, parameter: number): number =>
  segment.kind === 'line' ? parameter * segment.lengthCm : arcLength(segment, parameter);

export function pointOn(segment: Segment, parameter: number): Point {
  if (segment.kind === 'arc') return onArc(segment, parameter);
  const { from, to } = segment;
  return {
    xCm: from.xCm + parameter * (to.xCm - from.xCm),
    yCm: from.yCm + parameter * (to.yCm - from.yCm),
  };
}

/** Where a segment has a value of x or y: none, one or two points. A line all of which has it lies along the cut and counts as none. */
export function crossings(segment: Segment, axis: keyof Point, value: number): Point[] {
  if (segment.kind === 'line') {
    const { from, to } = segment;
    const u = (value - from[axis]) / (to[axis] - from[axis]);
    return u >= -1e-9 && u <= 1 + 1e-9 ? [pointOn(segment, u)] : [];
  }
  const { centre, alongCm, acrossCm, t0, t1 } = segment;
  const share = (value - centre[axis]) / (axis === 'xCm' ? alongCm : acrossCm);
  // On the side that is kept t runs from 0 at the tip to π at the bottom.
  const angles = axis === 'xCm' ? [Math.acos(share)] : [Math.asin(share), Math.PI - Math.asin(share)];
  return angles.filter((t) => t >= t0 - 1e-9 && t <= t1 + 1e-9).map((t) => onArc(segment, t));
}

/** Unit vector along the segment at a parameter, in its direction. */
export function tangentOn(segment: Segment, parameter: number): Point {
  if (segment.kind === 'line') {
    const { from, to, lengthCm } = segment;
    return { xCm: (to.xCm - from.xCm) / lengthCm, yCm: (to.yCm - from.yCm) / lengthCm };
  }
  const size = speed(segment, parameter);
  return {
    xCm: (-segment.alongCm * Math.sin(parameter)) / size,
    yCm: (segment.acrossCm * Math.cos(parameter)) / size,
  };
}

/** ∫ x ds, ∫ x² ds and ∫ y² ds along a piece of an outline. */
export interface ArcMoments {
  x: number;
  xx: number;
  yy: number;
}

/** Moments of a segment from its start up to a length. */
export function momentsTo(segment: Segment, toCm: number): ArcMoments {
  const sums = { x: 0, xx: 0, yy: 0 };
  if (toCm <= 0) return sums;
  if (segment.kind === 'line') {
    eachNode(0, parameterAt(segment, toCm), (t, weight) => {
      const { xCm, yCm } = pointOn(segment, t);
      const ds = weight * segment.lengthCm;
      sums.x += ds * xCm;
      sums.xx += ds * xCm * xCm;
      sums.yy += ds * yCm * yCm;
    });
    return sums;
  }
  const known = keptOf(segment);
  const panel = panelAt(known, toCm);
  const end = parameterAt(segment, toCm);
  along(segment, known.t[panel] as number, end, sums);
  sums.x += known.moments[3 * panel] as number;
  sums.xx += known.moments[3 * panel + 1] as number;
  sums.yy += known.moments[3 * panel + 2] as number;
  return sums;
}

/** ∫ g(x, y) dx along the whole segment: the boundary term of an area integral. */
export function overX(segment: Segment, g: (xCm: number, yCm: number) => number): number {
  if (segment.kind === 'line') {
    const dx = segment.to.xCm - segment.from.xCm;
    return integrate(
      (u) => {
        const p = pointOn(segment, u);
        return g(p.xCm, p.yCm) * dx;
      },
      0,
      1,
    );
  }
  return overPanels(
    (t) => {
      const p = onArc(segment, t);
      return g(p.xCm, p.yCm) * -segment.alongCm * Math.sin(t);
    },
    segment.t0,
    segment.t1,
  );
}
