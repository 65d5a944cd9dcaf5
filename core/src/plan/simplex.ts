const TINY = 1e-11;

/**
 * Primal simplex on a dense tableau that already holds a feasible basis (Dantzig's rule; the first falling column near the pivot limit).
 * The last row holds the reduced costs, the last column the right-hand side. Changes `t` and `basis` in place.
 * @param t (rows + 1) × width, row by row @param basis the basic column of each row @param most pivots at the most
 */
export function minimise(t: Float64Array, basis: Int32Array, width: number, most = 400): void {
  const M = basis.length;
  const rhs = width - 1;
  const z = M * width;
  for (let pivots = 0; pivots < most; pivots++) {
    let enter = -1;
    let least = -1e-9;
    for (let c = 0; c < rhs; c++) {
      const cost = t[z + c] as number;
      if (cost < least) {
        enter = c;
        if (pivots > most / 2) break;
        least = cost;
      }
    }
    if (enter < 0) break;
    let leave = -1;
    let ratio = Infinity;
    for (let i = 0; i < M; i++) {
      const a = t[i * width + enter] as number;
      if (a <= TINY) continue;
      const q = (t[i * width + rhs] as number) / a;
      if (
        q < ratio - 1e-13 ||
        (q < ratio + 1e-13 && leave >= 0 && (basis[i] as number) < (basis[leave] as number))
      ) {
        ratio = q;
        leave = i;
      }
    }
    if (leave < 0) break;
    const row = leave * width;
    const inverse = 1 / (t[row + enter] as number);
    for (let c = 0; c < width; c++) t[row + c] = (t[row + c] as number) * inverse;
    for (let i = 0; i <= M; i++) {
      if (i === leave) continue;
      const factor = t[i * width + enter] as number;
      if (factor === 0) continue;
      const other = i * width;
      for (let c = 0; c < width; c++)
        t[other + c] = (t[other + c] as number) - factor * (t[row + c] as number);
    }
    basis[leave] = enter;
  }
}
