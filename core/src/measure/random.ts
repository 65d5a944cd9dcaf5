/** Uniform numbers from 0 to 1 by a seed (mulberry32): the same seed gives the same numbers. @example seededUniforms(1)() // 0.627… */
export function seededUniforms(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Normal deviates (mean 0, standard deviation 1) by a seed, after Box and Muller, two at a time. */
export function seededNormals(seed: number): () => number {
  const uniform = seededUniforms(seed);
  let spare: number | undefined;
  return () => {
    if (spare !== undefined) {
      const kept = spare;
      spare = undefined;
      return kept;
    }
    const radius = Math.sqrt(-2 * Math.log(1 - uniform()));
    const angle = 2 * Math.PI * uniform();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
}
