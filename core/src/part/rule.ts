import type { Problem } from '../fault';
import type { Path } from '../sport';

/** What is dangerous about handling something; the sentences stand in the page's words. */
export const CAUTIONS = ['lead', 'blade', 'solvent'] as const;
export type Caution = (typeof CAUTIONS)[number];

/** How a piece lies: along its line, filling the handle, wound around it, or at one point. */
export type Lie = 'strip' | 'column' | 'wrap' | 'point';

/** The bench step in which a piece is put on for good. */
export type Fixing = 'fix-head' | 'fill-handle' | 'wrap-handle' | 'set-in';

/** How much of a part: whole pieces, the length of each along its line (0 for a point), and layers on one another. */
export interface Amount {
  massG: number;
  spanCm: number;
  layers: number;
}

/** What a place takes. */
export interface Room {
  /** The most of it, both sides together, g. */
  capG: number;
  /** The longest piece on one side, cm. */
  roomCm: number;
  sides: 1 | 2;
  /** On which line; only what lies otherwise in the handle asks for it. */
  path?: Path | undefined;
}

/** All that is particular to a kind of part. */
export interface PartRule<P> {
  /** Where pieces of it may lie. */
  paths: readonly Path[];
  lie: Lie;
  fixing: Fixing;
  /** What of it lies lengthwise on the handle, under the grip: so many strips beside one another, which together lie as a wrap does. */
  onHandle?: { strips: number };
  /** Every amount in whole pieces that the room takes, lightest first. */
  amounts: (part: P, room: Room) => Amount[];
  /** One piece more or less; undefined where nothing is left. */
  step: (part: P, now: Amount, by: 1 | -1, sides: 1 | 2) => Amount | undefined;
  /** Standard uncertainty of so many grams of it, g. */
  massUncertaintyG: (part: P, massG: number) => number;
  /** That uncertainty is of the roll or the tub: one error that all pieces of it share. Else each piece has its own. */
  shared: boolean;
  /** Cut to length by hand: each piece a little long or short. */
  cut: boolean;
  cautions: (part: P) => readonly Caution[];
  /** What of it is put on the scale to know its own weight: so many cm, or one piece; left out where it has none of its own. */
  sample?: { field: 'gPerCm'; cm: number } | { field: 'massG'; cm?: undefined };
  /** What cannot be of what is said of the part. */
  problems?: (part: P) => Problem[];
  /** Waiting after it is put in and before anything goes over it, minutes. */
  waitMinutes?: (part: P) => number;
}

const EPS = 1e-9;

/** Pieces cut from a roll in whole steps of length, laid in equal layers where the room is short. */
export const cutToLength = <P extends { gPerCm: number; stepCm: number }>(): Pick<
  PartRule<P>,
  'amounts' | 'step'
> => ({
  amounts({ gPerCm, stepCm }, { capG, roomCm, sides }) {
    const longest = Math.floor(roomCm / stepCm + EPS);
    const found: Amount[] = [];
    if (longest === 0) return found;
    // Longer than there is room for: another layer of equal length on top, so lengths stay whole steps.
    for (let layers = 1, steps = 1; ; steps++) {
      if (steps > longest) {
        steps = Math.floor((longest * layers) / (layers + 1)) + 1;
        layers++;
      }
      const spanCm = steps * stepCm;
      const massG = sides * layers * gPerCm * spanCm;
      if (massG > capG + EPS) return found;
      found.push({ massG, spanCm, layers });
    }
  },
  step({ gPerCm, stepCm }, { spanCm, layers }, by, sides) {
    const span = spanCm + by * stepCm;
    return span < stepCm / 2 ? undefined : { massG: sides * layers * gPerCm * span, spanCm: span, layers };
  },
});

/** Strips beside one another around the handle, all of one length, in whole steps of it: none lies on another. */
export function besideOneAnother(
  { gPerCm, stepCm }: { gPerCm: number; stepCm: number },
  strips: number,
  { capG, roomCm }: Room,
): Amount[] {
  const most = Math.min(capG / (strips * gPerCm), roomCm);
  return Array.from({ length: Math.max(0, Math.floor(most / stepCm + EPS)) }, (_, i) => {
    const spanCm = (i + 1) * stepCm;
    return { massG: strips * gPerCm * spanCm, spanCm, layers: strips };
  });
}

/** Pieces that weigh so much each; several of them lie along their line at `gPerCm`, or all at one point. */
const counted = (pieceG: number, gPerCm: number | undefined, count: number, sides: 1 | 2): Amount => {
  const massG = sides * count * pieceG;
  return { massG, spanCm: gPerCm === undefined ? 0 : massG / gPerCm, layers: 1 };
};

/** @param of the grams of one piece, and how they lie: g per cm, or at a point */
export const byThePiece = <P>(
  of: (part: P) => { pieceG: number; gPerCm?: number },
): Pick<PartRule<P>, 'amounts' | 'step'> => ({
  amounts(part, { capG, roomCm, sides }) {
    const { pieceG, gPerCm } = of(part);
    const most = Math.min(capG, gPerCm === undefined ? Infinity : roomCm * gPerCm);
    const count = Math.floor(most / (sides * pieceG) + EPS);
    return Array.from({ length: count }, (_, i) => counted(pieceG, gPerCm, i + 1, sides));
  },
  step(part, { massG }, by, sides) {
    const { pieceG, gPerCm } = of(part);
    const count = Math.round(massG / (sides * pieceG)) + by;
    return count < 1 ? undefined : counted(pieceG, gPerCm, count, sides);
  },
});

/** One of it is put on, or none. */
export const oneOfIt = <P extends { massG: number }>(
  spanCm: (roomCm: number) => number,
): Pick<PartRule<P>, 'amounts' | 'step'> => ({
  amounts: ({ massG }, { capG, roomCm, sides }) =>
    sides * massG > capG + EPS ? [] : [{ massG: sides * massG, spanCm: spanCm(roomCm), layers: 1 }],
  step: (_, now, by) => (by < 0 ? undefined : now),
});

/** The usual uncertainty of what is sold by length, as a share of its mass (physics.md; from memory). */
export const DENSITY_SHARE = 0.04;
