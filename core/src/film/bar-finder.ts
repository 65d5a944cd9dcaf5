import { medianOf } from './pictures';

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

/** What is further from the axis than so many times the bar's own spread is not the bar. */
const ROOM_ACROSS = 3.5;
/** So few elements show no axis. */
const LEAST_SEEN = 15;
/** How often the ground is taken anew, with the bar found better each time; and how many pictures must show it bare. */
const GROUND_ROUNDS = 4;
const FEWEST_BARE = 4;
/** Of its reach at most so much is left out. */
const LEFT_OUT_MOST = 0.7;
/** No bar is broader than this share of the picture: what seems so is the ground taken for it. */
const MOST_ACROSS = 0.02;

/** Looks for the bar in pictures, against a ground that is found without the bar. */
export class BarFinder {
  /** Whether what moves reaches the edge of the picture. */
  readonly isCutOff: boolean;
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
    this.isCutOff =
      region.left <= 0 || region.top <= 0 || region.right >= width - 1 || region.bottom >= height - 1;
    for (let p = 0; p < near.length; p++)
      if (near[p]) this.places.push(p);
      else if (p % 5 === 0) this.still.push(p);
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
      const across = medianOf(seen.map((bar) => bar.across));
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
        if (!hidden[p]) ground[p] = medianOf(bare);
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
