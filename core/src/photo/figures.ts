import type { OutlinePoint } from '../frame';
import { backFrom, cameraOf, eachMoved, middleOf, seenAt, seenBy, type Spot2 } from './projection';
import { SHEETS, areaOf } from './sheet';
import type { Taken } from './taken';

/** Points of a frame in its photo, picture elements: its ends, and its two sides from the tip to the bottom of the head. */
export interface Marked {
  butt: Spot2;
  tip: Spot2;
  sides: readonly [readonly Spot2[], readonly Spot2[]];
}
export interface Figure {
  value: number;
  /** One standard uncertainty. */
  uncertainty: number;
}
/** What an outline comes to, cm and cm²: the whole frame’s length, the head’s width at its widest, and the area within the outer edge and within the hoop. */
export interface OutlineFigures {
  length: Figure;
  headLength: Figure;
  width: Figure;
  whole: Figure;
  bed: Figure;
}

/** Office paper is cut nearer than ISO 216 asks (2 mm): half of a rectangle of 0.6 mm, cm (from memory). */
const SHEET_SD_CM = 0.06 / Math.sqrt(3);
/** What is left of a lens’s bending of straight lines once a phone has taken it out, as a share of a length; more at the ends of a long thing, so that a known length does not take it out (from memory). */
const LENS_SHARE = 0.0012;
/** The edge of a thick round hoop lies anywhere from its foot to its top: of its thickness. */
const HEIGHT_SHARE = 0.25;
/** Where one edge is seen, cm (from drawn photos; bumpers, tape and grommets included from memory). */
const EDGE_CM = 0.025;
/** How well the hoop’s width is known, cm, where it was seen or typed (it is not as wide all round), and where it is only what is usual (from memory). */
const HOOP_SD_CM = { seen: 0.04, usual: 0.15 };
/** How well a length is known that somebody measured, cm, and where the head ends that was not seen (from memory). */
const TAPE_SD_CM = 0.05;
const UNSEEN_END_CM = 0.8;
/** What stays of the area where the lower end of the head is hidden behind the throat, as shares: seen, and not. */
const HIDDEN_SHARE = { seen: 0.0025, unseen: 0.02 };

interface Plain {
  length: number;
  headLength: number;
  width: number;
  whole: number;
  round: number;
}

function plainOf(
  taken: Taken,
  focalPx: number,
  heightCm: number,
  [longer, shorter]: readonly [number, number],
  { butt, tip, sides }: Marked,
): Plain {
  const camera = cameraOf(seenBy(taken.corners, longer, shorter), middleOf(taken), focalPx);
  const back = backFrom(camera.above(heightCm));
  const [b, t] = [seenAt(back, butt), seenAt(back, tip)];
  const length = Math.hypot(t.x - b.x, t.y - b.y);
  const [dx, dy] = [(t.x - b.x) / length, (t.y - b.y) / length];
  const [left, right] = sides.map((side) => side.map((p) => seenAt(back, p))) as [Spot2[], Spot2[]];
  const across = (p: Spot2): number => (p.y - b.y) * dx - (p.x - b.x) * dy;
  const along = (p: Spot2): number => (p.x - b.x) * dx + (p.y - b.y) * dy;
  const widths = left.map((p, i) => Math.abs(across(p) - across(right[i] ?? p)));
  const ring = [...left, ...right.toReversed()];
  const round = ring.reduce((sum, p, i) => {
    const q = ring[(i + 1) % ring.length] as Spot2;
    return sum + Math.hypot(q.x - p.x, q.y - p.y);
  }, 0);
  const lowest = [left.at(-1), right.at(-1)].map((p) => (p ? along(p) : 0));
  return {
    length,
    headLength: length - ((lowest[0] ?? 0) + (lowest[1] ?? 0)) / 2,
    width: Math.max(...widths),
    whole: areaOf(ring),
    round,
  };
}

/**
 * What an outline comes to, with what all that is not quite known does to it: the corners, the lens, how high the edge lies, the cut of the paper, where each edge is
 * seen. Each is moved in turn by its standard uncertainty and the changes are added as squares (JCGM 100:2008, 5.1).
 * @param points the outline as it is stored, which the values are of @param knownLengthCm where the frame's length was measured otherwise: all is scaled to it
 */
export function outlineFigures(
  taken: Taken,
  marked: Marked,
  of: {
    points: readonly OutlinePoint[];
    lengthCm: number;
    wholeCm2: number;
    bedCm2: number;
    bottomSeen: boolean;
    hoopSeen: boolean;
  },
  knownLengthCm?: number,
): OutlineFigures {
  const size = SHEETS[taken.sheet];
  const heightCm = taken.thicknessCm / 2;
  const { px, sdPx } = taken.focal;
  const scaled = (plain: Plain): Plain => {
    if (knownLengthCm === undefined) return plain;
    const s = knownLengthCm / plain.length;
    return {
      length: knownLengthCm,
      headLength: s * plain.headLength,
      width: s * plain.width,
      whole: s * s * plain.whole,
      round: s * plain.round,
    };
  };
  const at = (change: {
    taken?: Taken;
    focal?: number;
    height?: number;
    size?: readonly [number, number];
  }): Plain =>
    scaled(
      plainOf(
        change.taken ?? taken,
        change.focal ?? px,
        change.height ?? heightCm,
        change.size ?? size,
        marked,
      ),
    );
  const base = at({});
  const moved = [
    ...eachMoved(taken.corners, taken.cornerSd).map((corners) => at({ taken: { ...taken, corners } })),
    at({ focal: px + sdPx }),
    at({ height: heightCm + HEIGHT_SHARE * taken.thicknessCm }),
    at({ size: [size[0] + SHEET_SD_CM, size[1]] }),
    at({ size: [size[0], size[1] + SHEET_SD_CM] }),
  ];
  const spread = (key: keyof Plain, ...more: number[]): number =>
    Math.hypot(...moved.map((plain) => plain[key] - base[key]), ...more);
  const bothEdges = Math.SQRT2 * EDGE_CM;
  const hidden = HIDDEN_SHARE[of.bottomSeen ? 'seen' : 'unseen'];
  const width = 2 * Math.max(...of.points.map(([, half]) => half));
  const headLength = of.points.at(-1)?.[0] ?? 0;
  const wholeSd = spread('whole', 2 * LENS_SHARE * of.wholeCm2, base.round * EDGE_CM, hidden * of.wholeCm2);
  return {
    length: {
      value: of.lengthCm,
      uncertainty:
        knownLengthCm === undefined ? spread('length', LENS_SHARE * of.lengthCm, bothEdges) : TAPE_SD_CM,
    },
    headLength: {
      value: headLength,
      uncertainty: spread(
        'headLength',
        LENS_SHARE * headLength,
        bothEdges,
        of.bottomSeen ? 0 : UNSEEN_END_CM,
      ),
    },
    width: { value: width, uncertainty: spread('width', LENS_SHARE * width, bothEdges) },
    whole: { value: of.wholeCm2, uncertainty: wholeSd },
    bed: {
      value: of.bedCm2,
      uncertainty: Math.hypot(wholeSd, base.round * HOOP_SD_CM[of.hoopSeen ? 'seen' : 'usual']),
    },
  };
}
