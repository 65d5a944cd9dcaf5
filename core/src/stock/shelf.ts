import { bringTo, stepDistance, type StepDistance } from '../compare';
import type { FrameShape } from '../frame';
import type { AxisSpecs, Specs } from '../mass';
import type { KnownSpecs } from '../spec';
import { sportData, type Dress, type Sport } from '../sport';

/** A measured frame on the shelf. */
export interface ShelfFrame {
  id: string;
  shape: FrameShape;
  /** What was on it when it was measured. */
  dress: Dress;
  specs: Specs;
}
/** What frames are ranked against: the player's own frame, or an aim, in a dress. */
export interface Wanted {
  sport: Sport;
  dress: Dress;
  axisCm: number;
  specs: KnownSpecs;
}
/** A shelf frame in the dress that is wanted, with how far it is. */
export type RankedFrame = { id: string; specs: KnownSpecs } & StepDistance;

/** A shelf frame brought to a dress and an axis. */
const dressed = ({ shape, dress, specs }: ShelfFrame, to: Dress, axisCm: number): KnownSpecs =>
  bringTo({ shape, dress, specs, sourceKind: 'measured' }, to, axisCm).specs;

/**
 * Shelf frames in order of how near each is to what is wanted, in one dress: strings and grips are allowed for. Frames of another sport are left out.
 * @example rankShelf({ sport: 'tennis', dress: own.dress, axisCm: 10.16, specs: own.specs }, shelf)[0].id
 */
export function rankShelf(wanted: Wanted, shelf: readonly ShelfFrame[]): RankedFrame[] {
  const sport = sportData(wanted.sport);
  return shelf
    .filter(({ shape }) => shape.sport === wanted.sport)
    .map((frame) => {
      const specs = dressed(frame, wanted.dress, wanted.axisCm);
      return { id: frame.id, specs, ...stepDistance(wanted.specs, specs, sport, wanted.specs.swingWeight) };
    })
    .toSorted((a, b) => a.distanceSteps - b.distanceSteps);
}

export interface Pair {
  ids: [string, string];
  /** How far the two are from one another, and on the mean from what is wanted, in noticeable steps. */
  betweenSteps: number;
  awaySteps: number;
}
/** Of so many nearest frames pairs are made: further ones make no better pair. */
const PAIRED = 60;

/**
 * Pairs of shelf frames, best first: alike, and near to what is wanted; the sum of both distances decides.
 * @param ranked as {@link rankShelf} gives them
 * @example bestPairs('tennis', rankShelf(wanted, shelf))[0].ids
 */
export function bestPairs(sport: Sport, ranked: readonly RankedFrame[], most = 5): Pair[] {
  const data = sportData(sport);
  const near = ranked.slice(0, PAIRED);
  return near
    .flatMap((a, i) =>
      near.slice(i + 1).map((b): Pair => ({
        ids: [a.id, b.id],
        betweenSteps: stepDistance(a.specs, b.specs, data).distanceSteps,
        awaySteps: (a.distanceSteps + b.distanceSteps) / 2,
      })),
    )
    .toSorted((a, b) => a.betweenSteps + a.awaySteps - (b.betweenSteps + b.awaySteps))
    .slice(0, most);
}

/** Frames of a set in one dress and about one axis, as {@link planSet} takes them; one that is not fully known is left out. */
export const inOneDress = (
  frames: readonly ShelfFrame[],
  dress: Dress,
  axisCm: number,
): { id: string; shape: FrameShape; specs: AxisSpecs }[] =>
  frames.flatMap((frame) => {
    const { massG, balanceCm, swingWeight, ...twist } = dressed(frame, dress, axisCm);
    if (massG === undefined || balanceCm === undefined || swingWeight === undefined) return [];
    return [{ id: frame.id, shape: frame.shape, specs: { massG, balanceCm, swingWeight, ...twist, axisCm } }];
  });
