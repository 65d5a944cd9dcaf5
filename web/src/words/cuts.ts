import { partWeight } from './part-weight';
import type { Cut } from '@kevro/core';
import { placeWords, type BenchLength } from '@kevro/contract';

/** How much and where, in one line: «2 × 8.5 cm (2.3 g each), 8.4 to 16.9 cm from the tip, both sides». */
export function cutWords(cut: Cut, length: BenchLength): string {
  const place = placeWords(cut, length) + (cut.sides === 2 ? ', both sides' : '');
  if (!cut.cut) return `${partWeight(cut.massG)} of ${cut.part?.name ?? 'what was there'}, ${place}`;
  const stacked = cut.layers > 1 ? `, ${cut.layers} layers` : '';
  const layers = cut.onBevels ? ', on every other bevel' : stacked;
  return `${cut.pieces} × ${length.say(cut.lengthCm)} ${length.unit} (${partWeight(cut.pieceG, 2)} each), ${place}${layers}`;
}

/** Waiting time as a fitter says it: «12 h», «1 h 30 min», «45 min». */
export function waitWords(minutes: number): string {
  const hours = Math.floor(minutes / 60);
  const rest = Math.round(minutes - 60 * hours);
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
