import { seededNormals, type AngleAt, type Film } from '../src';

/** How a film is drawn; all but the angles may be left out. */
export interface Drawn {
  angles: readonly AngleAt[];
  width?: number;
  height?: number;
  /** Where it turns, and how far the bar reaches from there to either side, as shares of the height. */
  pivot?: [x: number, y: number];
  reach?: [up: number, down: number];
  /** Half the breadth of the bar, picture elements; how much broader while it swings. */
  half?: number;
  breathes?: (angle: AngleAt, at: number) => number;
  ground?: number;
  bar?: number;
  marks?: number;
  noise?: number;
  /** Share of the time between two pictures that the shutter is open. */
  shutter?: number;
  shake?: number;
  seed?: number;
  /** Something else that is drawn over it: grey at a place and a time, or undefined. */
  other?: (x: number, y: number, at: number) => number | undefined;
}

/** A film of a bar that turns, drawn picture by picture. */
export function drawnFilm({
  angles,
  width = 160,
  height = 120,
  pivot = [0.5, 0.12],
  reach = [0.02, 0.75],
  half = 2.2,
  breathes = () => 1,
  ground = 190,
  bar = 40,
  marks = 12,
  noise = 2,
  shutter = 0.5,
  shake = 0,
  seed = 1,
  other,
}: Drawn): Film {
  const normal = seededNormals(seed);
  const marked = (x: number, y: number): number =>
    marks *
    (Math.sin(0.31 * x + 0.13 * y) + Math.sin(0.17 * x - 0.37 * y + 1) + Math.sin(0.71 * y + 0.05 * x));
  const exposures = shutter > 0 ? 3 : 1;
  const size = width * height;
  // Noise from one long row, from another place in it each time: to draw it anew for every element takes longer than all else.
  const row = Float32Array.from({ length: 3 * size + 7919 }, () => noise * normal());
  const wallAt = (sx: number, sy: number): Float32Array =>
    new Float32Array(size).map((_, p) => ground + marked((p % width) - sx, Math.floor(p / width) - sy));
  const wall = wallAt(0, 0);
  const frames = angles.map((now, i) => {
    const next = angles[i + 1] ?? now;
    const [sx, sy] = [shake * Math.sin(1.7 * now.at + 0.3), shake * Math.cos(2.3 * now.at)];
    const [px, py] = [pivot[0] * width + sx, pivot[1] * height + sy];
    const broad = half * breathes(now, now.at);
    const behind = shake > 0 ? wallAt(sx, sy) : wall;
    const sum = behind.slice();
    if (other)
      for (let p = 0; p < size; p++) sum[p] = other(p % width, Math.floor(p / width), now.at) ?? sum[p] ?? 0;
    const shown = sum.slice();
    for (let e = 0; e < exposures; e++) {
      const angle = now.angle + ((next.angle - now.angle) * shutter * e) / exposures;
      // Straight down at no angle.
      const [ax, ay] = [Math.sin(angle), Math.cos(angle)];
      for (let y = 0; y < height; y++) {
        // Of each row only what the bar may cover.
        const dy = y - py;
        const [middle, aside] = [px + (dy * ax) / ay, Math.abs((broad + 1) / ay)];
        const last = Math.min(width - 1, Math.floor(middle + aside));
        for (let x = Math.max(0, Math.ceil(middle - aside)); x <= last; x++) {
          const dx = x - px;
          const u = dx * ax + dy * ay;
          const beside = Math.abs(dx * ay - dy * ax);
          const inside = Math.min(broad - beside, u + reach[0] * height, reach[1] * height - u) + 0.5;
          const share = Math.min(1, Math.max(0, inside));
          const p = y * width + x;
          if (share > 0) sum[p] = (sum[p] as number) + (share * (bar - (shown[p] as number))) / exposures;
        }
      }
    }
    const from = (i * 7919) % (2 * size);
    const grey = new Uint8ClampedArray(size);
    for (let p = 0; p < size; p++) grey[p] = (sum[p] as number) + (row[from + p] as number);
    return { at: now.at, grey: new Uint8Array(grey.buffer) };
  });
  return { width, height, frames };
}
