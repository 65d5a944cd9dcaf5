import {
  angleOfClock,
  atAngle,
  halfWidthAt,
  isStrung,
  lengthAt,
  limb,
  pointAtArc,
  pointOnLine,
  spanOf,
  tangentAtArc,
  type Dress,
  type Frame,
  type Outline,
  type Placement,
  type Point,
  type Sport,
} from '@kevro/core';
import { HOOP_CM, type RailScale } from './scale';

/** SVG paths of a frame and of what lies on it. Only drawing: every length comes from the core's outline. */

const at = ({ px, py }: RailScale, p: Point): string => `${px(p.xCm).toFixed(1)} ${py(p.yCm).toFixed(1)}`;
export const line = (scale: RailScale, points: readonly Point[], closed = false): string =>
  points.length === 0 ? '' : `M ${points.map((p) => at(scale, p)).join(' L ')}${closed ? ' Z' : ''}`;

/** An outline of the head, drawn as it is. */
function edge(scale: RailScale, outline: Outline): string {
  const steps = 48;
  const arcs = Array.from({ length: 2 * steps + 1 }, (_, i) => ((i - steps) / steps) * outline.sideCm);
  return line(
    scale,
    arcs.map((arcCm) => pointAtArc(outline, arcCm)),
    true,
  );
}

/** A point of the hoop's middle line, at an arc length from the tip. */
function onHoop({ rim, sport }: Frame, arcCm: number): { point: Point; outward: Point } {
  const edge = pointAtArc(rim, arcCm);
  const along = tangentAtArc(rim, arcCm);
  const outward = { xCm: along.yCm, yCm: -along.xCm };
  // What lies on the very edge is drawn on the rim all the same, where it can be seen and taken hold of.
  const inward = sport.hoop.usual === 'edge' ? HOOP_CM / 2 : 0;
  return {
    point: { xCm: edge.xCm - inward * outward.xCm, yCm: edge.yCm - inward * outward.yCm },
    outward,
  };
}

export interface FrameDrawing {
  outer: string;
  /** The inner edge of the hoop, or of a face's rim. */
  inner: string;
  /** The throat's limbs, or a shaft; none where the head stands on the handle. */
  limbs: string[];
  handle: { x: number; y: number; width: number; height: number };
  butt: { x: number; y: number; width: number; height: number };
  wraps: string[];
  mesh: string[];
  dampener: Point | undefined;
}

const MESH_STEP_CM = 1.45;

/** Strings are drawn up to here of the bed: further out they would be shorter than they look. */
const MESHED = 0.99;

function mesh(scale: RailScale, bed: Outline): string[] {
  const { centreXCm, alongCm, acrossCm } = bed;
  const tip = centreXCm + alongCm;
  const paths: string[] = [];
  for (let y = MESH_STEP_CM / 2; y < MESHED * acrossCm; y += MESH_STEP_CM) {
    const { from, to } = lengthAt(bed, y);
    for (const yCm of [y, -y])
      paths.push(
        line(
          scale,
          [from, to].map((xCm) => ({ xCm, yCm })),
        ),
      );
  }
  for (let x = MESH_STEP_CM / 2; x < MESHED * 2 * alongCm; x += MESH_STEP_CM) {
    const xCm = tip - x;
    const half = halfWidthAt(bed, xCm);
    paths.push(
      line(
        scale,
        [half, -half].map((yCm) => ({ xCm, yCm })),
      ),
    );
  }
  return paths;
}

/** Half the width of a limb, and how far behind the handle's end the fork closes, cm. */
const LIMB_HALF_CM = 0.62;
const FORK_CM = 1.7;

/** The throat: two limbs from the handle to the hoop, drawn around the line on which the core places weight. */
function limbs(scale: RailScale, frame: Frame): string[] {
  const [low, high] = limb(frame);
  const size = Math.hypot(high.xCm - low.xCm, high.yCm - low.yCm);
  const normal = { xCm: -(high.yCm - low.yCm) / size, yCm: (high.xCm - low.xCm) / size };
  const beside = (from: Point, byCm: number, alongShare: number): Point => ({
    xCm: from.xCm + byCm * normal.xCm + alongShare * (high.xCm - low.xCm),
    yCm: from.yCm + byCm * normal.yCm + alongShare * (high.yCm - low.yCm),
  });
  const p = (point: Point, side: number): string => at(scale, { xCm: point.xCm, yCm: side * point.yCm });
  // The outer line leaves the handle along it, runs beside the limb, and meets the hoop in the hoop's own direction.
  const joint = atAngle(frame.head, angleOfClock(4.2));
  const along = tangentAtArc(frame.head, joint.arcCm());
  const hoopSlope = along.yCm / along.xCm;
  const limbSlope = (high.yCm - low.yCm) / (high.xCm - low.xCm);
  const middle = beside(low, LIMB_HALF_CM, 0.42);
  const hermite = (from: Point, fromSlope: number, to: Point, toSlope: number, side: number): string => {
    const third = (to.xCm - from.xCm) / 3;
    const c1 = { xCm: from.xCm + third, yCm: from.yCm + fromSlope * third };
    const c2 = { xCm: to.xCm - third, yCm: to.yCm - toSlope * third };
    return `C ${p(c1, side)} ${p(c2, side)} ${p(to, side)}`;
  };
  const outer = [1, -1].map(
    (side) =>
      `M ${p(low, side)} ${hermite(low, 0.06, middle, limbSlope, side)} ${hermite(middle, limbSlope, joint, hoopSlope, side)}`,
  );
  const start = beside(low, -LIMB_HALF_CM, 0.3);
  const end = beside(high, -LIMB_HALF_CM, 0.1);
  const fork = { xCm: low.xCm + FORK_CM, yCm: 0 };
  const bend = beside(low, -LIMB_HALF_CM, 0.12);
  const half = (side: number): string => p({ xCm: fork.xCm, yCm: bend.yCm * 0.6 }, side);
  const inner = `M ${p(end, 1)} L ${p(start, 1)} C ${p(bend, 1)} ${half(1)} ${p(fork, 1)} C ${half(-1)} ${p(bend, -1)} ${p(start, -1)} L ${p(end, -1)}`;
  return [...outer, inner];
}

function wraps(scale: RailScale, frame: Frame, half: number, overgrips: number): string[] {
  const step = overgrips > 0 ? 2 / (1 + 0.25 * (overgrips - 1)) : 2.6;
  const paths: string[] = [];
  for (let x = step; x < frame.handleLengthCm - 0.6; x += step) {
    paths.push(
      line(scale, [
        { xCm: x - 0.5, yCm: -half },
        { xCm: x + 0.5, yCm: half },
      ]),
    );
  }
  return paths;
}

/** Half the width of a shaft, cm. */
const SHAFT_HALF_CM = 0.36;

function shaft(scale: RailScale, frame: Frame): string[] {
  const ends = [frame.handleLengthCm, frame.head.centreXCm - frame.head.alongCm];
  return [SHAFT_HALF_CM, -SHAFT_HALF_CM].map((yCm) =>
    line(
      scale,
      ends.map((xCm) => ({ xCm, yCm })),
    ),
  );
}

/** What joins the head to the handle: a paddle of padel is drawn with a bridge of two limbs around its heart, whatever weight lies on. */
const JOINTS: Record<Sport, (scale: RailScale, frame: Frame) => string[]> = {
  tennis: limbs,
  padel: limbs,
  badminton: shaft,
  pickleball: () => [],
};

/** Everything of the frame itself; strings, grip and dampener only where the dress has them. */
export function frameDrawing(scale: RailScale, frame: Frame, dress: Dress | undefined): FrameDrawing {
  const { px, py, k } = scale;
  const inner = frame.bed;
  const gripped = dress?.baseGrip !== undefined && dress.baseGrip !== 'none';
  const overgrips = dress?.overgrips ?? 0;
  const half = frame.handleRadiusCm + (gripped ? 0.12 : 0) + 0.07 * overgrips;
  const capHalf = half + 0.3;
  return {
    outer: edge(scale, frame.head),
    inner: edge(scale, frame.bed),
    limbs: JOINTS[frame.sport.sport](scale, frame),
    handle: { x: px(0), y: py(half), width: frame.handleLengthCm * k, height: 2 * half * k },
    butt: { x: px(0) - 2, y: py(capHalf), width: 1.3 * k, height: 2 * capHalf * k },
    wraps: gripped || overgrips > 0 ? wraps(scale, frame, half, overgrips) : [],
    mesh: dress?.strings && isStrung(frame.sport.sport) ? mesh(scale, inner) : [],
    dampener:
      dress?.dampener && isStrung(frame.sport.sport)
        ? { xCm: inner.centreXCm - inner.alongCm + 0.9, yCm: 0 }
        : undefined,
  };
}

export interface WeightDrawing {
  /** A stroke for each side, or a block in the handle. */
  strokes: { d: string; width: number }[];
  /** Where each stroke can be taken hold of: its middle, and the box around it, px. */
  holds: { middle: Point; left: number; top: number; width: number; height: number }[];
  labels: { x: number; y: number; anchor: 'start' | 'middle' | 'end' }[];
}

/** Thickness of a weight, px: by grams per cm, so that the heavier looks heavier. */
const thickness = (gPerCm: number): number => Math.min(17, 6 + 9 * gPerCm);
const LEAST_SPAN_CM = 0.8;
const LABEL_PX = 17;

/** The least that a finger can take hold of, px. */
const LEAST_HOLD_PX = 44;
function holdOf(
  { px, py }: RailScale,
  points: readonly Point[],
  wide: number,
): WeightDrawing['holds'][number] {
  const xs = points.map(({ xCm }) => px(xCm));
  const ys = points.map(({ yCm }) => py(yCm));
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const width = Math.max(LEAST_HOLD_PX, right - left + wide);
  const height = Math.max(LEAST_HOLD_PX, bottom - top + wide);
  return {
    middle: points[Math.floor(points.length / 2)] ?? { xCm: 0, yCm: 0 },
    left: (left + right - width) / 2,
    top: (top + bottom - height) / 2,
    width,
    height,
  };
}

/** How a placement is drawn: strips follow the middle of the hoop or the throat, fillings lie in the handle. */
export function weightDrawing(scale: RailScale, frame: Frame, placement: Placement): WeightDrawing {
  const { px, py, k } = scale;
  const { line: on, startCm, endCm } = spanOf(frame, placement);
  const middle = (startCm + endCm) / 2;
  const span = Math.max(LEAST_SPAN_CM, endCm - startCm);
  const sides = placement.sides === 2 ? [1, -1] : [1];
  const width = thickness(placement.massG / sides.length / span);
  const along = (steps: number, point: (cm: number) => Point): Point[] =>
    Array.from({ length: steps + 1 }, (_, i) => point(middle - span / 2 + (span * i) / steps));
  const strokes = (points: Point[], wide: number): Pick<WeightDrawing, 'strokes' | 'holds'> => {
    const lines = sides.map((side) => points.map((p) => ({ xCm: p.xCm, yCm: side * p.yCm })));
    return {
      strokes: lines.map((on) => ({ d: line(scale, on), width: wide })),
      holds: lines.map((on) => holdOf(scale, on, wide)),
    };
  };
  if (on === 'rim') {
    const { point: centre, outward } = onHoop(frame, middle);
    const onTip = sides.length === 1 && Math.abs(centre.yCm) < 0.5;
    return {
      ...strokes(
        along(24, (cm) => onHoop(frame, cm).point),
        width,
      ),
      labels: onTip
        ? [{ x: px(centre.xCm) - LABEL_PX, y: py(0) + 5, anchor: 'end' }]
        : sides.map((side) => ({
            x: px(centre.xCm) + outward.xCm * (LABEL_PX + 4),
            // Below the lower edge stands where it balances: there it goes inside.
            y: py(side * centre.yCm) - outward.yCm * LABEL_PX * (Math.abs(outward.xCm) > 0.35 ? side : 1) + 5,
            anchor: outward.xCm > 0.35 ? 'start' : outward.xCm < -0.35 ? 'end' : 'middle',
          })),
    };
  }
  const centre = pointOnLine(frame, on, middle);
  const inHandle = on === 'handle';
  return {
    ...strokes(
      along(1, (cm) => pointOnLine(frame, on, cm)),
      inHandle ? Math.min(2.4 * k, width + 4) : width,
    ),
    labels: inHandle
      ? [{ x: px(centre.xCm), y: py(frame.handleRadiusCm + 0.5) - 8, anchor: 'middle' }]
      : sides.map((side) => ({
          x: px(centre.xCm) - 8,
          y: py(side * (centre.yCm + 1)) + (side > 0 ? -4 : 14),
          anchor: 'end' as const,
        })),
  };
}

/** Width of a letter of a label, px: its font is 14 px, bold. */
const LETTER_PX = 7.8;
const LABEL_ROW_PX = 17;

/**
 * Labels of pieces in the handle beside one another: where two would lie over each other the next stands under the handle, then a row further out.
 * @param texts what stands at each drawing @returns the drawings, with their labels moved
 */
export function apartInHandle(
  scale: RailScale,
  frame: Frame,
  placements: readonly Placement[],
  drawings: readonly WeightDrawing[],
  texts: readonly string[],
): WeightDrawing[] {
  const above = scale.py(frame.handleRadiusCm + 0.5) - 8;
  const below = scale.py(-frame.handleRadiusCm - 0.5) + 20;
  const rows = [above, below, above - LABEL_ROW_PX, below + LABEL_ROW_PX];
  const taken = rows.map(() => -Infinity);
  const found = [...drawings];
  const inHandle = placements
    .flatMap((placement, i) => {
      const [label] = drawings[i]?.labels ?? [];
      return placement.path === 'handle' && label
        ? [{ i, x: label.x, half: ((texts[i]?.length ?? 0) * LETTER_PX) / 2 }]
        : [];
    })
    .toSorted((a, b) => a.x - b.x);
  for (const { i, x, half } of inHandle) {
    const row = Math.max(
      0,
      taken.findIndex((right) => x - half > right),
    );
    taken[row] = x + half + 4;
    const drawing = found[i];
    if (drawing) found[i] = { ...drawing, labels: [{ x, y: rows[row] ?? above, anchor: 'middle' }] };
  }
  return found;
}
