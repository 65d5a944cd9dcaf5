import type { Aim } from './aim';

/** Something that speaks against an aim; the fitter may go on. */
export interface Guard {
  code: 'over-ceiling';
  /** What the aim asks for, and where the guard stands. */
  value: number;
  limit: number;
}

/**
 * What speaks against an aim for this player. Both are of one sport: a ceiling of another says nothing.
 * @param ceilingSwingWeight what the player is known to carry in this sport, kg·cm²
 * @example aimGuards({ swingWeight: { value: 340, tolerance: 1 } }, { ceilingSwingWeight: 330 })[0].code // 'over-ceiling'
 */
export function aimGuards(aim: Aim, player: { ceilingSwingWeight?: number | undefined }): Guard[] {
  const target = aim.swingWeight;
  const { ceilingSwingWeight: limit } = player;
  if (!target || target.priority === 'free' || limit === undefined || target.value <= limit) return [];
  return [{ code: 'over-ceiling', value: target.value, limit }];
}
