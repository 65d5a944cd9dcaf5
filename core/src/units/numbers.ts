/** The mean of some numbers; no number where there are none. @example meanOf([1, 2]) // 1.5 */
export const meanOf = (values: readonly number[]): number =>
  values.reduce((all, v) => all + v, 0) / values.length;

/**
 * The value below which a share of some numbers lies, between the two that are nearest (Hyndman and Fan 1996, type 7); no number where there are none.
 * @param sorted the least first @param share 0 to 1
 * @example quantileOf([1, 2, 4], 0.25) // 1.5
 */
export function quantileOf(sorted: readonly number[], share: number): number {
  const place = share * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(place)], sorted[Math.ceil(place)]];
  return low === undefined || high === undefined ? NaN : low + (place - Math.floor(place)) * (high - low);
}
