import { dressParts } from '../dress';
import { settleFrame, type FrameShape } from '../frame';
import { swingAbout, total, type MassSums } from '../mass';
import { sportData, type Dress } from '../sport';
import { G_CM2_PER_KG_CM2 } from '../units';
import type { SetupReport } from './setup';

/** What a setup is without anything on it, as far as its values allow; what a dress adds to it depends on its shape alone. */
export interface BareSums {
  massG?: number;
  /** Weight times balance, g·cm; only where both are known. */
  momentGCm?: number;
  /** Swing weight of the bare frame about `axisCm`, kg·cm². */
  swingWeight?: number;
  twistWeight?: number;
  /** About which its swing weight is said: its own axis, or the sport's. */
  axisCm: number;
}

/** Sums of all that a dress puts on a frame of a shape. @example dressSums({ sport: 'tennis', lengthCm: 68.58 }, { strings: true }).massG // 16 */
export const dressSums = (shape: FrameShape, dress: Dress): MassSums =>
  total(dressParts(settleFrame(shape), dress).map(({ sums }) => sums));

/**
 * The sums of a setup's bare frame: each reported value less what its dress adds. Sums add up (parallel axes), so that the setup in any other dress is these
 * and the sums of that dress; no value is worked out from another that is missing.
 * @param on what its dress adds; worked out anew if left out
 * @example bareOf({ shape, dress: { overgrips: 1 }, specs: { massG: 330 } }).massG // 324.5
 */
export function bareOf(
  { shape, dress, specs }: SetupReport,
  on: MassSums = dressSums(shape, dress),
): BareSums {
  const axisCm = specs.axisCm ?? sportData(shape.sport).axisCm;
  const { massG, balanceCm, swingWeight, twistWeight } = specs;
  return {
    axisCm,
    ...(massG === undefined ? {} : { massG: massG - on.massG }),
    ...(massG === undefined || balanceCm === undefined ? {} : { momentGCm: massG * balanceCm - on.firstGCm }),
    ...(swingWeight === undefined ? {} : { swingWeight: swingWeight - swingAbout(on, axisCm) }),
    ...(twistWeight === undefined ? {} : { twistWeight: twistWeight - on.twistGCm2 / G_CM2_PER_KG_CM2 }),
  };
}
