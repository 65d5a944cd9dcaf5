import type { Cut } from '@kevro/core';

const cm = (value: number): string => value.toFixed(1);

/** How much and where, in one line: «2 × 8.5 cm (2.3 g each), 8.4 to 16.9 cm from the tip, both sides». */
export function cutWords(cut: Cut): string {
  const where = `${cm(cut.startCm)} to ${cm(cut.endCm)} cm from the ${cut.measuredFrom}`;
  if (cut.widthMm === undefined) return `${cut.massG.toFixed(1)} g of ${cut.material}, ${where}`;
  const across = cut.startCm < 0;
  const place = across
    ? `${cm(cut.endCm)} cm to each side of the tip`
    : `${where}${cut.sides === 2 ? ', both sides' : ''}`;
  const layers = cut.layers > 1 ? `, ${cut.layers} layers` : '';
  return `${cut.pieces} × ${cm(cut.lengthCm)} cm (${cut.pieceG.toFixed(2)} g each), ${place}${layers}`;
}
