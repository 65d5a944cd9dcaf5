import { partWeight } from '../../words/part-weight';
import {
  partNamed,
  partRule,
  spanCmOf,
  type Frame,
  type Part,
  type Placement,
  type Removal,
  type TrimChange,
} from '@kevro/core';
import { pieceWords } from '../../words/pieces';
import { ZONE_NAMES } from '../../words';
import type { BenchLength } from '@kevro/contract';

/** A weight whose number and unit stay in one line. */
const unbroken = (massG: number): string => partWeight(massG, 2).replace(' ', '\u00a0');
/** What of a placement is named: «the strips at the shoulders», «the filling of the butt». */
function named(placement: Placement, part: Part | undefined, zone: string): string {
  const lie = part ? partRule(part).lie : placement.path === 'handle' ? 'column' : 'strip';
  if (lie === 'column') return `the filling of the ${zone}`;
  if (lie === 'wrap') return `the strip around the ${zone}`;
  const what = lie === 'point' ? 'piece' : 'strip';
  const many = placement.sides * placement.layers > 1;
  return `the ${what}${many ? 's' : ''} at the ${zone}`;
}

/**
 * One touch as a fitter does it: «Take 1 cm off the strips at the shoulders, each 8.5 → 7.5 cm».
 * @param built what was built, as it was given to the trim
 */
export function touchWords(
  { index, massG, placement, zone }: TrimChange,
  built: readonly Placement[],
  parts: readonly Part[],
  { say, unit }: BenchLength,
): string {
  const where = ZONE_NAMES[zone].toLowerCase();
  const before = index === undefined ? undefined : built[index];
  // A number and its unit stay in one line.
  const grams = unbroken(Math.abs(massG));
  const cm = (value: number): string => `${say(value)}\u00a0${unit}`;
  if (!before) {
    return placement
      ? `Put ${grams} at the ${where}: ${pieceWords(placement, partNamed(parts, placement.partId), { say, unit })}`
      : '';
  }
  const what = named(before, partNamed(parts, before.partId), where);
  if (!placement) return `Take ${what} off, ${unbroken(before.massG)}`;
  const [from, to] = [spanCmOf(before), spanCmOf(placement)];
  if (massG === 0 && before.path !== 'slot' && placement.path !== 'slot') {
    const byCm = (placement.startCm + placement.endCm - before.startCm - before.endCm) / 2;
    // The rim is measured from the tip.
    const towardTip = before.path === 'rim' ? byCm < 0 : byCm > 0;
    return `Move ${what} ${cm(Math.abs(byCm))} toward the ${towardTip ? 'tip' : 'butt'}`;
  }
  const cut = Math.abs(to - from) > 1e-6 && before.path !== 'handle';
  const lengths = `, each ${say(from)} → ${cm(to)}`;
  if (massG < 0)
    return cut ? `Take ${cm(from - to)} off ${what}${lengths}, −${grams}` : `Take ${grams} out of ${what}`;
  return cut ? `Make ${what} ${cm(to - from)} longer${lengths}, +${grams}` : `Add ${grams} to ${what}`;
}

/** A trim as a plan: what is shortened stays with what is left; what gets longer, moves or comes is laid anew. */
export function changeOfTrim(
  changes: readonly TrimChange[],
  built: readonly Placement[],
): { placements: Placement[]; removals: Removal[] } {
  const placements: Placement[] = [];
  const removals: Removal[] = [];
  for (const [i, { index, massG, placement }] of changes.entries()) {
    const of = index === undefined ? undefined : built[index];
    if (of && placement && massG < 0) removals.push({ of, left: { ...placement, id: of.id } });
    else {
      if (of) removals.push({ of });
      if (placement) placements.push({ ...placement, id: `t${i + 1}` });
    }
  }
  return { placements, removals };
}

/** Whether the grip has to come off for it. */
export const opensHandle = (changes: readonly TrimChange[], frame: Frame): boolean =>
  changes.some(({ zone }) => frame.sport.zones.some(({ name, path }) => name === zone && path === 'handle'));
