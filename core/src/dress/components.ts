import type { Frame } from '../frame';
import { handleWrap, point, sheet, type MassSums } from '../mass';
import type { Dress, TypicalParts } from '../sport';

import { gripShare, type WoundGrip } from './grips';
import { bedShare } from './strings';

export type { Dress } from '../sport';

/** Standard uncertainty of strings that were weighed before they went in, g. */
const WEIGHED_G = 0.3;

/** One part of the dress. `key` is the same for the same part, so that what two dresses share cancels. */
export interface DressPart {
  key: string;
  name: string;
  sums: MassSums;
  massUncertaintyG: number;
  placeUncertaintyCm: number;
}

/** How far the string bed's lower edge lies from the dampener, cm. */
const DAMPENER_BELOW_CM = 1;
const GRIP_THICKNESS_CM = 0.15;

const grams = (massG: number): string => `${Number(massG.toFixed(1))} g`;

function stringsPart(frame: Frame, strings: true | { massG: number }, typical: TypicalParts): DressPart {
  // Typical strings weigh as much more as the bed takes more of them.
  const massG = strings === true ? typical.strings.massG * bedShare(frame) : strings.massG;
  return {
    key: `strings ${massG}`,
    name: `strings ${grams(massG)}`,
    sums: sheet(massG, frame.bed),
    massUncertaintyG: strings === true ? typical.strings.massUncertaintyG : WEIGHED_G,
    placeUncertaintyCm: 0.3,
  };
}

function wrapPart(frame: Frame, kind: WoundGrip, layer: number, typical: TypicalParts): DressPart {
  // A longer handle takes more turns.
  const share = gripShare(frame, kind);
  const massG = share * typical[kind].massG;
  const length = frame.handleLengthCm;
  return {
    key: `${kind} ${layer}`,
    name: kind === 'overgrip' ? `overgrip ${grams(massG)}` : `${kind} base grip ${grams(massG)}`,
    sums: handleWrap(massG, length / 2, length, frame.handleRadiusCm + GRIP_THICKNESS_CM),
    massUncertaintyG: share * typical[kind].massUncertaintyG,
    placeUncertaintyCm: 0.5,
  };
}

function dampenerPart(frame: Frame, { dampener }: TypicalParts): DressPart {
  const bottomXCm = frame.bed.centreXCm - frame.bed.alongCm;
  return {
    key: 'dampener',
    name: `dampener ${grams(dampener.massG)}`,
    sums: point(dampener.massG, bottomXCm - DAMPENER_BELOW_CM),
    massUncertaintyG: dampener.massUncertaintyG,
    placeUncertaintyCm: 0.5,
  };
}

/**
 * The parts of a dress on a frame, each with its mass, place and uncertainty.
 * @param typical what parts weigh where the dress does not say; the sport's usual values if left out
 * @example dressParts(frame, { strings: true, overgrips: 1 }).length // 2
 */
export function dressParts(
  frame: Frame,
  dress: Dress,
  typical: TypicalParts = frame.sport.typicalParts,
): DressPart[] {
  const parts: DressPart[] = [];
  // A sport without strings has none to take off or put on.
  const knows = (component: keyof Dress): boolean => frame.sport.dress.components.includes(component);
  if (dress.strings && knows('strings')) parts.push(stringsPart(frame, dress.strings, typical));
  if (dress.baseGrip && dress.baseGrip !== 'none') parts.push(wrapPart(frame, dress.baseGrip, 0, typical));
  for (let i = 0; i < (dress.overgrips ?? 0); i++) parts.push(wrapPart(frame, 'overgrip', i, typical));
  if (dress.dampener && knows('dampener')) parts.push(dampenerPart(frame, typical));
  return parts;
}

/** Whether two dresses are the same, whatever of them is left out. @example sameDress({}, { overgrips: 0 }) // true */
export function sameDress(a: Dress, b: Dress): boolean {
  const strings = ({ strings }: Dress): string =>
    typeof strings === 'object' ? String(strings.massG) : String(Boolean(strings));
  return (
    strings(a) === strings(b) &&
    (a.baseGrip ?? 'none') === (b.baseGrip ?? 'none') &&
    (a.overgrips ?? 0) === (b.overgrips ?? 0) &&
    (a.dampener ?? false) === (b.dampener ?? false)
  );
}
