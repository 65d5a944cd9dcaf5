import type { OutlinePoint } from '../frame';
import { sportData, type Sport, type SportData } from '../sport';
import type { Taken } from './figures';
import {
  alongOf,
  edgeAlong,
  isMarked,
  placeOn,
  silhouetteOf,
  type Axis,
  type PhotoTrouble,
  type Silhouette,
} from './head-finder';
import {
  cameraOf,
  focalSeen,
  ratioSeen,
  seenAt,
  seenBy,
  type Corners,
  type Seen,
  type Spot2,
} from './projection';
import { SHEETS, findSheet, lightAt, type Photo, type SheetName } from './sheet';
import { tableOf } from './table';

/** What is known of a photo beside what it shows. */
export interface PhotoGiven {
  sport: Sport;
  /** How thick the frame is at its head, cm. */
  thicknessCm: number;
  /** The lens as the camera wrote it into the file: its focal length on 35 mm film, mm. */
  focal35Mm?: number | undefined;
  /** The sheet and its corners where the fitter says them; else they are found. */
  sheet?: SheetName | undefined;
  corners?: Corners | undefined;
}
/** What a photo of a frame beside a sheet came to. */
export interface OutlineRead {
  taken: Taken;
  /** How high above the table the camera was, cm, and how far it looked away from straight down, degrees. */
  cameraCm: number;
  tiltDeg: number;
  /** How the plane of the frame's edge is seen: from the table's places, cm, to the picture. */
  seen: Seen;
  axis: Axis;
  lengthCm: number;
  points: OutlinePoint[];
  /** How wide the hoop was seen to be, cm; undefined for heads whose size is that of the whole, or where it was not seen. */
  hoopCm?: number;
  /** Whether the lower end of the head was seen, or only guessed. */
  bottomSeen: boolean;
}
export type PhotoAnswer = OutlineRead | { trouble: PhotoTrouble; corners?: Corners };

/** A phone’s usual lens on 35 mm film, mm, and how far others are from it, as a share; where the file says it, as a share too (from memory). */
const USUAL_FOCAL = { mm: 26, share: 0.15, said: 0.03 };
const FILM_DIAGONAL_MM = 43.27;
/** A sheet that seems longer or shorter than any known one by more than this, as a share, is none. */
const OTHER_SHEET = 0.05;
const MOST_TILT_DEG = 50;
/** A frame this small in its photo is not read to a millimetre: picture elements a cm. */
const FEWEST_PER_CM = 5;

/** Heads are looked at in so many directions on each side. */
const WAYS = 91;
/** Where a throat may hide the head, only directions up to here are looked in: clock hour 3:45, radians. */
const WAYS_SEEN = 1.95;
/** An outline is stored as so many points a side. */
const POINTS = 25;

export const middleOfPhoto = ({ width, height }: { width: number; height: number }): Spot2 => ({
  x: width / 2,
  y: height / 2,
});
const focalBefore = ({ width, height }: Photo, said: number | undefined) => {
  const px = ((said ?? USUAL_FOCAL.mm) / FILM_DIAGONAL_MM) * Math.hypot(width, height);
  return { px, sdPx: px * (said === undefined ? USUAL_FOCAL.share : USUAL_FOCAL.said) };
};

/** Which sheet it is and which of its sides is the longer, by how the camera sees it. */
function sheetOf(
  photo: Photo,
  corners: Corners,
  focalPx: number,
): { sheet: SheetName; corners: Corners } | undefined {
  const ratio = ratioSeen(corners, middleOfPhoto(photo), focalPx);
  const turned: Corners = ratio >= 1 ? corners : [corners[1], corners[2], corners[3], corners[0]];
  const seen = ratio >= 1 ? ratio : 1 / ratio;
  const off = (name: SheetName): number => Math.abs(seen / (SHEETS[name][0] / SHEETS[name][1]) - 1);
  const [best] = (Object.keys(SHEETS) as SheetName[]).toSorted((a, b) => off(a) - off(b));
  return best && off(best) < OTHER_SHEET ? { sheet: best, corners: turned } : undefined;
}

/** How the photo was taken: from where the sheet is seen. */
function takenFrom(photo: Photo, given: PhotoGiven): Taken | { trouble: PhotoTrouble; corners?: Corners } {
  const found = given.corners ? { corners: given.corners, cornerSd: 0.6 } : findSheet(photo);
  if (!found) return { trouble: 'photo-no-sheet' };
  const { cornerSd } = found;
  const { width, height } = photo;
  const before = focalBefore(photo, given.focal35Mm);
  let focal = before;
  let known: { sheet: SheetName; corners: Corners } | undefined;
  // Which side is the longer is said by the usual lens; which sheet it is, once the sheet has said what it can of the lens.
  for (let round = 0; round < 2; round++) {
    known = sheetOf(photo, found.corners, focal.px);
    if (!known) break;
    focal = focalSeen(
      known.corners,
      SHEETS[given.sheet ?? known.sheet],
      middleOfPhoto(photo),
      cornerSd,
      before,
    );
  }
  if (!known && !given.sheet) return { trouble: 'photo-other-sheet', corners: found.corners };
  const ratio = ratioSeen(found.corners, middleOfPhoto(photo), before.px);
  const [a, b, c, d] = found.corners;
  const corners = known?.corners ?? (ratio >= 1 ? found.corners : ([b, c, d, a] as const));
  return {
    width,
    height,
    corners,
    cornerSd,
    focal,
    sheet: given.sheet ?? known?.sheet ?? 'A4',
    thicknessCm: given.thicknessCm,
  };
}

/** Half the width of the squares at a length from the butt, cm, on the side that is wider. */
function halfAt({ table, filled, axis }: Silhouette, along: number): number {
  const reach = (side: 1 | -1): number => {
    let far = 0;
    for (let y = 0; y < 25; y += table.cellCm / 2)
      if (isMarked(table, filled, placeOn(axis, along, side * y))) far = y;
    return far;
  };
  return (reach(1) + reach(-1)) / 2;
}
/** How much of a row across the long axis is frame. */
function shareAt({ table, axis }: Silhouette, along: number, halfCm: number): number {
  let [marked, all] = [0, 0];
  for (let y = -halfCm; y <= halfCm; y += table.cellCm / 2) {
    all++;
    if (isMarked(table, table.lies, placeOn(axis, along, y))) marked++;
  }
  return marked / all;
}

const HANDLE_MORE_CM = 0.6;
const BRIDGE = { halfCm: 1.2, open: 0.35, closed: 0.65, leastCm: 0.5, openCm: 0.8 };
/** Half a shaft with room to spare, cm; and where above the butt there is nothing but handle, as a share of the length. */
const SHAFT_HALF_CM = 0.9;
const HANDLE_SHARE = 0.25;
interface Bottom {
  along: number;
  isSeen: boolean;
  /** Whether the outer edge runs on past it, so that the lower head is hidden. */
  isHidden: boolean;
  /** How narrow the outer edge gets there, half, cm. */
  narrow: number;
}

/** The bridge above an opening, seen from the handle. */
function bridgeOf(seen: Silhouette): number | undefined {
  const step = 0.1;
  let open = 0;
  for (let along = 0.15 * seen.lengthCm; along < 0.72 * seen.lengthCm; along += step) {
    const share = shareAt(seen, along, BRIDGE.halfCm);
    if (share < BRIDGE.open) open += step;
    else if (share > BRIDGE.closed && open >= BRIDGE.openCm) {
      let closed = 0;
      while (shareAt(seen, along + closed, BRIDGE.halfCm) > BRIDGE.closed && closed < 3) closed += step;
      if (closed >= BRIDGE.leastCm) return along;
      along += closed;
    }
  }
  return undefined;
}
/** Where the outer edge gets as narrow as that, from the middle of the head toward the butt. */
function narrowAt(seen: Silhouette, narrow: number): number {
  const step = 0.05;
  let along = 0.8 * seen.lengthCm;
  while (along > 0 && halfAt(seen, along) > narrow) along -= step;
  return along;
}
/** Where the head ends toward the handle: where it is no wider than a shaft or the handle, or above the opening of a throat. */
function bottomOf(seen: Silhouette, { throat, handleRadiusCm }: SportData): Bottom {
  const { lengthCm } = seen;
  if (throat === 'shaft') {
    const along = narrowAt(seen, SHAFT_HALF_CM);
    if (along > HANDLE_SHARE * lengthCm)
      return { along, isSeen: true, isHidden: false, narrow: SHAFT_HALF_CM };
  }
  if (throat !== 'none') {
    const along = bridgeOf(seen);
    if (along !== undefined) return { along, isSeen: true, isHidden: true, narrow: 0 };
  }
  // Heads end a little below half of the length.
  if (throat === 'limbs') return { along: 0.475 * lengthCm, isSeen: false, isHidden: true, narrow: 0 };
  const narrow = handleRadiusCm + HANDLE_MORE_CM;
  return { along: narrowAt(seen, narrow), isSeen: throat === 'none', isHidden: false, narrow };
}

interface Pair {
  angle: number;
  left: Spot2;
  right: Spot2;
}
/** The head’s edge on both sides, in directions from its middle. */
function pairsOf(photo: Photo, plane: Seen, seen: Silhouette, centre: number, upTo: number): Pair[] {
  const { table, filled, axis } = seen;
  const pairs: Pair[] = [];
  for (let i = 0; i < WAYS; i++) {
    const angle = (Math.PI * i) / (WAYS - 1);
    if (angle > upTo) break;
    const found = ([1, -1] as const).map((side): Spot2 | undefined => {
      const [along, across] = [Math.cos(angle), side * Math.sin(angle)];
      let far = 0;
      for (let r = 1; r < 30; r += table.cellCm / 2)
        if (isMarked(table, filled, placeOn(axis, centre + r * along, r * across))) far = r;
      const from = placeOn(axis, centre + far * along, far * across);
      const way = { x: along * axis.dx - across * axis.dy, y: along * axis.dy + across * axis.dx };
      const out = edgeAlong(photo, plane, table, from, way);
      return out === undefined ? undefined : { x: from.x + out * way.x, y: from.y + out * way.y };
    });
    if (found[0] && found[1]) pairs.push({ angle, left: found[0], right: found[1] });
  }
  return pairs;
}

/** The long axis through the middles between both sides. */
function centred(axis: Axis, pairs: readonly Pair[]): Axis {
  const middles = pairs
    .filter(({ angle }) => angle > 0.4 && angle < Math.PI - 0.4)
    .map(({ left, right }) => {
      const [[a, b], [c, d]] = [alongOf(axis, left), alongOf(axis, right)];
      return [(a + c) / 2, (b + d) / 2] as const;
    });
  if (middles.length < 8) return axis;
  const n = middles.length;
  const mx = middles.reduce((sum, [x]) => sum + x, 0) / n;
  const my = middles.reduce((sum, [, y]) => sum + y, 0) / n;
  const xx = middles.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
  const xy = middles.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0);
  const slope = xx > 0 ? xy / xx : 0;
  const at = my - slope * mx;
  const long = Math.hypot(1, slope);
  const { x, y } = placeOn(axis, 0, at);
  return {
    buttX: x,
    buttY: y,
    dx: (axis.dx - slope * axis.dy) / long,
    dy: (axis.dy + slope * axis.dx) / long,
  };
}

/** The end of the frame, seen along its axis. @param sign 1 is the tip, −1 the butt */
function endOf(
  photo: Photo,
  plane: Seen,
  { table, filled, axis, lengthCm }: Silhouette,
  sign: 1 | -1,
): number {
  const found: number[] = [];
  for (const across of [-0.6, -0.3, 0, 0.3, 0.6]) {
    let far = sign > 0 ? 0.5 * lengthCm : 0.3 * lengthCm;
    for (let along = far; along > -5 && along < lengthCm + 5; along += (sign * table.cellCm) / 2)
      if (isMarked(table, filled, placeOn(axis, along, across))) far = along;
    const way = { x: sign * axis.dx, y: sign * axis.dy };
    const out = edgeAlong(photo, plane, table, placeOn(axis, far, across), way);
    if (out !== undefined) found.push(far + sign * out);
  }
  if (found.length === 0) return sign > 0 ? lengthCm : 0;
  return found.toSorted((a, b) => a - b)[found.length >> 1] as number;
}

/** The bridge’s lower edge on the long axis, to a fraction of a picture element. */
function bridgeAt(photo: Photo, plane: Seen, { axis, table }: Silhouette, roughly: number): number {
  const found: [number, number][] = [];
  for (let across = -1.2; across <= 1.21; across += 0.3) {
    const way = { x: -axis.dx, y: -axis.dy };
    const out = edgeAlong(photo, plane, table, placeOn(axis, roughly, across), way);
    if (out !== undefined) found.push([across * across, roughly - out]);
  }
  if (found.length < 4) return roughly;
  // It bends away from the handle to both sides: a parabola's lowest point.
  const n = found.length;
  const mx = found.reduce((sum, [x]) => sum + x, 0) / n;
  const my = found.reduce((sum, [, y]) => sum + y, 0) / n;
  const slope =
    found.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0) /
    Math.max(
      1e-9,
      found.reduce((sum, [x]) => sum + (x - mx) ** 2, 0),
    );
  return my - slope * mx;
}

/** Heads are nearly ellipses: the power of their lower half scatters by this about two (from memory). Edges scatter, and so many beside one another err alike. */
const POWER_SD = 0.1;
const EDGE_SD_CM = 0.03;
const ALIKE = 4;
type Half = [along: number, half: number];
/**
 * The lower head, hidden where the throat meets it: half of a superellipse (Lamé) from where it is widest to its bottom, as full as what is still seen of it.
 */
function closedBy(side: readonly Half[], bottom: number): Half[] {
  const [widestAlong, widest] = widestOf(side);
  const below = side.filter(([along]) => along < widestAlong - 1);
  const at = (along: number, power: number): number =>
    widest * (1 - Math.min(1, (widestAlong - along) / (widestAlong - bottom)) ** power) ** (1 / power);
  let [power, least] = [2, Infinity];
  for (let p = 1.6; p <= 3; p += 0.02) {
    const off = below.reduce((sum, [along, half]) => sum + ((half - at(along, p)) / EDGE_SD_CM) ** 2, 0);
    const cost = off / ALIKE + ((p - 2) / POWER_SD) ** 2;
    if (cost < least) [power, least] = [p, cost];
  }
  const last = side.at(-1) as Half;
  const scale = last[1] / Math.max(1e-6, at(last[0], power));
  const found: Half[] = [];
  for (let k = 1; k <= 40; k++) {
    // Close together toward the bottom, where it turns across.
    const along = bottom + (last[0] - bottom) * Math.cos((Math.PI / 2) * (k / 40));
    // What is left of a difference where it takes over fades toward the bottom.
    const share = (along - bottom) / (last[0] - bottom);
    found.push([along, at(along, power) * (1 + (scale - 1) * share)]);
  }
  return found;
}
/** Where it is widest, by a parabola through what is nearly as wide. */
function widestOf(side: readonly Half[]): Half {
  const top = Math.max(...side.map(([, half]) => half));
  const near = side.filter(([, half]) => half > 0.93 * top);
  const [mx, n] = [near.reduce((sum, [x]) => sum + x, 0) / near.length, near.length];
  const [s2, s3, s4] = [2, 3, 4].map((power) => near.reduce((sum, [x]) => sum + (x - mx) ** power, 0)) as [
    number,
    number,
    number,
  ];
  const my = near.reduce((sum, [, y]) => sum + y, 0) / n;
  const [t1, t2] = [1, 2].map((power) =>
    near.reduce((sum, [x, y]) => sum + (y - my) * (x - mx) ** power, 0),
  ) as [number, number];
  const v = s4 - (s2 * s2) / n;
  const det = s2 * v - s3 * s3;
  const [b, c] = [(t1 * v - t2 * s3) / det, (s2 * t2 - s3 * t1) / det];
  const at = mx - b / (2 * c);
  const isWithin = c < 0 && Math.abs(at - mx) < 6;
  return isWithin ? [at, top] : [mx, top];
}

/** Without what goes back toward the tip: an edge of something else. */
function downward(side: readonly Half[]): Half[] {
  const found: Half[] = [];
  for (const at of side) if (at[0] <= (found.at(-1)?.[0] ?? Infinity) + 0.05) found.push(at);
  return found;
}
/** Evenly along a side, its ends on the long axis. */
function evenly(side: readonly Half[], tip: number): OutlinePoint[] {
  const lengths = [0];
  side.slice(1).forEach(([a, h], i) => {
    const [b, g] = side[i] as Half;
    lengths.push((lengths[i] ?? 0) + Math.hypot(a - b, h - g));
  });
  const all = lengths.at(-1) ?? 0;
  let k = 0;
  return Array.from({ length: POINTS }, (_, i): OutlinePoint => {
    const at = (all * i) / (POINTS - 1);
    while (k < lengths.length - 2 && (lengths[k + 1] ?? 0) < at) k++;
    const [from, to] = [side[k] as Half, side[k + 1] as Half];
    const share = (at - (lengths[k] ?? 0)) / Math.max(1e-9, (lengths[k + 1] ?? 0) - (lengths[k] ?? 0));
    const isEnd = i === 0 || i === POINTS - 1;
    const [along, half] = [from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1])];
    const rounded = (cm: number): number => Math.round(1000 * cm) / 1000;
    return [Math.max(0, rounded(tip - along)), isEnd ? 0 : Math.max(0.001, rounded(half))];
  });
}

/** Where one edge stands out from those beside it, another was taken for it: a stripe, or a mark of the table. */
const STRAY_CM = 0.08;
const withoutStrays = (radii: readonly number[]): number[] =>
  radii.map((radius, i) => {
    const beside = [-2, -1, 0, 1, 2].map((k) => radii[Math.abs(i + k)] ?? radius);
    const middle = beside.toSorted((a, b) => a - b)[2] ?? radius;
    return Math.abs(radius - middle) > STRAY_CM && i > 1 && i < radii.length - 2 ? middle : radius;
  });
/** How much of it is kept of each place beside its neighbours: noise of single edges goes, corners stay. */
function smoothed(radii: readonly number[]): number[] {
  // Savitzky and Golay 1964: a parabola through five.
  const weights = [-3, 12, 17, 12, -3];
  const at = (i: number): number => radii[i < 0 ? -i : Math.min(radii.length - 1, i)] ?? 0;
  return radii.map((radius, i) =>
    i > radii.length - 3 ? radius : weights.reduce((sum, w, k) => sum + w * at(i + k - 2), 0) / 35,
  );
}

/** How far in from the outer edge the hoop ends: where, all round together, its colour gives way to what is within. */
function hoopSeen(
  photo: Photo,
  plane: Seen,
  seen: Silhouette,
  centre: number,
  pairs: readonly Pair[],
): number | undefined {
  const { table, axis } = seen;
  const step = 0.02;
  const reach = 2.6;
  const rows = Array.from({ length: Math.round(reach / step) }, () => 0);
  const middle = placeOn(axis, centre, 0);
  let count = 0;
  pairs.forEach(({ angle, left, right }, n) => {
    if (angle < 0.35 || angle > 1.9 || n === 0 || n === pairs.length - 1) return;
    (
      [
        ['left', left],
        ['right', right],
      ] as const
    ).forEach(([side, p]) => {
      // Inward along the normal of the edge itself, between its neighbours.
      const [before, after] = [pairs[n - 1]?.[side] ?? p, pairs[n + 1]?.[side] ?? p];
      const long = Math.hypot(after.x - before.x, after.y - before.y);
      let [nx, ny] = [(after.y - before.y) / long, -(after.x - before.x) / long];
      if ((middle.x - p.x) * nx + (middle.y - p.y) * ny < 0) [nx, ny] = [-nx, -ny];
      count++;
      rows.forEach((_, i) => {
        const [x, y] = [p.x + i * step * nx, p.y + i * step * ny];
        const bare = table.ground(x, y);
        const at = seenAt(plane, { x, y });
        const off = Math.hypot(...bare.map((value, c) => lightAt(photo, at.x, at.y, c) - value));
        rows[i] = (rows[i] ?? 0) + off;
      });
    });
  });
  if (count < 20) return undefined;
  // The steepest fall over about a millimetre and a half.
  const half = 4;
  let [best, fall] = [0, 0];
  for (let i = Math.round(0.3 / step); i < rows.length - half; i++) {
    const drop = ((rows[i - half] ?? 0) - (rows[i + half] ?? 0)) / count;
    if (drop > fall) [best, fall] = [i, drop];
  }
  return fall > 6 ? best * step : undefined;
}

/**
 * Reads a frame's outline from a photo: finds the sheet, takes out the perspective at the height of the frame's edge, finds the frame against the table, its long axis
 * and the head's edge on both sides, and closes it where the throat hides it.
 * @returns the outline, or what is wrong with the photo @example readPhoto(photo, { sport: 'tennis', thicknessCm: 2.3 })
 */
export function readPhoto(photo: Photo, given: PhotoGiven): PhotoAnswer {
  const sport = sportData(given.sport);
  const taken = takenFrom(photo, given);
  if ('trouble' in taken) return taken;
  const { corners } = taken;
  const size = SHEETS[taken.sheet];
  const camera = cameraOf(seenBy(corners, size[0], size[1]), middleOfPhoto(photo), taken.focal.px);
  if (camera.tiltDeg > MOST_TILT_DEG) return { trouble: 'photo-too-slanted', corners };
  const plane = camera.above(given.thicknessCm / 2);
  const [a, b] = [corners[0], corners[1]];
  if (Math.hypot(b.x - a.x, b.y - a.y) / size[0] < FEWEST_PER_CM)
    return { trouble: 'photo-too-small', corners };
  const rough = silhouetteOf(tableOf(photo, plane, corners), sport);
  if ('trouble' in rough) return { ...rough, corners };
  return outlineFrom(photo, plane, rough, sport, taken, camera);
}

function outlineFrom(
  photo: Photo,
  plane: Seen,
  rough: Silhouette,
  sport: SportData,
  taken: Taken,
  camera: { heightCm: number; tiltDeg: number },
): PhotoAnswer {
  let seen = rough;
  let bottom = bottomOf(seen, sport);
  let pairs: Pair[] = [];
  for (let round = 0; round < 3; round++) {
    const centre = (seen.lengthCm + bottom.along) / 2;
    pairs = pairsOf(photo, plane, seen, centre, bottom.isHidden ? WAYS_SEEN : Math.PI);
    if (pairs.length < 20) return { trouble: 'photo-no-frame', corners: taken.corners };
    seen = { ...seen, axis: centred(seen.axis, pairs) };
    const butt = endOf(photo, plane, seen, -1);
    const tip = endOf(photo, plane, seen, 1);
    const { x, y } = placeOn(seen.axis, butt, 0);
    seen = { ...seen, axis: { ...seen.axis, buttX: x, buttY: y }, lengthCm: tip - butt };
    bottom = bottomOf(seen, sport);
  }
  const lengthCm = seen.lengthCm;
  const centre = (lengthCm + bottom.along) / 2;
  const radiiOf = (side: 'left' | 'right'): number[] =>
    withoutStrays(
      pairs.map((pair) => {
        const [along, across] = alongOf(seen.axis, pair[side]);
        return Math.hypot(along - centre, across);
      }),
    );
  const [left, right] = [radiiOf('left'), radiiOf('right')];
  const radii = smoothed(left.map((radius, i) => (radius + (right[i] ?? radius)) / 2));
  let side = pairs.flatMap(({ left, right }, i): Half[] => {
    const [[a, b], [c, d]] = [alongOf(seen.axis, left), alongOf(seen.axis, right)];
    const angle = Math.atan2((Math.abs(b) + Math.abs(d)) / 2, (a + c) / 2 - centre);
    const radius = radii[i] ?? 0;
    return [[centre + radius * Math.cos(angle), radius * Math.sin(angle)]];
  });
  side = downward([[lengthCm, 0], ...side.filter(([, half]) => half > 0.3)]);
  if (bottom.isHidden) {
    const lowest = bottom.isSeen ? bridgeAt(photo, plane, seen, bottom.along) : bottom.along;
    side.push(...closedBy(side, lowest));
  } else {
    const { narrow } = bottom;
    const end = side.findIndex(
      ([along, half], i) => i > side.length / 2 && (half < narrow || along < bottom.along),
    );
    if (end > 0) side = side.slice(0, end);
    side.push([Math.min(bottom.along, side.at(-1)?.[0] ?? 0), 0]);
  }
  const { hoop } = sport;
  const hoopCm = hoop.sizeIsOf === 'bed' ? hoopSeen(photo, plane, seen, centre, pairs) : undefined;
  return {
    taken,
    cameraCm: camera.heightCm,
    tiltDeg: camera.tiltDeg,
    seen: plane,
    axis: seen.axis,
    lengthCm,
    points: evenly(side, lengthCm),
    ...(hoopCm === undefined ? {} : { hoopCm: Math.round(100 * hoopCm) / 100 }),
    bottomSeen: bottom.isSeen,
  };
}
