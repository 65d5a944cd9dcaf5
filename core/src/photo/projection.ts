/** A point of a photo, picture elements from its top left corner; or of the table, cm. */
export interface Spot2 {
  x: number;
  y: number;
}
/** The middle of a picture. */
export const middleOf = ({ width, height }: { width: number; height: number }): Spot2 => ({
  x: width / 2,
  y: height / 2,
});
/** The way along which points spread most from their middle, of length one. */
export function axisThrough(
  points: readonly Spot2[],
  middle: Spot2,
  weights?: readonly number[],
): [dx: number, dy: number] {
  let [xx, xy, yy] = [0, 0, 0];
  points.forEach(({ x, y }, i) => {
    const w = weights?.[i] ?? 1;
    xx += w * (x - middle.x) ** 2;
    xy += w * (x - middle.x) * (y - middle.y);
    yy += w * (y - middle.y) ** 2;
  });
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  return [Math.cos(angle), Math.sin(angle)];
}
/** The straight line that comes nearest to values over places (least squares): what it rises by, and where it is at 0. */
export function slopeThrough(points: readonly (readonly [at: number, value: number])[]): {
  slope: number;
  at0: number;
} {
  const n = points.length;
  const mx = points.reduce((sum, [x]) => sum + x, 0) / n;
  const my = points.reduce((sum, [, y]) => sum + y, 0) / n;
  const xx = points.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
  const xy = points.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0);
  const slope = xx > 0 ? xy / xx : 0;
  return { slope, at0: my - slope * mx };
}
/** A plane seen by a camera: a 3 × 3 matrix, row by row, that leads from its places to those of the picture. */
export type Seen = readonly [number, number, number, number, number, number, number, number, number];
export type Corners = readonly [Spot2, Spot2, Spot2, Spot2];

/** Where a place is seen. @example seenAt([1, 0, 5, 0, 1, 0, 0, 0, 1], { x: 1, y: 2 }) // { x: 6, y: 2 } */
export function seenAt(m: Seen, { x, y }: Spot2): Spot2 {
  const w = m[6] * x + m[7] * y + m[8];
  return { x: (m[0] * x + m[1] * y + m[2]) / w, y: (m[3] * x + m[4] * y + m[5]) / w };
}

/** The way back: from the picture to the plane (the adjugate, which serves as well as the inverse). */
export const backFrom = ([a, b, c, d, e, f, g, h, i]: Seen): Seen => [
  e * i - f * h,
  c * h - b * i,
  b * f - c * e,
  f * g - d * i,
  a * i - c * g,
  c * d - a * f,
  d * h - e * g,
  b * g - a * h,
  a * e - b * d,
];

/**
 * How a rectangle is seen whose corners are known: from its places, cm, to the picture. Closed form of the square to any quadrilateral (Heckbert 1989,
 * Fundamentals of Texture Mapping and Image Warping).
 * @param corners in their order around it, the first at (0, 0), the second along its length
 * @example seenBy(corners, 29.7, 21)
 */
export function seenBy([p0, p1, p2, p3]: Corners, lengthCm: number, widthCm: number): Seen {
  const [dx1, dx2, sx] = [p1.x - p2.x, p3.x - p2.x, p0.x - p1.x + p2.x - p3.x];
  const [dy1, dy2, sy] = [p1.y - p2.y, p3.y - p2.y, p0.y - p1.y + p2.y - p3.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const [l, w] = [1 / lengthCm, 1 / widthCm];
  return [
    (p1.x - p0.x + g * p1.x) * l,
    (p3.x - p0.x + h * p3.x) * w,
    p0.x,
    (p1.y - p0.y + g * p1.y) * l,
    (p3.y - p0.y + h * p3.y) * w,
    p0.y,
    g * l,
    h * w,
    1,
  ];
}

/** How far in front of the lens the picture is taken to lie, in picture elements, with its standard uncertainty. */
export interface Focal {
  px: number;
  sdPx: number;
}
/** The two columns of a view that say where its axes point, from the middle of the picture. */
const axesOf = ([a, b, , d, e, , g, h]: Seen, middle: Spot2) => [
  { x: a - g * middle.x, y: d - g * middle.y, z: g },
  { x: b - h * middle.x, y: e - h * middle.y, z: h },
];

/**
 * What the sheet itself tells of the lens: its axes are at right angles and have one scale (Zhang 2000), which says much of a slanted photo and nothing of a straight one.
 * Weighed with what was known of the lens before.
 * @param cornerSd how well its corners are known, picture elements
 */
export function focalSeen(
  corners: Corners,
  size: readonly [number, number],
  middle: Spot2,
  cornerSd: number,
  before: Focal,
): Focal {
  // Both conditions are linear in 1/f².
  const solve = (at: Corners): number => {
    const [u, v] = axesOf(seenBy(at, ...size), middle) as [Axis, Axis];
    const across: [number, number] = [u.x * v.x + u.y * v.y, u.z * v.z];
    const alike: [number, number] = [
      (u.x ** 2 + u.y ** 2 - v.x ** 2 - v.y ** 2) / 2,
      (u.z ** 2 - v.z ** 2) / 2,
    ];
    const scale = u.x ** 2 + u.y ** 2 + v.x ** 2 + v.y ** 2;
    const [p, q] = [across, alike].reduce(
      ([sp, sq], [one, two]) => [sp + (one / scale) * (two / scale), sq + (two / scale) ** 2],
      [0, 0],
    );
    return -p / q;
  };
  const square = solve(corners);
  const variance = eachMoved(corners, cornerSd).reduce((sum, moved) => sum + (solve(moved) - square) ** 2, 0);
  // Where f is uncertain f² is twice as much, as a share.
  const weightSeen = 1 / variance;
  const weightBefore = 1 / (2 * before.px * before.sdPx) ** 2;
  if (!Number.isFinite(square) || !Number.isFinite(variance) || variance === 0) return before;
  const both = (square * weightSeen + before.px ** 2 * weightBefore) / (weightSeen + weightBefore);
  const px = Math.sqrt(Math.max((0.3 * before.px) ** 2, both));
  return { px, sdPx: 1 / Math.sqrt(weightSeen + weightBefore) / (2 * px) };
}
interface Axis {
  x: number;
  y: number;
  z: number;
}
/** The corners with one of their eight numbers moved, each in turn. */
export const eachMoved = (corners: Corners, by: number): Corners[] =>
  corners.flatMap((corner, i) =>
    (['x', 'y'] as const).map(
      (axis) => corners.with(i, { ...corner, [axis]: corner[axis] + by }) as unknown as Corners,
    ),
  );

/** The camera over the table: how far above it, and how planes above the table are seen. */
export interface Camera {
  /** How high the lens is above the table, cm. */
  heightCm: number;
  /** How far the camera looks away from straight down, degrees. */
  tiltDeg: number;
  /** How a plane so many cm above the table is seen, by the same places. */
  above: (heightCm: number) => Seen;
}
const size = ({ x, y, z }: Axis): number => Math.hypot(x, y, z);

/** @example cameraOf(seenBy(corners, 29.7, 21), { x: 800, y: 600 }, 1300).heightCm */
export function cameraOf(table: Seen, middle: Spot2, focalPx: number): Camera {
  const toward = ({ x, y, z }: Axis): Axis => ({ x: x / focalPx, y: y / focalPx, z });
  const [u, v] = axesOf(table, middle).map(toward) as [Axis, Axis];
  const scale = (size(u) + size(v)) / 2;
  const [r, s] = [u, v].map(({ x, y, z }) => ({ x: x / scale, y: y / scale, z: z / scale })) as [Axis, Axis];
  const cross = { x: r.y * s.z - r.z * s.y, y: r.z * s.x - r.x * s.z, z: r.x * s.y - r.y * s.x };
  const long = size(cross);
  // The table's normal toward the camera, whichever way its corners run.
  const [, , c, , , f, , , i] = table;
  const from = toward({ x: c - i * middle.x, y: f - i * middle.y, z: i });
  const along = (cross.x * from.x + cross.y * from.y + cross.z * from.z) / scale / long;
  const sign = along > 0 ? -1 : 1;
  const n = { x: (sign * cross.x) / long, y: (sign * cross.y) / long, z: (sign * cross.z) / long };
  // A step along it, as the picture shows it.
  const step = {
    x: scale * (focalPx * n.x + middle.x * n.z),
    y: scale * (focalPx * n.y + middle.y * n.z),
    z: scale * n.z,
  };
  return {
    heightCm: Math.abs(along),
    tiltDeg: (Math.acos(Math.min(1, Math.abs(n.z))) * 180) / Math.PI,
    above: (heightCm) => [
      table[0],
      table[1],
      table[2] + heightCm * step.x,
      table[3],
      table[4],
      table[5] + heightCm * step.y,
      table[6],
      table[7],
      table[8] + heightCm * step.z,
    ],
  };
}

/** How long the sheet seems against its width, as the camera sees it. */
export function ratioSeen(corners: Corners, middle: Spot2, focalPx: number): number {
  const [u, v] = axesOf(seenBy(corners, 1, 1), middle).map(({ x, y, z }) =>
    size({ x: x / focalPx, y: y / focalPx, z }),
  ) as [number, number];
  return u / v;
}
