import type { Cut } from '@kevro/core';

const cm = (value: number): string => value.toFixed(1);

/** Where a piece starts and ends: «8.4 to 16.9 cm from the tip», «slot 2». */
export function placeWords({ slot, startCm, endCm, measuredFrom }: Cut): string {
  if (slot !== undefined) return `slot ${slot}`;
  if (startCm < 0) return `${cm(endCm)} cm to each side of the tip`;
  return startCm === endCm
    ? `${cm(startCm)} cm from the ${measuredFrom}`
    : `${cm(startCm)} to ${cm(endCm)} cm from the ${measuredFrom}`;
}

/** How much and where, in one line: «2 × 8.5 cm (2.3 g each), 8.4 to 16.9 cm from the tip, both sides». */
export function cutWords(cut: Cut): string {
  const place = placeWords(cut) + (cut.sides === 2 ? ', both sides' : '');
  if (!cut.cut) return `${cut.massG.toFixed(1)} g of ${cut.part?.name ?? 'what was there'}, ${place}`;
  const layers = cut.layers > 1 ? `, ${cut.layers} layers` : '';
  return `${cut.pieces} × ${cm(cut.lengthCm)} cm (${cut.pieceG.toFixed(2)} g each), ${place}${layers}`;
}

/** Waiting time as a fitter says it: «12 h», «1 h 30 min», «45 min». */
export function waitWords(minutes: number): string {
  const hours = Math.floor(minutes / 60);
  const rest = Math.round(minutes - 60 * hours);
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
