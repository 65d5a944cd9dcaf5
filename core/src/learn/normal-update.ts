/**
 * What is believed of some unknowns: their means and how they vary together. Prior and observations are normal and linear, so that the posterior is too:
 * Σ⁻¹ = Σ₀⁻¹ + Σ Xᵀ V⁻¹ X, Σ⁻¹ μ = Σ₀⁻¹ μ₀ + Σ Xᵀ V⁻¹ y (Bayesian linear regression with known noise; Gelman et al., Bayesian Data Analysis, ch. 14; from memory).
 */
export interface Belief {
  mean: number[];
  covariance: number[][];
}

/** Numbers that were observed together: each is a sum of unknowns by `design`, and noise with a covariance. */
export interface Observed {
  values: readonly number[];
  /** A row an observed value, a column an unknown. */
  design: readonly (readonly number[])[];
  noise: readonly (readonly number[])[];
}

const at = (m: readonly (readonly number[])[], i: number, j: number): number => m[i]?.[j] ?? 0;

/** The inverse of a positive definite matrix, by Gauss and Jordan with the largest pivot; no numbers where there is none. @example inverse([[2]]) // [[0.5]] */
export function inverse(matrix: readonly (readonly number[])[]): number[][] {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0))]);
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(at(rows, i, k)) > Math.abs(at(rows, pivot, k))) pivot = i;
    const [own, found] = [rows[k] as number[], rows[pivot] as number[]];
    rows[k] = found;
    rows[pivot] = own;
    const by = at(rows, k, k);
    for (let j = k; j < 2 * n; j++) found[j] = (found[j] ?? 0) / by;
    for (const [i, row] of rows.entries()) {
      const off = at(rows, i, k);
      if (i !== k && off !== 0)
        for (let j = k; j < 2 * n; j++) row[j] = (row[j] ?? 0) - off * (found[j] ?? 0);
    }
  }
  return rows.map((row) => row.slice(n));
}

/**
 * What is believed after observations, from independent normal priors of mean 0.
 * @param priors standard deviations of the unknowns
 * @example updated([0.04], [{ values: [0.2], design: [[5]], noise: [[0.01]] }]).mean[0] // 0.032: pulled toward none
 */
export function updated(priors: readonly number[], observations: readonly Observed[]): Belief {
  const n = priors.length;
  const precision = priors.map((u, i) => priors.map((_, j) => (i === j ? 1 / (u * u) : 0)));
  const weighted = new Array<number>(n).fill(0);
  for (const { values, design, noise } of observations) {
    const weight = inverse(noise);
    for (let a = 0; a < values.length; a++) {
      for (let b = 0; b < values.length; b++) {
        for (let i = 0; i < n; i++) {
          const w = at(design, a, i) * at(weight, a, b);
          // Most of what was observed says something of few unknowns.
          if (w === 0) continue;
          weighted[i] = (weighted[i] as number) + w * (values[b] ?? 0);
          const [row, seen] = [precision[i] as number[], design[b] ?? []];
          for (let j = 0; j < n; j++) row[j] = (row[j] as number) + w * (seen[j] ?? 0);
        }
      }
    }
  }
  const covariance = inverse(precision);
  const mean = covariance.map((row) => row.reduce((sum, v, j) => sum + v * (weighted[j] as number), 0));
  return { mean, covariance };
}
