import type { BenchLength } from '@kevro/contract';
import { counted } from './counted';
import { partRule, spanCmOf, type Part, type Placement } from '@kevro/core';

/** «2 strips of 8.5 cm, tungsten tape 6 mm» */
export function pieceWords(placement: Placement, part: Part | undefined, { say, unit }: BenchLength): string {
  const name = part?.name ?? 'as it is';
  const span = spanCmOf(placement);
  const lie = part ? partRule(part).lie : 'strip';
  const { layers, sides, massG } = placement;
  if (lie === 'point' || span === 0) {
    const count = part && 'massG' in part ? Math.round(massG / part.massG) : 1;
    return `${count} × ${name}`;
  }
  if (lie !== 'strip') return `${say(span)} ${unit} of ${name}`;
  const strips = sides * layers;
  const onBevels = part && placement.path === 'handle' && partRule(part).onHandle;
  const layered = layers > 1 ? `, ${layers} layers` : '';
  const stacked = onBevels ? ' on every other bevel' : layered;
  return `${counted(strips, 'strip', 'strips')} of ${say(span)} ${unit}${stacked}, ${name}`;
}
