/** The base grips there are. */
export const BASE_GRIPS = ['none', 'synthetic', 'leather'] as const;
export type BaseGrip = (typeof BASE_GRIPS)[number];

/** What is on a frame when it is measured. What is left out is not on it. */
export interface Dress {
  strings?: boolean | { massG: number };
  baseGrip?: BaseGrip;
  overgrips?: number;
  dampener?: boolean;
}

/** What of a dress a sport knows. */
export type DressComponent = keyof Dress;

/** Mass and standard uncertainty of a part as it usually is, g. */
export interface TypicalPart {
  massG: number;
  massUncertaintyG: number;
}

/** What parts of a dress usually weigh. Data: a shop may hand in its own. */
export interface TypicalParts {
  strings: TypicalPart;
  synthetic: TypicalPart;
  leather: TypicalPart;
  overgrip: TypicalPart;
  dampener: TypicalPart;
}

export const typical = (massG: number, massUncertaintyG: number): TypicalPart => ({
  massG,
  massUncertaintyG,
});
