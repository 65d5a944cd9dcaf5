import { placeOf, type Frame } from '../frame';
import { sheet, handleWrap, point, type MassSums } from '../mass';

/** What is on the frame when it is measured. What is left out is not on it. */
export interface Dress {
  strings?: boolean | { massG: number };
  baseGrip?: 'none' | 'synthetic' | 'leather';
  overgrips?: number;
  dampener?: boolean;
}

/** One part of the dress. `key` is the same for the same part, so that what two dresses share cancels. */
export interface DressPart {
  key: string;
  name: string;
  sums: MassSums;
  massUncertaintyG: number;
  placeUncertaintyCm: number;
}

/** Masses and standard uncertainties, g. Typical values of physics.md; from memory, a weighed part is better. */
export const TYPICAL_PARTS = {
  strings: { massG: 16, massUncertaintyG: 1.5, weighedUncertaintyG: 0.3 },
  synthetic: { massG: 14, massUncertaintyG: 1.5 },
  leather: { massG: 24, massUncertaintyG: 2 },
  overgrip: { massG: 5.5, massUncertaintyG: 0.4 },
  dampener: { massG: 2.5, massUncertaintyG: 0.4 },
} as const;

/** How far the string bed's lower edge lies from the dampener, cm. */
const DAMPENER_BELOW_CM = 1;
const GRIP_THICKNESS_CM = 0.15;

function stringsPart(frame: Frame, strings: true | { massG: number }): DressPart {
  const typical = TYPICAL_PARTS.strings;
  const massG = strings === true ? typical.massG : strings.massG;
  return {
    key: `strings ${massG}`,
    name: `strings ${massG} g`,
    sums: sheet(massG, frame.head),
    massUncertaintyG: strings === true ? typical.massUncertaintyG : typical.weighedUncertaintyG,
    placeUncertaintyCm: 0.3,
  };
}

function wrapPart(frame: Frame, kind: 'synthetic' | 'leather' | 'overgrip', layer: number): DressPart {
  const { massG, massUncertaintyG } = TYPICAL_PARTS[kind];
  const length = frame.handleLengthCm;
  return {
    key: `${kind} ${layer}`,
    name: kind === 'overgrip' ? `overgrip ${massG} g` : `${kind} base grip ${massG} g`,
    sums: handleWrap(massG, length / 2, length, frame.handleRadiusCm + GRIP_THICKNESS_CM),
    massUncertaintyG,
    placeUncertaintyCm: 0.5,
  };
}

function dampenerPart(frame: Frame): DressPart {
  const bottom = placeOf(frame, { clock: 6 });
  const { massG, massUncertaintyG } = TYPICAL_PARTS.dampener;
  return {
    key: 'dampener',
    name: `dampener ${massG} g`,
    sums: point(massG, bottom.xCm - DAMPENER_BELOW_CM),
    massUncertaintyG,
    placeUncertaintyCm: 0.5,
  };
}

/**
 * The parts of a dress on a frame, each with its mass, place and uncertainty.
 * @example dressParts(frame, { strings: true, overgrips: 1 }).length // 2
 */
export function dressParts(frame: Frame, dress: Dress): DressPart[] {
  const parts: DressPart[] = [];
  if (dress.strings) parts.push(stringsPart(frame, dress.strings));
  if (dress.baseGrip && dress.baseGrip !== 'none') parts.push(wrapPart(frame, dress.baseGrip, 0));
  for (let i = 0; i < (dress.overgrips ?? 0); i++) parts.push(wrapPart(frame, 'overgrip', i));
  if (dress.dampener) parts.push(dampenerPart(frame));
  return parts;
}
