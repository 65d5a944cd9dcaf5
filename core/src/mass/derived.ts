import type { KnownSpecs, SpecKey } from '../spec';
import { G_CM2_PER_KG_CM2, STANDARD_GRAVITY, pointsHeadLight } from '../units';

/** What is put into a derived number. */
export interface DerivedInput {
  massG: number;
  balanceCm: number;
  swingWeight: number;
  /** Axis of the swing weight, cm from the butt. */
  axisCm: number;
  /** The frame's own length, cm. */
  lengthCm: number;
}
export type DerivedPut = keyof DerivedInput;

export const DERIVED_KEYS = ['recoilWeight', 'pointsHeadLight', 'naturalSwing', 'percussionCm'] as const;
/** What follows from the four specs. */
export type DerivedKey = (typeof DERIVED_KEYS)[number];
export type Derived = Record<DerivedKey, number>;

/** Any number of a frame: one of the four specs, or one that follows from them. */
export type NumberKey = SpecKey | DerivedKey;

/** A derived number as one entry: its equation, what is put in, and the function of exactly that. */
export interface DerivedNumber {
  symbol: string;
  equation: string;
  source: string;
  unit: string;
  digits: number;
  puts: readonly DerivedPut[];
  of: (put: DerivedInput) => number;
}

/**
 * Recoil weight R = S(a) − M (B − a)²/1000, kg·cm²: inertia about the balance point (parallel axes).
 * @example recoilWeight({ massG: 336, balanceCm: 32.4, swingWeight: 339, axisCm: 10.16 }) // 172.8…
 */
export const recoilWeight = ({
  swingWeight,
  massG,
  balanceCm,
  axisCm,
}: Omit<DerivedInput, 'lengthCm'>): number =>
  swingWeight - (massG * (balanceCm - axisCm) ** 2) / G_CM2_PER_KG_CM2;

const PARALLEL_AXES = 'parallel-axes theorem (handbook mechanics)';

/** Every derived number; a new one is one entry here and one row of words. */
export const DERIVED: Record<DerivedKey, DerivedNumber> = {
  recoilWeight: {
    symbol: 'R',
    equation: 'R = S − M·(B − a)² / 1000',
    source: PARALLEL_AXES,
    unit: 'kg·cm²',
    digits: 1,
    puts: ['swingWeight', 'massG', 'balanceCm', 'axisCm'],
    of: recoilWeight,
  },
  pointsHeadLight: {
    symbol: 'p',
    equation: 'p = (L/2 − B) / 0.3175',
    source: 'common practice: one point is 1/8 in from the middle of the frame’s length',
    unit: 'points head-light',
    digits: 1,
    puts: ['balanceCm', 'lengthCm'],
    of: ({ balanceCm, lengthCm }) => pointsHeadLight(balanceCm, lengthCm),
  },
  naturalSwing: {
    symbol: 'n',
    equation: 'n = g·M·B / S(0), S(0) = S − M·(B − a)² / 1000 + M·B² / 1000',
    source: 'physical pendulum (handbook mechanics); g = 980.665 cm/s², exact',
    unit: 's⁻²',
    digits: 2,
    puts: ['massG', 'balanceCm', 'swingWeight', 'axisCm'],
    of: ({ massG, balanceCm, swingWeight, axisCm }) => {
      const aboutButt =
        swingWeight + (massG * (balanceCm ** 2 - (balanceCm - axisCm) ** 2)) / G_CM2_PER_KG_CM2;
      return ((STANDARD_GRAVITY * massG) / G_CM2_PER_KG_CM2) * (balanceCm / aboutButt);
    },
  },
  percussionCm: {
    symbol: 'x',
    equation: 'x = a + 1000·S / (M·(B − a))',
    source: 'centre of percussion (handbook mechanics)',
    unit: 'cm',
    digits: 1,
    puts: ['axisCm', 'swingWeight', 'massG', 'balanceCm'],
    of: ({ axisCm, swingWeight, massG, balanceCm }) =>
      axisCm + (G_CM2_PER_KG_CM2 * swingWeight) / (massG * (balanceCm - axisCm)),
  },
};

/**
 * A derived number of a frame; undefined where a spec that goes into it is not known.
 * @param known g, cm, kg·cm² @param axisCm of the swing weight @param lengthCm the frame's own
 * @example derivedOf('recoilWeight', { massG: 336, balanceCm: 32.4, swingWeight: 339 }, 10.16, 68.58) // 172.8…
 */
export function derivedOf(
  key: DerivedKey,
  known: KnownSpecs,
  axisCm: number,
  lengthCm: number,
): number | undefined {
  const put: Partial<DerivedInput> = { ...known, axisCm, lengthCm };
  const { puts, of } = DERIVED[key];
  return puts.every((name) => put[name] !== undefined) ? of(put as DerivedInput) : undefined;
}

/** Whether a number is one of the four specs. */
export const isSpec = (key: NumberKey): key is SpecKey => !(key in DERIVED);
