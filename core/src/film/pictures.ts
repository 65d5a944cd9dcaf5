/** A film in greys, small enough to be held in memory; every picture is width × height bytes, row by row. */
export interface Film {
  width: number;
  height: number;
  frames: { at: number; grey: Uint8Array }[];
}

/** The middle value of every picture element over some pictures. */
export function middleOf(pictures: readonly Uint8Array[], size: number): Uint8Array {
  const found = new Uint8Array(size);
  const values = new Uint8Array(pictures.length);
  const middle = pictures.length >> 1;
  for (let p = 0; p < size; p++) {
    for (let i = 0; i < pictures.length; i++) values[i] = pictures[i]?.[p] ?? 0;
    values.sort();
    found[p] = values[middle] ?? 0;
  }
  return found;
}
export const evenly = <T>(all: readonly T[], count: number): T[] => {
  const every = Math.max(1, all.length / count);
  return Array.from({ length: Math.min(count, all.length) }, (_, i) => all[Math.floor(i * every)] as T);
};
/** The middle one of many values: quicker than the exact one for even counts, and as good among hundreds. */
export function medianOf(values: Uint8Array | readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? 0;
}
