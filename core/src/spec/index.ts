/** The four numbers of a frame, in the order in which they are shown. */
export const SPEC_KEYS = ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const;
export type SpecKey = (typeof SPEC_KEYS)[number];

/** Any of the four; one that is not known is left out. */
export type KnownSpecs = Partial<Record<SpecKey, number>>;
