import type { Cut, StepKind, ZoneName } from '@kevro/core';

/** Words of the bench that both the page and what is printed say. */

export const ZONE_NAMES: Record<ZoneName, string> = {
  tip: 'Tip',
  shoulders: 'Shoulders',
  sides: 'Sides',
  lowerHoop: 'Lower hoop',
  throat: 'Throat',
  handleTop: 'Top of handle',
  handle: 'Handle',
  butt: 'Butt',
  slotTip: 'Tip slot',
  slotSides: 'Side slots',
  slotHeart: 'Heart slot',
};

export const STEP_TITLES: Record<StepKind, string> = {
  'weigh-before': 'Weigh the frame',
  'strip-handle': 'Take the grip off the handle',
  'take-off': 'Remove old weight',
  cut: 'Cut the pieces',
  trial: 'Trial: tape everything on the outside',
  'measure-trial': 'Measure the trial',
  'fix-head': 'Stick on',
  seal: 'Seal the lead with a clear coat',
  'set-in': 'Insert',
  'fill-handle': 'Fill the handle',
  'wrap-handle': 'Wrap the handle',
  swap: 'Change the grips',
  regrip: 'Put the grip back on',
  restring: 'Put new strings in',
  'final-check': 'Final measurement',
};

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
