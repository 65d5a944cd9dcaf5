import { backFrom, seenAt, type Corners, type Seen, type Spot2 } from './projection';
import { lightAt, type Photo } from './sheet';

/** The table from straight above, in small squares: what lies on it, and what does not. */
export interface Table {
  /** Squares along and across, and the side of one, cm. */
  width: number;
  height: number;
  cellCm: number;
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

export const CELL_CM = 0.2;
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

type Six = [number, number, number, number, number, number];
const terms = (u: number, v: number): Six => [1, u, v, u * u, u * v, v * v];

/** Least squares by the normal equations, six by six (Gauss). */
function solveSix(rows: readonly Six[], values: readonly number[], weights: readonly number[]): number[] {
  const m = Array.from({ length: 6 }, () => new Array<number>(7).fill(0));
  rows.forEach((row, i) => {
    const w = weights[i] ?? 0;
    if (w === 0) return;
    for (let a = 0; a < 6; a++) {
      const line = m[a] as number[];
      for (let b = 0; b < 6; b++) line[b] = (line[b] ?? 0) + w * (row[a] ?? 0) * (row[b] ?? 0);
      line[6] = (line[6] ?? 0) + w * (row[a] ?? 0) * (values[i] ?? 0);
    }
  });
  for (let a = 0; a < 6; a++) {
    const line = m[a] as number[];
    const pivot = (line[a] ?? 0) + 1e-9;
    for (let b = 0; b < 6; b++) {
      if (b === a) continue;
      const other = m[b] as number[];
      const share = (other[a] ?? 0) / pivot;
      for (let c = a; c < 7; c++) other[c] = (other[c] ?? 0) - share * (line[c] ?? 0);
    }
  }
  return m.map((line, a) => (line[6] ?? 0) / ((line[a] ?? 0) + 1e-9));
}
const middleOf = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? 0;

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
  const edge = Array.from({ length: 40 }, (_, i) => {
    const [side, t] = [i % 4, Math.floor(i / 4) / 9];
    const [w, h] = [photo.width, photo.height];
    return seenAt(
      back,
      (
        [
          { x: t * w, y: 0 },
          { x: w, y: t * h },
          { x: t * w, y: h },
          { x: 0, y: t * h },
        ] as const
      )[side as 0],
    );
  });
  const within = (value: number, centre: number): number =>
    Math.min(centre + AROUND_CM, Math.max(centre - AROUND_CM, value));
  const xs = edge.map(({ x }) => within(x, middle.x));
  const ys = edge.map(({ y }) => within(y, middle.y));
  const [fromX, fromY] = [Math.min(...xs), Math.min(...ys)];
  const width = Math.ceil((Math.max(...xs) - fromX) / CELL_CM);
  const height = Math.ceil((Math.max(...ys) - fromY) / CELL_CM);
  const size = width * height;
  const colours = [new Float32Array(size), new Float32Array(size), new Float32Array(size)] as const;
  const beyond = new Uint8Array(size);
  const onSheet = new Uint8Array(size);
  const isOnSheet = insideOf(sheet, ROUND_SHEET_CM);
  const quarter = CELL_CM / 4;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const p = j * width + i;
      const [x, y] = [fromX + (i + 0.5) * CELL_CM, fromY + (j + 0.5) * CELL_CM];
      const at = seenAt(seen, { x, y });
      if (!(at.x >= 2 && at.y >= 2 && at.x <= photo.width - 2 && at.y <= photo.height - 2)) {
        beyond[p] = 1;
        continue;
      }
      if (isOnSheet(x, y)) onSheet[p] = 1;
      const [one, other] = [
        seenAt(seen, { x: x - quarter, y: y - quarter }),
        seenAt(seen, { x: x + quarter, y: y + quarter }),
      ];
      colours.forEach((colour, channel) => {
        colour[p] = (lightAt(photo, one.x, one.y, channel) + lightAt(photo, other.x, other.y, channel)) / 2;
      });
    }

  // The table: an even change of light over it, learned by most of what is seen.
  const seenAtAll: number[] = [];
  for (let p = 0; p < size; p++) if (!beyond[p] && !onSheet[p]) seenAtAll.push(p);
  const every = Math.max(1, Math.floor(seenAtAll.length / LEARNED_BY));
  const learned = seenAtAll.filter((_, i) => i % every === 0);
  const scaled = (x: number, y: number): [number, number] => [
    (x - middle.x) / AROUND_CM,
    (y - middle.y) / AROUND_CM,
  ];
  const placeOf = (p: number): [number, number] => [
    fromX + ((p % width) + 0.5) * CELL_CM,
    fromY + (Math.floor(p / width) + 0.5) * CELL_CM,
  ];
  const rows = learned.map((p) => terms(...scaled(...placeOf(p))));
  const values = colours.map((colour) => learned.map((p) => colour[p] ?? 0));
  let weights = learned.map(() => 1);
  // It begins with the commonest light, so that a large frame does not pull it away.
  const common = values.map(commonest);
  let fits = common.map((value) => [value, 0, 0, 0, 0, 0]);
  let scatter = 0;
  for (let round = 0; round <= ROUNDS; round++) {
    const off = rows.map((row, i) =>
      Math.hypot(
        ...fits.map(
          (fit, c) => (values[c]?.[i] ?? 0) - row.reduce((sum, term, k) => sum + term * (fit[k] ?? 0), 0),
        ),
      ),
    );
    scatter = Math.max(1.5, 1.4826 * middleOf(off.filter((d) => d < Math.max(12, 2.5 * (scatter || 12)))));
    const reach = Math.max(8, (ROUNDS - round) * 4, 4.7 * scatter);
    weights = off.map((d) => Math.max(0, 1 - (d / reach) ** 2) ** 2);
    if (round < ROUNDS) fits = values.map((value) => solveSix(rows, value, weights));
  }
  const ground = (x: number, y: number): [number, number, number] => {
    const row = terms(...scaled(x, y));
    return fits.map((fit) => row.reduce((sum, term, k) => sum + term * (fit[k] ?? 0), 0)) as [
      number,
      number,
      number,
    ];
  };
  const lies = new Uint8Array(size);
  for (const p of seenAtAll) {
    const bare = ground(...placeOf(p));
    const here = colours.map((colour) => colour[p] ?? 0) as [number, number, number];
    if (differs(here, bare, scatter)) lies[p] = 1;
  }
  return { width, height, cellCm: CELL_CM, fromX, fromY, lies, beyond, onSheet, ground, scatter };
}

/** Whether a colour is neither the bare table’s nor its shade’s. */
export function differs(here: readonly number[], bare: readonly number[], scatter: number): boolean {
  const off = Math.hypot(...here.map((value, c) => value - (bare[c] ?? 0)));
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
  return middleOf(values.filter((value) => Math.abs(value - (8 * best + 4)) <= 12));
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
