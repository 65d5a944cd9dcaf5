import { inverse } from '../learn';
import { MAD_TO_SIGMA, median, tukeyWithin, TUKEY_BEYOND } from '../measure';
import { backFrom, seenAt, type Corners, type Seen, type Spot2 } from './projection';
import { lightAt, type Photo } from './sheet';

/** The table from straight above, in small squares: what lies on it, and what does not. */
export interface Table {
  /** Squares along and across. */
  width: number;
  height: number;
  /** Where the first square begins, cm. */
  fromX: number;
  fromY: number;
  /** 1 where something lies that is neither the table, its shade nor the sheet. */
  lies: Uint8Array;
  /** 1 beyond the picture; and 1 on the sheet, or close to it. */
  beyond: Uint8Array;
  onSheet: Uint8Array;
  /** What the bare table would show at a place, of red, green and blue. */
  ground: (x: number, y: number) => readonly [number, number, number];
  /** How much colours of the bare table scatter. */
  scatter: number;
}

/** The side of a square, cm. */
export const CELL_CM = 0.2;
/** The middle of a square, cm. */
export const placeOf = (
  { fromX, fromY, width }: Pick<Table, 'fromX' | 'fromY' | 'width'>,
  p: number,
): Spot2 => ({
  x: fromX + ((p % width) + 0.5) * CELL_CM,
  y: fromY + (Math.floor(p / width) + 0.5) * CELL_CM,
});
/** So far around the sheet a frame is looked for, cm. */
const AROUND_CM = 100;
/** Round the sheet so much is left out, cm: its edge, and its shade. */
const ROUND_SHEET_CM = 0.6;
/** Shade takes away at most this share of the light, and hardly changes colour (from memory of rooms with daylight and a lamp). */
const DARKEST_SHADE = 0.42;
const SHADE_TINT = 0.07;
/** So far from what the table shows, in its own scatter, and in steps of 255. */
const TIMES_SCATTER = 4;
const LEAST_OFF = 14;
/** Places by which the table is learned, and rounds in which what lies on it counts less and less. */
const LEARNED_BY = 6000;
const ROUNDS = 12;
/** No camera scatters less, of 255. */
const LEAST_SCATTER = 1.5;

type Six = [number, number, number, number, number, number];
const terms = (u: number, v: number): Six => [1, u, v, u * u, u * v, v * v];

/** The polynomial of second degree that comes nearest to values (normal equations). */
function fitSix(rows: readonly Six[], values: readonly number[], weights: readonly number[]): number[] {
  const ones = terms(0, 0);
  const sums = ones.map(() => ones.map(() => 0));
  const right = ones.map(() => 0);
  rows.forEach((row, i) => {
    const w = weights[i] ?? 0;
    if (w === 0) return;
    row.forEach((a, k) => {
      right[k] = (right[k] ?? 0) + w * a * (values[i] ?? 0);
      const line = sums[k] as number[];
      row.forEach((b, l) => (line[l] = (line[l] ?? 0) + w * a * b));
    });
  });
  return inverse(sums).map((row) => dot(row, right));
}
const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, k) => sum + value * (b[k] ?? 0), 0);

/** Whether a place lies within four corners that are spread by a margin. */
function insideOf(corners: readonly Spot2[], margin: number): (x: number, y: number) => boolean {
  const sides = corners.map((a, i) => {
    const b = corners[(i + 1) % 4] as Spot2;
    const opposite = corners[(i + 2) % 4] as Spot2;
    const long = Math.hypot(b.x - a.x, b.y - a.y);
    const [nx, ny] = [-(b.y - a.y) / long, (b.x - a.x) / long];
    const sign = (opposite.x - a.x) * nx + (opposite.y - a.y) * ny > 0 ? 1 : -1;
    return { a, nx: sign * nx, ny: sign * ny };
  });
  return (x, y) => sides.every(({ a, nx, ny }) => (x - a.x) * nx + (y - a.y) * ny > -margin);
}

/** Where the edge of a photo lies on the table, in some places of each side. */
function edgeOf({ width, height }: Photo, back: Seen): Spot2[] {
  const shares = Array.from({ length: 10 }, (_, i) => i / 9);
  return shares.flatMap((t) => [
    seenAt(back, { x: t * width, y: 0 }),
    seenAt(back, { x: t * width, y: height }),
    seenAt(back, { x: 0, y: t * height }),
    seenAt(back, { x: width, y: t * height }),
  ]);
}
/** So near to the edge of a photo nothing is looked at, picture elements. */
const MARGIN = 2;
type Colours = readonly [Float32Array, Float32Array, Float32Array];
const CHANNELS = [0, 1, 2] as const;

/**
 * Looks at a photo as if from straight above, and tells what lies on the table from the table.
 * @param seen how the plane of the frame is seen @param corners of the sheet, in the photo
 */
export function tableOf(photo: Photo, seen: Seen, corners: Corners): Table {
  const back = backFrom(seen);
  const sheet = corners.map((corner) => seenAt(back, corner));
  const middle = {
    x: sheet.reduce((sum, { x }) => sum + x / 4, 0),
    y: sheet.reduce((sum, { y }) => sum + y / 4, 0),
  };
  const within = (value: number, centre: number): number =>
    Math.min(centre + AROUND_CM, Math.max(centre - AROUND_CM, value));
  const edge = edgeOf(photo, back);
  const xs = edge.map(({ x }) => within(x, middle.x));
  const ys = edge.map(({ y }) => within(y, middle.y));
  const [fromX, fromY] = [Math.min(...xs), Math.min(...ys)];
  const width = Math.ceil((Math.max(...xs) - fromX) / CELL_CM);
  const height = Math.ceil((Math.max(...ys) - fromY) / CELL_CM);
  const size = width * height;
  const colours: Colours = [new Float32Array(size), new Float32Array(size), new Float32Array(size)];
  const beyond = new Uint8Array(size);
  const onSheet = new Uint8Array(size);
  const isOnSheet = insideOf(sheet, ROUND_SHEET_CM);
  const grid = { fromX, fromY, width };
  const quarter = CELL_CM / 4;
  const bare: number[] = [];
  for (let p = 0; p < size; p++) {
    const { x, y } = placeOf(grid, p);
    const at = seenAt(seen, { x, y });
    const [right, bottom] = [photo.width - MARGIN, photo.height - MARGIN];
    if (!(at.x >= MARGIN && at.y >= MARGIN && at.x <= right && at.y <= bottom)) {
      beyond[p] = 1;
      continue;
    }
    if (isOnSheet(x, y)) onSheet[p] = 1;
    else bare.push(p);
    const one = seenAt(seen, { x: x - quarter, y: y - quarter });
    const other = seenAt(seen, { x: x + quarter, y: y + quarter });
    for (const channel of CHANNELS)
      colours[channel][p] =
        (lightAt(photo, one.x, one.y, channel) + lightAt(photo, other.x, other.y, channel)) / 2;
  }
  const { ground, scatter } = groundOf(colours, bare, (p) => placeOf(grid, p), middle);
  const lies = new Uint8Array(size);
  for (const p of bare) {
    const { x, y } = placeOf(grid, p);
    const here = colours.map((colour) => colour[p] ?? 0);
    if (differs(here, ground(x, y), scatter)) lies[p] = 1;
  }
  return { ...grid, height, lies, beyond, onSheet, ground, scatter };
}

/** What the bare table shows: an even change of light over it, learned by most of what is seen. */
function groundOf(
  colours: Colours,
  seen: readonly number[],
  placeOfSquare: (p: number) => Spot2,
  middle: Spot2,
): Pick<Table, 'ground' | 'scatter'> {
  const every = Math.max(1, Math.floor(seen.length / LEARNED_BY));
  const learned = seen.filter((_, i) => i % every === 0);
  const termsAt = ({ x, y }: Spot2): Six => terms((x - middle.x) / AROUND_CM, (y - middle.y) / AROUND_CM);
  const rows = learned.map((p) => termsAt(placeOfSquare(p)));
  const values = colours.map((colour) => learned.map((p) => colour[p] ?? 0));
  // It begins with the commonest light, so that a large frame does not pull it away.
  let fits = values.map((of) => [commonest(of), 0, 0, 0, 0, 0]);
  let scatter = 0;
  for (let round = 0; round <= ROUNDS; round++) {
    const off = rows.map((row, i) =>
      Math.hypot(...fits.map((fit, c) => (values[c]?.[i] ?? 0) - dot(row, fit))),
    );
    const near = off.filter((d) => d < Math.max(12, 2.5 * (scatter || 12)));
    scatter = Math.max(LEAST_SCATTER, MAD_TO_SIGMA * (near.length > 0 ? median(near) : 0));
    if (round === ROUNDS) break;
    const reach = Math.max(8, (ROUNDS - round) * 4, TUKEY_BEYOND * scatter);
    const weights = off.map((d) => tukeyWithin(d, reach));
    fits = values.map((value) => fitSix(rows, value, weights));
  }
  return {
    scatter,
    ground: (x, y) => {
      const row = termsAt({ x, y });
      return fits.map((fit) => dot(row, fit)) as [number, number, number];
    },
  };
}

/** Whether a colour is neither the bare table’s nor its shade’s. */
export function differs(here: readonly number[], bare: readonly number[], scatter: number): boolean {
  const off = Math.sqrt(here.reduce((sum, value, c) => sum + (value - (bare[c] ?? 0)) ** 2, 0));
  return off > Math.max(LEAST_OFF, TIMES_SCATTER * scatter) && !isShade(here, bare);
}

/** The value that most are near to. */
function commonest(values: readonly number[]): number {
  const counts = new Float64Array(32);
  for (const value of values) {
    const at = Math.min(31, value >> 3);
    counts[at] = (counts[at] ?? 0) + 1;
  }
  const smooth = counts.map((count, i) => count + 0.5 * ((counts[i - 1] ?? 0) + (counts[i + 1] ?? 0)));
  const best = smooth.indexOf(Math.max(...smooth));
  const near = values.filter((value) => Math.abs(value - (8 * best + 4)) <= 12);
  return near.length > 0 ? median(near) : 0;
}

/** Less light on the same table: all colours less by one share. */
function isShade(here: readonly number[], bare: readonly number[]): boolean {
  const [sumHere, sumBare] = [here, bare].map((of) => of.reduce((sum, value) => sum + value, 0)) as [
    number,
    number,
  ];
  const share = sumHere / Math.max(1, sumBare);
  if (share < DARKEST_SHADE || share > 1) return false;
  return here.every(
    (value, c) =>
      Math.abs(value / Math.max(1, sumHere) - (bare[c] ?? 0) / Math.max(1, sumBare)) <
      SHADE_TINT / 3 + 2 / Math.max(1, sumHere),
  );
}
