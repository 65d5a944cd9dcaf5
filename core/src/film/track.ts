/** A film in greys, small enough to be held in memory; every picture is width × height bytes, row by row. */
export interface Film {
  width: number;
  height: number;
  frames: { at: number; grey: Uint8Array }[];
}

/** The bar that swings, as one picture shows it. */
export interface Bar {
  /** s */
  at: number;
  /** Where its long axis points, rad, from the picture's x axis; runs on over whole turns. */
  angle: number;
  /** Its middle, picture elements. */
  x: number;
  y: number;
  /** Standard deviations along and across it, picture elements. */
  along: number;
  across: number;
  /** How much of it is seen. */
  seen: number;
}

/** Why a film cannot be trusted. */
export const FILM_TROUBLES = [
  'film-unreadable',
  'film-short',
  'film-dark',
  'film-still',
  'film-cut-off',
  'film-two-move',
  'film-wrong-side',
  'film-sideways',
  'film-uneven',
  'film-too-little',
  'film-too-wide',
] as const;
export type FilmTrouble = (typeof FILM_TROUBLES)[number];

export interface Tracked {
  bars: Bar[];
  /** The least and greatest x and y of what moves, picture elements. */
  region: { left: number; top: number; right: number; bottom: number };
  /** How far the camera moved at the most, picture elements. */
  shake: number;
}

/** The place that is nearest to all axes: where the bar turns. */
function crossingOf(bars: readonly Bar[]): { x: number; y: number } {
  let [a, b, c, r, s] = [0, 0, 0, 0, 0];
  for (const { x, y, angle } of bars) {
    const [nx, ny] = [-Math.sin(angle), Math.cos(angle)];
    const d = nx * x + ny * y;
    a += nx * nx;
    b += nx * ny;
    c += ny * ny;
    r += nx * d;
    s += ny * d;
  }
  // Where all point alike, the middle of them is as good.
  const along = {
    x: bars.reduce((sum, bar) => sum + bar.x, 0),
    y: bars.reduce((sum, bar) => sum + bar.y, 0),
  };
  const det = a * c - b * b;
  if (!(det > 1e-4 * (a + c) ** 2)) return { x: along.x / bars.length, y: along.y / bars.length };
  return { x: (r * c - s * b) / det, y: (s * a - r * b) / det };
}

const SAMPLED = 41;
/** Fewer pictures than this hold no swings. */
export const FEWEST_PICTURES = 30;

/** The middle value of every picture element over some pictures. */
function middleOf(pictures: readonly Uint8Array[], size: number): Uint8Array {
  const found = new Uint8Array(size);
  const values = new Uint8Array(pictures.length);
  const middle = pictures.length >> 1;
  for (let p = 0; p < size; p++) {
    for (let i = 0; i < pictures.length; i++) values[i] = pictures[i]?.[p] ?? 0;
    values.sort();
    found[p] = values[middle] ?? 0;
  }
  return found;
}
const evenly = <T>(all: readonly T[], count: number): T[] => {
  const every = Math.max(1, all.length / count);
  return Array.from({ length: Math.min(count, all.length) }, (_, i) => all[Math.floor(i * every)] as T);
};
function medianOfBytes(values: Uint8Array | readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}

/** The edge of the picture, where what swings is not: there the camera's own movement is seen. */
const MARGIN = 0.13;
/** A wall without marks shows no movement: mean square slope of its greys, below which it counts as such (from memory). */
const FEWEST_MARKS = 6;
/** As many places tell a shift as well as all of them. */
const MOST_MARKS = 600;

/** How far a picture is shifted against another, by its margin: least squares of the greys (Lucas and Kanade 1981; from memory). */
class Shifts {
  private readonly places: number[] = [];
  private readonly slopes: { x: number; y: number }[] = [];
  readonly isMarked: boolean;
  constructor(
    private readonly reference: Uint8Array,
    private readonly width: number,
    private readonly height: number,
  ) {
    const [mx, my] = [Math.round(MARGIN * width), Math.round(MARGIN * height)];
    const at = (x: number, y: number): number => reference[y * width + x] ?? 0;
    const marks: { at: number; slope: { x: number; y: number } }[] = [];
    let [xx, yy, xy] = [0, 0, 0];
    for (let y = 3; y < height - 3; y++)
      for (let x = 3; x < width - 3; x++) {
        if (x >= mx && x < width - mx && y >= my && y < height - my) continue;
        const slope = { x: (at(x + 1, y) - at(x - 1, y)) / 2, y: (at(x, y + 1) - at(x, y - 1)) / 2 };
        if (slope.x * slope.x + slope.y * slope.y < 4) continue;
        marks.push({ at: y * width + x, slope });
        xx += slope.x * slope.x;
        yy += slope.y * slope.y;
        xy += slope.x * slope.y;
      }
    for (const { at: place, slope } of evenly(marks, MOST_MARKS)) {
      this.places.push(place);
      this.slopes.push(slope);
    }
    const all = 2 * MARGIN * width * height * 2;
    const weaker = (xx + yy) / 2 - Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
    this.isMarked = weaker / all > FEWEST_MARKS;
  }
  of(picture: Uint8Array): Shift {
    const { width, height, reference } = this;
    let [dx, dy] = [0, 0];
    for (let round = 0; round < 5; round++) {
      let [xx, xy, yy, xr, yr] = [0, 0, 0, 0, 0];
      const residuals = this.places.map(
        (p) =>
          sampled(picture, width, height, (p % width) + dx, Math.floor(p / width) + dy) - (reference[p] ?? 0),
      );
      const scale = Math.max(2, 3 * medianOfBytes(residuals.map(Math.abs)));
      this.slopes.forEach((slope, i) => {
        const r = residuals[i] ?? 0;
        if (Math.abs(r) > scale) return;
        xx += slope.x * slope.x;
        xy += slope.x * slope.y;
        yy += slope.y * slope.y;
        xr += slope.x * r;
        yr += slope.y * r;
      });
      const det = xx * yy - xy * xy;
      if (!(det > 1)) break;
      const [stepX, stepY] = [(xr * yy - yr * xy) / det, (yr * xx - xr * xy) / det];
      dx -= stepX;
      dy -= stepY;
      if (Math.hypot(stepX, stepY) < 0.02) break;
    }
    const far = MARGIN * Math.min(width, height);
    return Math.hypot(dx, dy) < far ? { x: dx, y: dy } : { x: 0, y: 0 };
  }
}
/** The grey between four picture elements. */
function sampled(picture: Uint8Array, width: number, height: number, x: number, y: number): number {
  const [cx, cy] = [Math.min(Math.max(x, 0), width - 1.001), Math.min(Math.max(y, 0), height - 1.001)];
  const [left, top] = [Math.floor(cx), Math.floor(cy)];
  const [fx, fy] = [cx - left, cy - top];
  const p = top * width + left;
  const upper = (picture[p] ?? 0) * (1 - fx) + (picture[p + 1] ?? 0) * fx;
  const lower = (picture[p + width] ?? 0) * (1 - fx) + (picture[p + width + 1] ?? 0) * fx;
  return upper * (1 - fy) + lower * fy;
}
/** A picture moved by so much. By one fraction all over, so that four weights serve for every element: a film has millions of them. */
function shifted(
  picture: Uint8Array,
  width: number,
  height: number,
  by: { x: number; y: number },
): Uint8Array {
  if (Math.hypot(by.x, by.y) < 0.05) return picture;
  const [wholeX, wholeY] = [Math.floor(by.x), Math.floor(by.y)];
  const [fx, fy] = [by.x - wholeX, by.y - wholeY];
  const [w00, w10, w01, w11] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
  const moved = new Uint8Array(picture.length);
  const clampX = (x: number): number => Math.min(Math.max(x, 0), width - 1);
  const lefts = Int32Array.from({ length: width }, (_, x) => clampX(x + wholeX));
  const rights = Int32Array.from({ length: width }, (_, x) => clampX(x + wholeX + 1));
  for (let y = 0; y < height; y++) {
    const upper = Math.min(Math.max(y + wholeY, 0), height - 1) * width;
    const lower = Math.min(Math.max(y + wholeY + 1, 0), height - 1) * width;
    const row = y * width;
    for (let x = 0; x < width; x++) {
      const [left, right] = [lefts[x] as number, rights[x] as number];
      moved[row + x] =
        0.5 +
        w00 * (picture[upper + left] as number) +
        w10 * (picture[upper + right] as number) +
        w01 * (picture[lower + left] as number) +
        w11 * (picture[lower + right] as number);
    }
  }
  return moved;
}

/** Parts of a picture where something moves, the strongest first: elements that touch, over small gaps. */
function partsOf(
  energy: Float32Array,
  width: number,
  height: number,
  least: number,
): { places: number[]; energy: number }[] {
  const part = new Int32Array(energy.length).fill(-1);
  const found: { places: number[]; energy: number }[] = [];
  // Both edges of a bar that hardly swings are one part.
  const gap = Math.max(2, Math.round(0.03 * Math.max(width, height)));
  for (let start = 0; start < energy.length; start++) {
    if ((energy[start] ?? 0) < least || (part[start] ?? -1) >= 0) continue;
    const own = { places: [start], energy: 0 };
    part[start] = found.length;
    for (let next = 0; next < own.places.length; next++) {
      const p = own.places[next] ?? 0;
      own.energy += energy[p] ?? 0;
      const [px, py] = [p % width, Math.floor(p / width)];
      for (let y = Math.max(0, py - gap); y <= Math.min(height - 1, py + gap); y++)
        for (let x = Math.max(0, px - gap); x <= Math.min(width - 1, px + gap); x++) {
          const q = y * width + x;
          if ((part[q] ?? 0) >= 0 || (energy[q] ?? 0) < least) continue;
          part[q] = found.length;
          own.places.push(q);
        }
    }
    found.push(own);
  }
  return found.toSorted((a, b) => b.energy - a.energy);
}

/** Below so many greys nothing is told from the noise of a dark picture (from memory). */
const FEWEST_GREYS = 8;
const NOISES = 4;
const DARK = 40;
/** What else moves may have so much of the energy: a shadow, a sleeve at the edge (from memory). */
const SECOND_SHARE = 0.3;
/** A frame from its side, or from below, is no broader than this for its length; its face is (from memory). */
const BROADEST = 0.25;
/** What is further from the axis than so many times the bar's own spread is not the bar. */
const ROOM_ACROSS = 3.5;
/** So few elements show no axis. */
const LEAST_SEEN = 15;
/** How often the ground is taken anew, with the bar found better each time; and how many pictures must show it bare. */
const GROUND_ROUNDS = 4;
const FEWEST_BARE = 4;
/** Of its reach at most so much is left out. */
const LEFT_OUT_MOST = 0.7;
/** A tripod shakes less than this, picture elements. */
const LEAST_SHAKE = 0.3;
/** Where something moves its elements have at least this share of the strongest change, and there are so many of them. */
const LEAST_ENERGY = 0.06;
const LEAST_PLACES = 40;
/** No bar is broader than this share of the picture: what seems so is the ground taken for it. */
const MOST_ACROSS = 0.02;

interface Shift {
  x: number;
  y: number;
}
const UNMOVED: Shift = { x: 0, y: 0 };

/** A camera that is held moves the whole picture: it is moved back, where the wall behind shows by how much. */
class Steadied {
  /** Some pictures over the whole film. */
  readonly samples: Uint8Array[];
  /** How far the camera moved at the most. */
  readonly shake: number;
  private readonly shifts: Shifts;
  constructor(private readonly film: Film) {
    const { width, height, frames } = film;
    const few = evenly(frames, SAMPLED).map(({ grey }) => grey);
    this.shifts = new Shifts(middleOf(evenly(few, 9), width * height), width, height);
    const moved = few.map((grey) => this.shiftOf(grey));
    this.shake = Math.max(...moved.map(({ x, y }) => Math.hypot(x, y)));
    this.samples = few.map((grey, i) => this.back(grey, moved[i] ?? UNMOVED));
  }
  private shiftOf(grey: Uint8Array): Shift {
    return this.shifts.isMarked ? this.shifts.of(grey) : UNMOVED;
  }
  private back(grey: Uint8Array, by: Shift): Uint8Array {
    return this.isHeld ? shifted(grey, this.film.width, this.film.height, by) : grey;
  }
  private get isHeld(): boolean {
    return this.shake > LEAST_SHAKE;
  }
  /** A picture as if the camera had not moved, and by how much it did. */
  steady(grey: Uint8Array): { picture: Uint8Array; by: Shift } {
    const by = this.isHeld ? this.shiftOf(grey) : UNMOVED;
    return { picture: this.back(grey, by), by };
  }
}

/** How much each element changes over the samples, above the noise. What was there once, as somebody who walks by, is not what swings: its two strongest pictures do not count. */
function energyOf(samples: readonly Uint8Array[], ground: Uint8Array, least: number): Float32Array {
  return Float32Array.from(ground, (still, p) => {
    let [sum, first, second] = [0, 0, 0];
    for (const grey of samples) {
      const d = Math.abs((grey[p] ?? 0) - still) - least;
      if (d <= 0) continue;
      sum += d;
      if (d > first) [first, second] = [d, first];
      else if (d > second) second = d;
    }
    return sum - first - second;
  });
}

/** The greys by which something must differ from the ground: more than the noise does. */
function leastDifference(samples: readonly Uint8Array[], ground: Uint8Array): number {
  const off: number[] = [];
  for (let p = 0; p < ground.length; p += 7)
    off.push(medianOfBytes(samples.map((grey) => Math.abs((grey[p] ?? 0) - (ground[p] ?? 0)))));
  return Math.max(FEWEST_GREYS, NOISES * Math.max(0.7, 1.4826 * medianOfBytes(off)));
}

/** Looks for the bar in pictures, against a ground that is found without the bar. */
class BarFinder {
  readonly region: Tracked['region'];
  /** Where the bar may be, and where nothing moves. */
  private readonly places: number[] = [];
  private readonly still: number[] = [];
  /** What the bar hides all the time, and what lies so near to where it turns. */
  private readonly hidden: Uint8Array;
  constructor(
    private readonly width: number,
    private readonly height: number,
    moving: readonly number[],
    private readonly ground: Uint8Array,
    private readonly least: number,
  ) {
    this.hidden = new Uint8Array(ground.length);
    const near = new Uint8Array(ground.length);
    // Few of the samples show the widest places: there is room round what they show.
    const room = Math.max(4, Math.round(0.05 * Math.max(width, height)));
    const region = { left: width, top: height, right: 0, bottom: 0 };
    for (const p of moving) {
      const [px, py] = [p % width, Math.floor(p / width)];
      region.left = Math.min(region.left, px);
      region.right = Math.max(region.right, px);
      region.top = Math.min(region.top, py);
      region.bottom = Math.max(region.bottom, py);
      for (let y = Math.max(0, py - room); y <= Math.min(height - 1, py + room); y++)
        near.fill(1, y * width + Math.max(0, px - room), y * width + Math.min(width - 1, px + room) + 1);
    }
    this.region = region;
    for (let p = 0; p < near.length; p++)
      if (near[p]) this.places.push(p);
      else if (p % 5 === 0) this.still.push(p);
  }

  get isCutOff(): boolean {
    const { left, top, right, bottom } = this.region;
    return left <= 0 || top <= 0 || right >= this.width - 1 || bottom >= this.height - 1;
  }

  /** The axis of what differs from the ground, near to where the bar is thought to be. */
  look(picture: Uint8Array, thought?: Bar): Bar | undefined {
    const { ground, hidden, least, width } = this;
    // A lamp that flickers, or a camera that finds its exposure, lightens all alike.
    let lighter = 0;
    for (const p of this.still) lighter += (picture[p] ?? 0) - (ground[p] ?? 0);
    lighter /= Math.max(1, this.still.length);
    const room = thought ? ROOM_ACROSS * thought.across + 2 : Infinity;
    const [dx, dy] = thought ? [Math.cos(thought.angle), Math.sin(thought.angle)] : [0, 0];
    let [w, wx, wy, wxx, wyy, wxy] = [0, 0, 0, 0, 0, 0];
    for (const p of this.places) {
      if (hidden[p]) continue;
      const d = Math.abs((picture[p] ?? 0) - (ground[p] ?? 0) - lighter) - least;
      if (d <= 0) continue;
      const x = p % width;
      const y = (p - x) / width;
      if (thought && Math.abs((y - thought.y) * dx - (x - thought.x) * dy) > room) continue;
      const weight = Math.min(1, d / least);
      w += weight;
      wx += weight * x;
      wy += weight * y;
      wxx += weight * x * x;
      wyy += weight * y * y;
      wxy += weight * x * y;
    }
    if (w < LEAST_SEEN) return undefined;
    const [x, y] = [wx / w, wy / w];
    const [xx, yy, xy] = [wxx / w - x * x, wyy / w - y * y, wxy / w - x * y];
    const half = Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
    const middle = (xx + yy) / 2;
    return {
      at: 0,
      angle: 0.5 * Math.atan2(2 * xy, xx - yy),
      x,
      y,
      along: Math.sqrt(middle + half),
      across: Math.sqrt(Math.max(0, middle - half)),
      seen: w,
    };
  }

  /**
   * Takes the ground from when the bar was elsewhere: where it is most of the time the middle value is the bar's own. What it always hides is left out.
   * @returns whether it swings so little that hardly anything of it is left
   */
  clearGround(samples: readonly Uint8Array[]): boolean {
    const { places, width, height, ground, hidden } = this;
    let isHidden = false;
    let bars = samples.map((picture) => this.look(picture));
    for (let round = 0; round < GROUND_ROUNDS; round++) {
      const seen = bars.flatMap((bar, i) => (bar ? [{ ...bar, picture: samples[i] as Uint8Array }] : []));
      if (seen.length === 0) return true;
      const across = medianOfBytes(seen.map((bar) => bar.across));
      const breadth = 2 * Math.min(across, MOST_ACROSS * Math.max(width, height)) + 1.5;
      const axes = seen.map(({ x, y, angle, picture }) => {
        const [nx, ny] = [-Math.sin(angle), Math.cos(angle)];
        return { nx, ny, from: nx * x + ny * y, picture };
      });
      for (const p of places) {
        const x = p % width;
        const y = (p - x) / width;
        const bare: number[] = [];
        for (const { nx, ny, from, picture } of axes)
          if (Math.abs(nx * x + ny * y - from) > breadth) bare.push(picture[p] ?? 0);
        hidden[p] = bare.length < FEWEST_BARE ? 1 : 0;
        if (!hidden[p]) ground[p] = medianOfBytes(bare);
      }
      isHidden = this.hideMiddle(seen);
      bars = samples.map((picture, i) => this.look(picture, bars[i]) ?? bars[i]);
    }
    return isHidden;
  }

  /** So near to where it turns the bar never leaves its place: all of that circle is left out, so that no side of the bar weighs more. */
  private hideMiddle(bars: readonly Bar[]): boolean {
    const { places, width, hidden } = this;
    const centre = crossingOf(bars);
    const distance = (p: number): number =>
      Math.hypot((p % width) - centre.x, Math.floor(p / width) - centre.y);
    const reach = Math.max(
      ...bars.map(({ x, y, along }) => Math.hypot(x - centre.x, y - centre.y) + 1.5 * along),
    );
    const hides = places.filter((p) => hidden[p] && distance(p) < reach).map(distance);
    const widest = hides.toSorted((a, b) => a - b)[Math.floor(0.98 * hides.length)] ?? 0;
    const circle = Math.min(widest, LEFT_OUT_MOST * reach);
    for (const p of places) if (distance(p) < circle) hidden[p] = 1;
    return widest >= LEFT_OUT_MOST * reach;
  }
}

/** An axis has no beginning: half a turn further is the same one, and the nearest is meant. */
function unwound(bars: readonly Bar[]): Bar[] {
  let before = bars[0]?.angle ?? 0;
  return bars.map((bar) => {
    before = bar.angle + Math.PI * Math.round((before - bar.angle) / Math.PI);
    return { ...bar, angle: before };
  });
}

/**
 * Follows the bar that swings through a film: what differs from the middle value of every picture element, as one long shape with an axis.
 * A frame that swings face first is a thin bar from the side, and one that twists on its threads is one from below.
 * @example trackBar(film).bars[0]?.angle // 1.57
 */
export function trackBar(film: Film): Tracked | { trouble: FilmTrouble } {
  const { width, height, frames } = film;
  if (frames.length < FEWEST_PICTURES) return { trouble: 'film-short' };
  const steadied = new Steadied(film);
  const { samples } = steadied;
  const ground = middleOf(samples, width * height);
  const brightness = ground.reduce((sum, v) => sum + v, 0) / ground.length;
  const unseen: FilmTrouble = brightness < DARK ? 'film-dark' : 'film-still';
  const least = leastDifference(samples, ground);
  const energy = energyOf(samples, ground, least);
  const strongest = energy.toSorted().at(-Math.ceil(energy.length / 500)) ?? 0;
  if (!(strongest > 0)) return { trouble: unseen };
  const [main, second] = partsOf(energy, width, height, LEAST_ENERGY * strongest);
  if (!main || main.places.length < LEAST_PLACES) return { trouble: unseen };
  if (second && second.places.length > LEAST_PLACES && second.energy > SECOND_SHARE * main.energy)
    return { trouble: 'film-two-move' };

  const finder = new BarFinder(width, height, main.places, ground, least);
  if (finder.isCutOff) return { trouble: 'film-cut-off' };
  const isHidden = finder.clearGround(samples);
  const bars = frames.flatMap(({ at, grey }): Bar[] => {
    const { picture, by } = steadied.steady(grey);
    // Seen in two looks: all that differs, then what is near to that axis.
    const first = finder.look(picture);
    const bar = first && finder.look(picture, first);
    return bar ? [{ ...bar, at, x: bar.x + by.x, y: bar.y + by.y }] : [];
  });
  if (isHidden) return { trouble: 'film-too-little' };
  if (bars.length < 0.7 * frames.length) return { trouble: unseen };
  const broad = medianOfBytes(bars.map(({ along, across }) => across / along));
  if (broad > BROADEST) return { trouble: 'film-wrong-side' };
  return { bars: unwound(bars), region: finder.region, shake: steadied.shake };
}
