/** A count with its noun: «1 place», «2 places». */
export const counted = (count: number, one: string, many: string): string =>
  `${count} ${count === 1 ? one : many}`;
