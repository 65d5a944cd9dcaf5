import { sportData, type Sport } from '../sport';
import { CM_PER_INCH } from '../units';

/** What a player comes from. */
export const CAME_FROM = ['other-racket-sport', 'new'] as const;

export const PADDLE_SHAPES = ['standard', 'hybrid', 'elongated', 'extra-long', 'wide'] as const;
export type PaddleShape = (typeof PADDLE_SHAPES)[number];
export const SHAPE_FIRSTS = ['hands', 'power', 'forgiveness', 'reach'] as const;

export interface ShapeWish {
  first: (typeof SHAPE_FIRSTS)[number];
  misHits?: 'tip' | 'sides' | undefined;
  from?: (typeof CAME_FROM)[number] | undefined;
}
/** Why a shape suits: what was asked for, and what of the shape answers it. */
export interface ShapeReason {
  because: ShapeWish['first'] | 'mis-hits-tip' | 'mis-hits-sides' | 'other-racket-sport' | 'new';
  is: 'longer' | 'shorter' | 'wider' | 'usual';
}

/** Whose paddles come in these shapes. */
export const SHAPED_SPORT: Sport = 'pickleball';
/** The extremes cost more than they give, whatever is wanted (a convention). */
const EXTREME = 0.15;

/** How much each wish is served by an inch of length and of width over the standard paddle (common practice, as weights). */
const SERVED: Record<ShapeReason['because'], { length: number; width: number }> = {
  hands: { length: -1, width: 0 },
  power: { length: 1, width: 0 },
  forgiveness: { length: 0, width: 1 },
  reach: { length: 1, width: 0 },
  'mis-hits-tip': { length: 1.1, width: 0 },
  'mis-hits-sides': { length: 0, width: 1.1 },
  'other-racket-sport': { length: 0.5, width: 0 },
  new: { length: -0.5, width: 0.5 },
};

/**
 * Shapes of paddle that suit a wish, best first: shorter ones are quicker in the hand, longer ones hit harder and reach further and move the best region toward
 * the tip, wider ones forgive more to the sides. What suits less than the standard paddle is left out.
 * @example paddleShapes({ first: 'hands' })[0].shape // 'wide'
 */
export function paddleShapes({
  first,
  misHits,
  from,
}: ShapeWish): { shape: PaddleShape; reasons: ShapeReason[] }[] {
  const { shapes, lengthCm } = sportData(SHAPED_SPORT);
  const standardWidth = shapes.standard?.widthCm ?? 8 * CM_PER_INCH;
  const wishes: ShapeReason['because'][] = [
    first,
    ...(misHits ? [`mis-hits-${misHits}` as const] : []),
    ...(from ? [from] : []),
  ];
  return PADDLE_SHAPES.map((shape) => {
    const longer = ((shapes[shape]?.lengthCm ?? lengthCm) - lengthCm) / CM_PER_INCH;
    const wider = ((shapes[shape]?.widthCm ?? standardWidth) - standardWidth) / CM_PER_INCH;
    const reasons = wishes.flatMap((because): ShapeReason[] => {
      const { length, width } = SERVED[because];
      if (longer === 0 && wider === 0) return [{ because, is: 'usual' }];
      if (length * longer > 0) return [{ because, is: longer > 0 ? 'longer' : 'shorter' }];
      return width * wider > 0 ? [{ because, is: 'wider' }] : [];
    });
    const served = wishes.reduce((sum, w) => sum + SERVED[w].length * longer + SERVED[w].width * wider, 0);
    return { shape, reasons, score: served - EXTREME * longer * longer };
  })
    .filter(({ score, reasons }) => score > -1e-9 && reasons.length > 0)
    .toSorted((a, b) => b.score - a.score)
    .map(({ shape, reasons }) => ({ shape, reasons }));
}
