import { partRule, spanCmOf, type Part, type Placement } from '@kevro/core';

/** «2 strips of 8.5 cm, tungsten tape 6 mm» */
export function pieceWords(placement: Placement, part: Part | undefined): string {
  const name = part?.name ?? 'as it is';
  const span = spanCmOf(placement);
  const lie = part ? partRule(part).lie : 'strip';
  const { layers, sides, massG } = placement;
  if (lie === 'point' || span === 0) {
    const pieces = part && 'massG' in part ? Math.round(massG / part.massG) : 1;
    return `${pieces === 1 ? 'one piece' : `${pieces} pieces`}, ${name}`;
  }
  if (lie !== 'strip') return `${span.toFixed(1)} cm of ${name}`;
  const strips = sides * layers;
  const stacked = layers > 1 ? `, ${layers} layers` : '';
  return `${strips === 1 ? '1 strip' : `${strips} strips`} of ${span.toFixed(1)} cm${stacked}, ${name}`;
}
