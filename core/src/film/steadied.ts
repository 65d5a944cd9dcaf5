import { evenly, medianOf, middleOf, type Film } from './pictures';

interface Shift {
  x: number;
  y: number;
}
const UNMOVED: Shift = { x: 0, y: 0 };

const SAMPLED = 41;
/** A tripod shakes less than this, picture elements. */
const LEAST_SHAKE = 0.3;
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
      const scale = Math.max(2, 3 * medianOf(residuals.map(Math.abs)));
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

/** A camera that is held moves the whole picture: it is moved back, where the wall behind shows by how much. */
export class Steadied {
  /** Some pictures over the whole film. */
  readonly samples: Uint8Array[];
  /** Whether a hand holds it. */
  private readonly isHeld: boolean;
  private readonly shifts: Shifts;
  constructor(private readonly film: Film) {
    const { width, height, frames } = film;
    const few = evenly(frames, SAMPLED).map(({ grey }) => grey);
    this.shifts = new Shifts(middleOf(evenly(few, 9), width * height), width, height);
    const moved = few.map((grey) => this.shiftOf(grey));
    this.isHeld = moved.some(({ x, y }) => Math.hypot(x, y) > LEAST_SHAKE);
    this.samples = few.map((grey, i) => this.back(grey, moved[i] ?? UNMOVED));
  }
  private shiftOf(grey: Uint8Array): Shift {
    return this.shifts.isMarked ? this.shifts.of(grey) : UNMOVED;
  }
  private back(grey: Uint8Array, by: Shift): Uint8Array {
    return this.isHeld ? shifted(grey, this.film.width, this.film.height, by) : grey;
  }
  /** A picture as if the camera had not moved, and by how much it did. */
  steady(grey: Uint8Array): { picture: Uint8Array; by: Shift } {
    const by = this.isHeld ? this.shiftOf(grey) : UNMOVED;
    return { picture: this.back(grey, by), by };
  }
}
