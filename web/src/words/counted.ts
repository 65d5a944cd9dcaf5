import type { InAll } from '@kevro/contract';

/** How many there are, or are left after some: «12», «over 10000» where no more were counted. */
export const howMany = ({ total, orMore }: InAll, after = 0): string =>
  `${orMore ? 'over ' : ''}${Math.max(0, total - after)}`;
/** A count with its noun: «1 place», «2 places». */
export const counted = (count: number | InAll, one: string, many: string): string => {
  const inAll = typeof count === 'number' ? { total: count } : count;
  return `${howMany(inAll)} ${inAll.total === 1 ? one : many}`;
};
