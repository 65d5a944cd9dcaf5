/** Error function to 1.2e-7 relative (Numerical Recipes, erfcc; from memory), and the normal distribution from it. */
function erfc(x: number): number {
  const z = Math.abs(x);
  const t = 1 / (1 + 0.5 * z);
  const series =
    -z * z -
    1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t *
                  (-0.18628806 +
                    t *
                      (0.27886807 +
                        t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const tail = t * Math.exp(series);
  return x >= 0 ? tail : 2 - tail;
}

/** Probability that a standard normal deviate is at most x. @example normalBelow(1.96) // 0.975 */
export const normalBelow = (x: number): number => 0.5 * erfc(-x / Math.SQRT2);

/** The deviate that is exceeded with probability 1 − p (Acklam's rational approximation, 1.2e-9 relative; from memory). @param p 0 to 1, exclusive */
export function normalQuantile(p: number): number {
  const A = [
    -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716,
    2.506628277459239,
  ];
  const B = [
    -54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572,
  ];
  const C = [
    -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ];
  const D = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416];
  const over = (cs: number[], x: number): number => cs.reduce((sum, c) => sum * x + c, 0);
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p));
    return over(C, q) / (over(D, q) * q + 1);
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p);
  const q = p - 0.5;
  const r = q * q;
  return (over(A, r) * q) / (over(B, r) * r + 1);
}

/** Points of the lattice; an odd prime, so that the rule below fills the cube evenly. */
const POINTS = 1021;
/** Square roots of primes, as the rule's generator (Richtmyer). */
const GENERATOR = [Math.SQRT2, Math.sqrt(3), Math.sqrt(5)];

/**
 * Probability that correlated normal deviates with mean zero all lie in a box: Genz's separation of variables (A. Genz, Numerical Computation of
 * Multivariate Normal Probabilities, J. Comput. Graph. Stat. 1 (1992) 141; from memory) on a Richtmyer lattice with the baker's transformation. One
 * dimension is exact; four are good to about 1e-4.
 * @param effects what one standard deviation of each independent error does in each dimension: the covariance is their sum of squares
 * @param low, high limits of each dimension; infinite where there is none
 * @example normalBox([[1]], [-1.96], [1.96]) // 0.95
 */
export function normalBox(
  effects: readonly (readonly number[])[],
  low: readonly number[],
  high: readonly number[],
): number {
  const n = low.length;
  if (n === 0) return 1;
  const covariance = (i: number, j: number): number =>
    effects.reduce((sum, effect) => sum + (effect[i] ?? 0) * (effect[j] ?? 0), 0);
  // The narrowest dimension first: less is left to the lattice.
  const width = (i: number): number =>
    ((high[i] ?? 0) - (low[i] ?? 0)) / Math.sqrt(Math.max(1e-300, covariance(i, i)));
  const order = low.map((_, i) => i).sort((a, b) => width(a) - width(b));
  const L = order.map(() => new Float64Array(n));
  order.forEach((a, i) => {
    for (let j = 0; j <= i; j++) {
      let sum = covariance(a, order[j] as number);
      for (let k = 0; k < j; k++) sum -= (L[i]?.[k] as number) * (L[j]?.[k] as number);
      const own = L[j]?.[j] as number;
      // What cannot vary by itself is settled by those before it.
      (L[i] as Float64Array)[j] = i === j ? Math.sqrt(Math.max(0, sum)) : own > 0 ? sum / own : 0;
    }
  });
  const a = order.map((i) => low[i] as number);
  const b = order.map((i) => high[i] as number);
  const between = (i: number, at: number): [number, number] => {
    const own = L[i]?.[i] as number;
    const [from, to] = [(a[i] as number) - at, (b[i] as number) - at];
    if (own < 1e-12) return from <= 1e-9 && to >= -1e-9 ? [0, 1] : [0, 0];
    return [normalBelow(from / own), normalBelow(to / own)];
  };
  const first = between(0, 0);
  if (n === 1) return first[1] - first[0];
  const y = new Float64Array(n);
  let sum = 0;
  for (let p = 1; p <= POINTS; p++) {
    let [from, to] = first;
    let all = to - from;
    for (let i = 1; i < n && all > 0; i++) {
      const raw = (p * (GENERATOR[i - 1] ?? Math.sqrt(7))) % 1;
      const w = Math.abs(2 * raw - 1);
      const u = Math.min(1 - 1e-12, Math.max(1e-12, from + w * (to - from)));
      y[i - 1] = normalQuantile(u);
      let at = 0;
      for (let k = 0; k < i; k++) at += (L[i]?.[k] as number) * (y[k] as number);
      [from, to] = between(i, at);
      all *= to - from;
    }
    sum += all;
  }
  return sum / POINTS;
}
