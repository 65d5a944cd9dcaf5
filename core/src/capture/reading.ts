import { RATING_KEYS, SPEC_KEYS, type AnySpecKey } from '../spec';
import { Fault } from '../fault';
import { parted } from '../measure';
import type { SportData } from '../sport';

/** What is captured of a frame: its specs, and the difference between its two sides. */
export type Quantity = AnySpecKey | 'leftRightG';
export const QUANTITIES: readonly Quantity[] = [...SPEC_KEYS, 'leftRightG', ...RATING_KEYS];

/** What is captured in a sport: a rating only where the sport knows it. @example quantitiesOf(sportData('padel')).includes('stiffness') // false */
export const quantitiesOf = ({ typicalReading }: Pick<SportData, 'typicalReading'>): Quantity[] =>
  QUANTITIES.filter((quantity) => quantity === 'leftRightG' || typicalReading[quantity] !== undefined);

/**
 * How a reading came about. `edge-on`: the swing weight with the face turned by 90°, from which the twist weight follows.
 * `filmed-swing` and `filmed-twist`: a pendulum and two threads, timed by a film of it. `estimate`: not measured at all.
 */
export const MEANS = [
  'instrument',
  'typed',
  'edge-on',
  'pendulum',
  'threads',
  'filmed-swing',
  'filmed-twist',
  'estimate',
] as const;
export type Means = (typeof MEANS)[number];

/** A pendulum as it was set up and timed; weight and balance come from the capture itself. */
export interface PendulumSetting {
  pivotCm: number;
  swings: number;
  seconds: number;
  amplitudeDeg: number;
  endAmplitudeDeg?: number | undefined;
}

/** Two threads as they were set up and timed; the weight comes from the capture itself. */
export interface ThreadsSetting {
  threadCm: number;
  separationCm: number;
  swings: number;
  seconds: number;
  amplitudeDeg?: number | undefined;
  endAmplitudeDeg?: number | undefined;
}

/** One reading of a quantity. */
export interface Reading {
  id: string;
  quantity: Quantity;
  means: Means;
  /** In the quantity's own unit (left/right in g), corrected by the calibration; a timing has none. */
  value?: number;
  /** The axis of a swing weight, face-on or edge-on; the sport's own if left out. */
  axisCm?: number;
  /** Standard uncertainty of one reading that repeats make smaller. */
  random: number;
  /** Standard uncertainty that all readings from this source share: repeats do not make it smaller. */
  common: number;
  /** Relative standard uncertainty of the source's scale; what is left of `common` in the difference of two readings of one machine. */
  scale?: number;
  /** Where it comes from: the same for readings that share `common`. */
  source: string;
  timing?: PendulumSetting | ThreadsSetting;
  setAside: boolean;
}

/** Left/right typed, standard uncertainty in g (from memory); the specs are as the sport's typical readings. */
const TYPED_LEFT_RIGHT_G = 0.3;
/** A typed value as a reading, with what it is uncertain by. Edge-on it is a swing weight; one about another axis than the sport's says so. @example typedReading(tennis, 'massG', 327).random // 0.18 */
export function typedReading(
  { typicalReading }: SportData,
  quantity: Quantity,
  value: number,
  means: 'typed' | 'edge-on' = 'typed',
  axisCm?: number,
): Omit<Reading, 'id' | 'setAside'> {
  const read = means === 'edge-on' ? 'swingWeight' : quantity;
  const u = read === 'leftRightG' ? TYPED_LEFT_RIGHT_G : typicalReading[read];
  if (u === undefined) throw new Fault({ code: 'not-of-this-sport', path: 'quantity' });
  // Of the instrument behind it nobody knows more.
  const about = read === 'swingWeight' && axisCm !== undefined ? { axisCm } : {};
  return { quantity, means, value, ...about, ...parted(u), source: 'typed' };
}
