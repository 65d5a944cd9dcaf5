import { partWeight } from './part-weight';
import type { Cut } from '@kevro/core';

/** A length as it is said at the bench, and its unit. */
export interface BenchLength {
  say: (cm: number) => string;
  unit: string;
}

/** An hour on the head as on a clock: «1:20». */
export function hourWords(hour: number): string {
  const minutes = Math.round(60 * hour);
  const whole = Math.floor(minutes / 60) % 12;
  return `${whole === 0 ? 12 : whole}:${String(minutes % 60).padStart(2, '0')}`;
}

/** Where a piece starts and ends: «8.4 to 16.9 cm from the tip», «slot 2». */
export function placeWords(
  { slot, startCm, endCm, measuredFrom, clocks }: Cut,
  { say, unit }: BenchLength,
): string {
  if (slot !== undefined) return `slot ${slot}`;
  if (startCm < 0) return `${say(endCm)} ${unit} to each side of the tip`;
  if (startCm === endCm) return `${say(startCm)} ${unit} from the ${measuredFrom}`;
  // The clock is the landmark that every head has.
  const clock = clocks ? ` (${hourWords(clocks[0])} to ${hourWords(clocks[1])})` : '';
  return `${say(startCm)} to ${say(endCm)} ${unit} from the ${measuredFrom}${clock}`;
}

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
