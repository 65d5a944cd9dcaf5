import { dressChange, signedParts, type Dress } from '../dress';
import type { Frame } from '../frame';
import { swingAbout, total } from '../mass';

export const GUIDES = [
  'junior-26',
  'first-full',
  'average-adult',
  'strong-adult',
  'advanced',
  'very-strong',
] as const;
export type GuideName = (typeof GUIDES)[number];

/** A band of specs that suits a kind of player. Swing weight strung, kg·cm²; weight unstrung, g. Common practice. */
export interface Guide {
  swingWeight: readonly [number, number];
  unstrungG: readonly [number, number];
}

export const TENNIS_GUIDES: Record<GuideName, Guide> = {
  'junior-26': { swingWeight: [245, 278], unstrungG: [225, 255] },
  'first-full': { swingWeight: [270, 300], unstrungG: [250, 275] },
  'average-adult': { swingWeight: [290, 315], unstrungG: [270, 295] },
  'strong-adult': { swingWeight: [308, 330], unstrungG: [285, 308] },
  advanced: { swingWeight: [318, 340], unstrungG: [295, 318] },
  'very-strong': { swingWeight: [330, 360], unstrungG: [310, 340] },
};

const UNSTRUNG: Dress = { baseGrip: 'synthetic' };
const STRUNG: Dress = { ...UNSTRUNG, strings: true };

/**
 * A guide's bands brought to the dress of the frame in hand: weight from unstrung with a base grip, swing weight from strung.
 * @example guideBands(frame, 'advanced', { baseGrip: 'synthetic', strings: true }).swingWeight // [318, 340]
 */
export function guideBands(
  frame: Frame,
  name: GuideName,
  dress: Dress,
): { massG: [number, number]; swingWeight: [number, number] } {
  const guide = TENNIS_GUIDES[name];
  const from = (start: Dress) =>
    total(signedParts(dressChange(frame, start, dress)).map((part) => part.sums));
  const moreG = from(UNSTRUNG).massG;
  const moreSwing = swingAbout(from(STRUNG), frame.sport.axisCm);
  return {
    massG: [guide.unstrungG[0] + moreG, guide.unstrungG[1] + moreG],
    swingWeight: [guide.swingWeight[0] + moreSwing, guide.swingWeight[1] + moreSwing],
  };
}
