/** A tape of the shop: goes along the hoop or a limb, cut to whole steps of length. */
export interface Tape {
  name: string;
  material: 'lead' | 'tungsten';
  widthMm: number;
  gPerCm: number;
  /** Pieces are cut to whole multiples of this length, cm. */
  stepCm: number;
}

/** Putty or silicone for the handle: whole dabs. */
export interface Filling {
  name: string;
  material: 'putty' | 'silicone';
  dabG: number;
  gPerCm: number;
}

/** What the plan may use. Without it, every zone takes point-like pieces of one quantum. */
export interface Materials {
  tape: Tape;
  filling: Filling;
}

/** Standard uncertainty of a tape's density as a share, and of where a piece ends up (physics.md; from memory). */
export const DENSITY_SHARE = 0.04;
export const PLACING_CM = 0.4;
