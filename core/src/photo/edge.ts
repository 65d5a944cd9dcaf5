import { seenAt, type Seen, type Spot2 } from './projection';
import { lightAt, type Photo } from './sheet';
import { differs, type Table } from './table';

/** How far to either side of where the squares end the edge is looked for, and in what steps, cm. */
const LOOKED_CM = 0.8;
const STEP_CM = 0.02;
/** Beside one another so many rows are taken together, this far apart, cm. */
const BESIDE = [-0.12, 0, 0.12];
/** An edge is at least such a step of colour, of 255; and this share of the sharpest one near it. */
const LEAST_SHARP = 14;
const LEAST_SHARE = 0.1;
/** So far within an edge its colour is looked at, cm. */
const WITHIN_CM = 0.15;

/**
 * The edge along a way outward, cm from its start, to a fraction of a picture element: the outermost where the table or its shade gives way to something else. Paint has
 * edges further in, and shade has some further out.
 * @param seen how the plane of the frame is seen
 */
export function edgeAlong(
  photo: Photo,
  seen: Seen,
  table: Table,
  from: Spot2,
  way: Spot2,
): number | undefined {
  const count = Math.round((2 * LOOKED_CM) / STEP_CM) + 1;
  const rows = [0, 1, 2].map(() => new Float64Array(count));
  for (const beside of BESIDE)
    for (let i = 0; i < count; i++) {
      const out = i * STEP_CM - LOOKED_CM;
      const at = seenAt(seen, {
        x: from.x + out * way.x - beside * way.y,
        y: from.y + out * way.y + beside * way.x,
      });
      rows.forEach((row, channel) => {
        row[i] = (row[i] ?? 0) + lightAt(photo, at.x, at.y, channel) / BESIDE.length;
      });
    }
  // A step over about two millimetres, weighed toward its middle.
  const steps = Float64Array.from({ length: count }, (_, i) => {
    const changes = rows.map((row) => {
      let change = 0;
      for (let k = 1; k <= 4; k++)
        change += (row[Math.min(count - 1, i + k)] ?? 0) - (row[Math.max(0, i - k)] ?? 0);
      return change / 4;
    });
    return Math.hypot(...changes);
  });
  const sharpest = Math.max(...steps);
  const least = Math.max(LEAST_SHARP, LEAST_SHARE * sharpest);
  if (sharpest < least) return undefined;
  let most: number | undefined;
  for (let i = count - 2; i > 0; i--) {
    const [l, m, r] = [steps[i - 1] ?? 0, steps[i] ?? 0, steps[i + 1] ?? 0];
    if (m < least || m < l || m < r) continue;
    const inner = Math.max(0, i - Math.round(WITHIN_CM / STEP_CM));
    const out = inner * STEP_CM - LOOKED_CM;
    const bare = table.ground(from.x + out * way.x, from.y + out * way.y);
    const isFrame = differs(
      rows.map((row) => row[inner] ?? 0),
      bare,
      table.scatter,
    );
    if (isFrame) return humpAt(steps, i) * STEP_CM - LOOKED_CM;
    if (m === sharpest) most = i;
  }
  // Paint that cannot be told from shade still has the sharpest edge.
  return most === undefined ? undefined : humpAt(steps, most) * STEP_CM - LOOKED_CM;
}

/** The middle of a whole hump, which noise moves less than its top. */
function humpAt(steps: Float64Array, top: number): number {
  const least = 0.6 * (steps[top] ?? 0);
  let [w, sum] = [0, 0];
  const take = (k: number): boolean => {
    const step = steps[k] ?? 0;
    if (step <= least || Math.abs(k - top) > 8) return false;
    w += step;
    sum += step * k;
    return true;
  };
  for (let k = top; k >= 0 && take(k); k--);
  for (let k = top + 1; k < steps.length && take(k); k++);
  return sum / w;
}
