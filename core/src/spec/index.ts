/** The four numbers of a frame, in the order in which they are shown. */
export const SPEC_KEYS = ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const;
export type SpecKey = (typeof SPEC_KEYS)[number];

/** Any of the four; one that is not known is left out. */
export type KnownSpecs = Partial<Record<SpecKey, number>>;

/** What each of the four has. @example bySpec(() => 1).massG // 1 */
export const bySpec = <T>(of: (key: SpecKey) => T): Record<SpecKey, T> =>
  Object.fromEntries(SPEC_KEYS.map((key) => [key, of(key)])) as Record<SpecKey, T>;
