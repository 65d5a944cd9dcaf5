import type { SportData } from './sport';

/** What a shop works to otherwise than a sport ships: its tolerances, what it takes a hand to notice, and the smallest piece. What is left out stays as it ships. */
export interface OwnNumbers {
  tolerance?: Partial<SportData['tolerance']> | undefined;
  noticeable?: Partial<SportData['noticeable']> | undefined;
  smallestPieceG?: number | undefined;
}

const known = <T extends object>(own: Partial<T> | undefined): Partial<T> =>
  Object.fromEntries(Object.entries(own ?? {}).filter(([, value]) => value !== undefined)) as Partial<T>;

/** A sport with the numbers of a shop. @example withOwn(sportData('tennis'), { tolerance: { massG: 0.5 } }).tolerance.massG // 0.5 */
export const withOwn = (data: SportData, own: OwnNumbers | undefined): SportData =>
  own
    ? {
        ...data,
        tolerance: { ...data.tolerance, ...known(own.tolerance) },
        noticeable: { ...data.noticeable, ...known(own.noticeable) },
        smallestPieceG: own.smallestPieceG ?? data.smallestPieceG,
      }
    : data;
