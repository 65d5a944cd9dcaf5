/** Exact conversions (NIST SP 811, appendix B). */
export const CM_PER_INCH = 2.54;
export const G_PER_OUNCE = 28.349523125;
export const G_PER_GRAIN = 0.06479891;
export const G_PER_POUND = 453.59237;
export const KG_PER_POUND = G_PER_POUND / 1000;

/** Standard gravity in cm/s², exact (NIST SP 811). */
export const STANDARD_GRAVITY = 980.665;

/** 1 kg·cm² in g·cm². */
export const G_CM2_PER_KG_CM2 = 1000;

/** One point of balance: an eighth of an inch, in cm (common practice). */
export const CM_PER_POINT = CM_PER_INCH / 8;
