/** «twice», «3 times»: how often a thing is read. @example timesWords(2) // 'twice' */
export const timesWords = (times: number): string =>
  times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`;

/** A chance as it is said: never sure, never none. */
export const percent = (share: number): string =>
  share > 0.995 ? 'over 99\u00a0%' : share < 0.005 ? 'under 1\u00a0%' : `${Math.round(100 * share)}\u00a0%`;
