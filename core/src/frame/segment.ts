import { eachNode, integrate } from './quadrature';

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

/** The parameter at a length from the segment's start: a share of a line, the angle of an arc (Newton's method). */
export function parameterAt(segment: Segment, fromStartCm: number): number {
  if (segment.kind === 'line') return segment.lengthCm === 0 ? 0 : fromStartCm / segment.lengthCm;
  let t = segment.t0 + ((segment.t1 - segment.t0) * fromStartCm) / segment.lengthCm;
  if (segment.alongCm === segment.acrossCm) return t;
  for (let i = 0; i < 30; i++) {
    const miss = arcTo(segment, t) - fromStartCm;
    if (Math.abs(miss) < 1e-11) break;
    t -= miss / speed(segment, t);
  }
  return t;
}

/** Length from the segment's start to a parameter. */
export const lengthTo = (segment: Segment, parameter: number): number =>
  segment.kind === 'line' ? parameter * segment.lengthCm : arcTo(segment, parameter);

export function pointOn(segment: Segment, parameter: number): Point {
  if (segment.kind === 'arc') return onArc(segment, parameter);
  const { from, to } = segment;
  return {
    xCm: from.xCm + parameter * (to.xCm - from.xCm),
    yCm: from.yCm + parameter * (to.yCm - from.yCm),
  };
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

/** Adds the moments of a segment between two lengths from its start to `sums`. */
export function addMoments(sums: ArcMoments, segment: Segment, fromCm: number, toCm: number): void {
  const a = parameterAt(segment, fromCm);
  const b = parameterAt(segment, toCm);
  const steps = segment.kind === 'line' ? 1 : Math.max(1, Math.ceil((b - a) / (Math.PI / 4) - 1e-9));
  for (let i = 0; i < steps; i++) {
    eachNode(a + ((b - a) * i) / steps, a + ((b - a) * (i + 1)) / steps, (t, weight) => {
      const { xCm, yCm } = pointOn(segment, t);
      const ds = weight * (segment.kind === 'line' ? segment.lengthCm : speed(segment, t));
      sums.x += ds * xCm;
      sums.xx += ds * xCm * xCm;
      sums.yy += ds * yCm * yCm;
    });
  }
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
