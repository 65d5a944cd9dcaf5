import { G_CM2_PER_KG_CM2 } from '../units';

/**
 * What a body adds up to. Each entry is additive, so bodies are joined by adding and taken apart by subtracting,
 * in any order: the parallel-axes theorem is contained in the second moment about the butt.
 */
export interface MassSums {
  /** Mass, g. */
  massG: number;
  /** Σ m x, g·cm, x from the butt. */
  firstGCm: number;
  /** Σ (m x² + i_y), g·cm²: inertia about the axis parallel to y through the butt. */
  secondGCm2: number;
  /** Σ (m y² + i_x), g·cm²: inertia about the long axis. */
  twistGCm2: number;
}

export const NOTHING: MassSums = { massG: 0, firstGCm: 0, secondGCm2: 0, twistGCm2: 0 };

export const add = (a: MassSums, b: MassSums, times = 1): MassSums => ({
  massG: a.massG + times * b.massG,
  firstGCm: a.firstGCm + times * b.firstGCm,
  secondGCm2: a.secondGCm2 + times * b.secondGCm2,
  twistGCm2: a.twistGCm2 + times * b.twistGCm2,
});

export const total = (parts: readonly MassSums[]): MassSums =>
  parts.reduce((sum, part) => add(sum, part), NOTHING);

/** Inertia of the sums about the axis parallel to y at x = axisCm, kg·cm². Parallel axes: Σ m (x−a)² + i_y. */
export const swingAbout = (sums: MassSums, axisCm: number): number =>
  (sums.secondGCm2 - 2 * axisCm * sums.firstGCm + axisCm * axisCm * sums.massG) / G_CM2_PER_KG_CM2;
