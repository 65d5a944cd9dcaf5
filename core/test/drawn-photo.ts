import { seededNormals, type Photo } from '../src';

// Photos of frames beside a sheet, drawn ray by ray: a camera in space, a table, a sheet on it, and a frame that lies above the table by half its thickness.

type Colour = readonly [number, number, number];
/** What is seen of a frame at a place along it and beside its axis, cm; undefined where the table shows through. */
export type FrameAt = (along: number, across: number) => Colour | undefined;

/** A frame that is drawn, and what is true of it, cm and cm². */
export interface DrawnFrame {
  at: FrameAt;
  lengthCm: number;
  headLengthCm: number;
  widthCm: number;
  /** Within the outer edge, and within the hoop where it has one. */
  wholeCm2: number;
  bedCm2: number;
  hoopCm: number;
  thicknessCm: number;
}

/** A million times a photo: `Math.hypot`, which looks after numbers too large for a square, takes ten times as long. */
const far = (x: number, y: number): number => Math.sqrt(x * x + y * y);
const ellipse = (x: number, y: number, a: number, b: number): number => far(x / a, y / b);
/** Whether a place is within so much of the line between two others. */
function near(
  x: number,
  y: number,
  [ax, ay]: [number, number],
  [bx, by]: [number, number],
  by2: number,
): boolean {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
  return far(x - ax - t * dx, y - ay - t * dy) < by2;
}
const GRIP: Colour = [232, 228, 220];
const STRING: Colour = [238, 226, 160];

/** A strung frame with a hoop and two limbs. @param paint of the hoop */
export function strungFrame(
  paint: Colour = [38, 46, 92],
  { a = 17.6, b = 13.9, hoop = 1.15, length = 68.6, limbs = true } = {},
): DrawnFrame {
  const c = length - a;
  const [p, q] = [a - hoop, b - hoop];
  return {
    at: (along, across) => {
      const x = along - c;
      const side = Math.abs(across);
      if (along < 0 || along > length) return undefined;
      if (along < 1.2 && side < 1.9) return [40, 40, 42];
      if (along < 20 && side < 1.65) return GRIP;
      if (ellipse(x, across, a, b) <= 1 && ellipse(x, across, p, q) >= 1) {
        // A stripe of paint around the middle of the hoop.
        return Math.abs(ellipse(x, across, a - 0.5, b - 0.5) - 1) < 0.012 ? [205, 60, 40] : paint;
      }
      if (limbs && near(along, side, [18.5, 1], [c - 0.72 * a, 0.62 * b], 0.75)) return paint;
      if (!limbs && along >= 19 && along < c - a + 0.3 && side < 0.36) return paint;
      if (ellipse(x, across, p, q) < 1) {
        const pitch = (value: number, every: number): number =>
          Math.abs(value - every * Math.round(value / every));
        if (pitch(across - 0.6, 1.25) < 0.065 || pitch(x - 0.5, 1.45) < 0.065) return STRING;
      }
      return undefined;
    },
    lengthCm: length,
    headLengthCm: 2 * a,
    widthCm: 2 * b,
    wholeCm2: Math.PI * a * b,
    // A curve in parallel, by Steiner's formula for what lies within it.
    bedCm2: Math.PI * a * b - hoop * perimeter(a, b) + Math.PI * hoop * hoop,
    hoopCm: hoop,
    thicknessCm: 2.3,
  };
}
/** Ramanujan 1914, the second of his formulas. */
const perimeter = (a: number, b: number): number => {
  const h = ((a - b) / (a + b)) ** 2;
  return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
};

/** A paddle: a rectangle with round corners on its handle. */
export function paddle(face: Colour = [190, 52, 44]): DrawnFrame {
  const [length, handle, half, r] = [40.6, 13.2, 10.1, 4.2];
  const [from, to] = [handle, length];
  return {
    at: (along, across) => {
      const side = Math.abs(across);
      if (along < 0 || along > length) return undefined;
      if (along <= handle + 0.4 && side < 1.6) return [30, 30, 32];
      const [x, y] = [Math.max(from + r - along, along - (to - r), 0), Math.max(side - (half - r), 0)];
      if (along < from || side > half || far(x, y) > r) return undefined;
      return far(x, y) > r - 0.5 || side > half - 0.5 || along > to - 0.5 ? [24, 24, 26] : face;
    },
    lengthCm: length,
    headLengthCm: length - handle,
    widthCm: 2 * half,
    wholeCm2: (length - handle) * 2 * half - (4 - Math.PI) * r * r,
    bedCm2: NaN,
    hoopCm: NaN,
    thicknessCm: 1.4,
  };
}

/** A padel frame: an egg with holes, a bridge and an opening of the throat below it. */
export function holedFrame(face: Colour = [26, 104, 96]): DrawnFrame {
  const [length, bottom, half] = [45.5, 17.5, 12.9];
  const widest = bottom + 15.5;
  const head = (along: number, side: number): boolean =>
    ellipse(along - widest, side, along > widest ? length - widest : widest - bottom, half) <= 1;
  return {
    at: (along, across) => {
      const side = Math.abs(across);
      if (along < 0 || along > length) return undefined;
      if (along < 13 && side < 1.7) return [34, 34, 36];
      if (head(along, side)) {
        const hole = (every: number, value: number): number => value - every * Math.round(value / every);
        const isHole = far(hole(2.6, along - widest), hole(2.6, across - 1.3)) < 0.55;
        return isHole && ellipse(along - widest, side, 9, 8) < 1 ? undefined : face;
      }
      if (near(along, side, [12, 0.9], [bottom + 3.5, 7.4], 1.3) && along < widest) return [20, 20, 22];
      return undefined;
    },
    lengthCm: length,
    headLengthCm: length - bottom,
    widthCm: 2 * half,
    wholeCm2: (Math.PI / 2) * half * (length - bottom),
    bedCm2: NaN,
    hoopCm: NaN,
    thicknessCm: 3.8,
  };
}

/** A light frame on a shaft. */
export const shaftFrame = (paint: Colour = [30, 30, 34]): DrawnFrame => ({
  ...strungFrame(paint, { a: 13.4, b: 10.4, hoop: 0.75, length: 67.3, limbs: false }),
  thicknessCm: 1,
});

export interface DrawnPhoto {
  frame: DrawnFrame;
  width?: number;
  height?: number;
  /** How far the camera looks away from straight down and toward where, degrees; how high it is, cm. */
  tiltDeg?: number;
  towardDeg?: number;
  heightCm?: number;
  /** The lens on 35 mm film, mm; a lens that bends straight lines, as a share at the corner. */
  focal35Mm?: number;
  sheet?: readonly [number, number] | null;
  sheetTurnDeg?: number;
  sheetAt?: [number, number];
  frameTurnDeg?: number;
  /** How much light a shade takes away; 0 is none. */
  shade?: number;
  table?: Colour;
  grain?: number;
  noise?: number;
  /** Where the camera looks: moved so that a part of the frame is outside. */
  lookAt?: [number, number];
  seed?: number;
}

/** A photo of a frame on a table, as a camera at a place in space takes it. */
export function drawnPhoto({
  frame,
  width = 1200,
  height = 900,
  tiltDeg = 0,
  towardDeg = 0,
  heightCm = 90,
  focal35Mm = 26,
  sheet = [29.7, 21],
  sheetTurnDeg = 4,
  sheetAt,
  frameTurnDeg = 3,
  shade = 0.3,
  table = [172, 140, 104],
  grain = 5,
  noise = 2,
  lookAt = [0, 0],
  seed = 1,
}: DrawnPhoto): Photo {
  const rad = Math.PI / 180;
  const f = (focal35Mm / 43.27) * Math.hypot(width, height);
  // The camera, and where its picture's right and lower edge lie in space.
  const [t, az] = [tiltDeg * rad, towardDeg * rad];
  const eye = [
    lookAt[0] - heightCm * Math.tan(t) * Math.cos(az),
    lookAt[1] - heightCm * Math.tan(t) * Math.sin(az),
    heightCm,
  ] as const;
  const forward = [Math.sin(t) * Math.cos(az), Math.sin(t) * Math.sin(az), -Math.cos(t)] as const;
  // Right is as level as it can be: along the table's x where the camera looks straight down.
  const flat = [1 - forward[0] * forward[0], -forward[0] * forward[1], -forward[0] * forward[2]] as const;
  const size = Math.hypot(...flat);
  const right = flat.map((value) => value / size) as unknown as [number, number, number];
  const down = [
    forward[1] * right[2] - forward[2] * right[1],
    forward[2] * right[0] - forward[0] * right[2],
    forward[0] * right[1] - forward[1] * right[0],
  ] as const;

  // The frame along x, its middle at the origin and above the sheet by some room.
  const [fc, fs] = [Math.cos(frameTurnDeg * rad), Math.sin(frameTurnDeg * rad)];
  const [sx, sy] = sheetAt ?? [-frame.lengthCm * 0.15, frame.widthCm / 2 + 13];
  const own = sheetAt ? 0 : -8;
  const along = (x: number, y: number): number => x * fc + (y - own) * fs + frame.lengthCm / 2;
  const across = (x: number, y: number): number => (y - own) * fc - x * fs;
  const frameAt = (x: number, y: number): Colour | undefined => frame.at(along(x, y), across(x, y));
  const [sc, ss] = [Math.cos(sheetTurnDeg * rad), Math.sin(sheetTurnDeg * rad)];
  const onSheet = (x: number, y: number): boolean => {
    if (!sheet) return false;
    const [u, v] = [x - sx, y - own - sy];
    return Math.abs(u * sc + v * ss) <= sheet[0] / 2 && Math.abs(-u * ss + v * sc) <= sheet[1] / 2;
  };
  // Shade beside the frame: its own shape, moved and soft.
  const cell = 0.4;
  const [gw, gh] = [Math.ceil(160 / cell), Math.ceil(160 / cell)];
  const hard = new Float32Array(gw * gh);
  for (let j = 0; j < gh; j++)
    for (let i = 0; i < gw; i++)
      hard[j * gw + i] = frameAt((i + 0.5) * cell - 80 - 1.3, (j + 0.5) * cell - 80 - 1.1) ? 1 : 0;
  let soft = hard;
  for (let round = 0; round < 3; round++) {
    const next = new Float32Array(soft.length);
    for (let p = gw + 1; p < soft.length - gw - 1; p++)
      next[p] =
        ((soft[p] ?? 0) * 2 +
          (soft[p - 1] ?? 0) +
          (soft[p + 1] ?? 0) +
          (soft[p - gw] ?? 0) +
          (soft[p + gw] ?? 0)) /
        6;
    soft = next;
  }
  const shadeAt = (x: number, y: number): number => {
    const [u, v] = [(x + 80) / cell - 0.5, (y + 80) / cell - 0.5];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    if (i < 0 || j < 0 || i >= gw - 1 || j >= gh - 1) return 0;
    const [a, b] = [u - i, v - j];
    const at = (p: number): number => soft[p] ?? 0;
    const p = j * gw + i;
    return (1 - b) * ((1 - a) * at(p) + a * at(p + 1)) + b * ((1 - a) * at(p + gw) + a * at(p + gw + 1));
  };
  const normal = seededNormals(seed);
  const rows = Float32Array.from({ length: 100_003 }, () => noise * normal());
  const data = new Uint8ClampedArray(4 * width * height);
  // What follows is asked for a million times a photo and more.
  const wayOf = (u: number, v: number, i: 0 | 1 | 2): number =>
    f * forward[i] + (u - width / 2) * right[i] + (v - height / 2) * down[i];
  const colourAt = (u: number, v: number): Colour => {
    const fall = wayOf(u, v, 2);
    if (fall >= 0) return [120, 120, 120];
    const [wx, wy] = [wayOf(u, v, 0) / fall, wayOf(u, v, 1) / fall];
    const above = frame.thicknessCm / 2 - eye[2];
    const colour = frameAt(eye[0] + above * wx, eye[1] + above * wy);
    if (colour) return colour;
    const [x, y] = [eye[0] - eye[2] * wx, eye[1] - eye[2] * wy];
    const light = (1 + 0.0012 * x - 0.001 * y) * (1 - shade * shadeAt(x, y));
    if (onSheet(x, y)) return [246 * light, 245 * light, 241 * light];
    const wood = grain * (Math.sin(0.9 * y + 0.5 * Math.sin(0.11 * x)) + 0.5 * Math.sin(3.1 * y + 0.07 * x));
    return [(table[0] + wood) * light, (table[1] + wood) * light, (table[2] + wood) * light];
  };
  /** Whether anything but the bare table is near: only there an element is drawn by more than one ray. */
  const isBusy = (u: number, v: number): boolean => {
    const fall = wayOf(u, v, 2);
    const [x, y] = [eye[0] - (eye[2] * wayOf(u, v, 0)) / fall, eye[1] - (eye[2] * wayOf(u, v, 1)) / fall];
    const at = along(x, y);
    if (at > -3 && at < frame.lengthCm + 3 && Math.abs(across(x, y)) < frame.widthCm / 2 + 3) return true;
    return sheet !== null && far(x - sx, y - own - sy) < sheet[0] * 0.65;
  };
  const rays = [
    [0.25, 0.25],
    [0.75, 0.25],
    [0.25, 0.75],
    [0.75, 0.75],
  ] as const;
  const middle = [[0.5, 0.5]] as const;
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      let [red, green, blue] = [0, 0, 0];
      const used = isBusy(u, v) ? rays : middle;
      for (const [du, dv] of used) {
        const colour = colourAt(u + du, v + dv);
        red += colour[0] / used.length;
        green += colour[1] / used.length;
        blue += colour[2] / used.length;
      }
      const p = v * width + u;
      data[4 * p] = red + (rows[(3 * p) % rows.length] ?? 0);
      data[4 * p + 1] = green + (rows[(3 * p + 1) % rows.length] ?? 0);
      data[4 * p + 2] = blue + (rows[(3 * p + 2) % rows.length] ?? 0);
      data[4 * p + 3] = 255;
    }
  return { width, height, data };
}
