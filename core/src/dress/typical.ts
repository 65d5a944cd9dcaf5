import type { Sport } from '../sport';

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

const part = (massG: number, massUncertaintyG: number): TypicalPart => ({ massG, massUncertaintyG });

/** Tennis: the values of common practice; a weighed part is better. */
const TENNIS: TypicalParts = {
  strings: part(16, 1.5),
  synthetic: part(14, 1.5),
  leather: part(24, 2),
  overgrip: part(5.5, 0.4),
  dampener: part(2.5, 0.4),
};

/**
 * Usual masses by sport; the others from memory. Padel and pickleball have no strings: what counts as strings there weighs nothing.
 * Badminton's strings and grip together stay within +5 g and +5 kg·cm² (common practice).
 */
export const TYPICAL_PARTS: Record<Sport, TypicalParts> = {
  tennis: TENNIS,
  badminton: {
    strings: part(2.3, 0.4),
    synthetic: part(2.5, 0.5),
    leather: part(7, 1),
    overgrip: part(3, 0.4),
    dampener: part(0.5, 0.2),
  },
  padel: {
    ...TENNIS,
    strings: part(0, 0),
    synthetic: part(10, 1.5),
    leather: part(16, 2),
    overgrip: part(5, 0.4),
  },
  pickleball: {
    ...TENNIS,
    strings: part(0, 0),
    synthetic: part(11, 1.5),
    leather: part(17, 2),
    overgrip: part(5, 0.4),
  },
};

/** Standard uncertainty of strings that were weighed before they went in, g. */
export const WEIGHED_G = 0.3;
