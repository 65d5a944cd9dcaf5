const INDEPENDENT = 1e-10;
const FLAT = 1e-9;

/**
 * Least squares with bounded unknowns: minimise ½ |A x − b|² for 0 ≤ x ≤ 1, by an active set (Stark & Parker, Bounded-variable least squares, Comput.
 * Stat. 10 (1995) 129; from memory). Made for few rows: no more unknowns than rows are free at once. Asked thousands of times, it keeps its working space.
 * @example new BoundedSquares(1, 1).solve(Float64Array.of(2), Float64Array.of(1), x) // x = [0.5]
 */
export class BoundedSquares {
  private readonly residual: Float64Array;
  private readonly isFree: Uint8Array;
  private readonly free: Int32Array;
  private count = 0;
  private readonly l: Float64Array;
  private readonly target: Float64Array;

  constructor(
    private readonly rows: number,
    private readonly n: number,
  ) {
    this.residual = new Float64Array(rows);
    this.isFree = new Uint8Array(n);
    this.free = new Int32Array(n + 1);
    this.l = new Float64Array((rows + 1) * (rows + 1));
    this.target = new Float64Array(rows + 1);
  }

  /** @param a rows × n, row by row @param x a start within the bounds, and the answer */
  solve(a: Float64Array, b: Float64Array, x: Float64Array): void {
    const { rows, n, isFree, residual } = this;
    this.count = 0;
    for (let k = 0; k < n; k++) {
      const within = (x[k] as number) > 0 && (x[k] as number) < 1;
      isFree[k] = 0;
      if (!within) continue;
      if (this.count < rows) this.add(k);
      else x[k] = 0;
    }
    if (this.count > 0 && !this.settle(a, b, x)) {
      for (let f = 0; f < this.count; f++) x[this.free[f] as number] = 0;
      isFree.fill(0);
      this.count = 0;
    }
    let blocked = -1;
    for (let round = 0; round < 8 * n; round++) {
      for (let i = 0; i < rows; i++) {
        let sum = b[i] as number;
        for (let k = 0; k < n; k++) sum -= (a[i * n + k] as number) * (x[k] as number);
        residual[i] = sum;
      }
      let enter = -1;
      let steepest = FLAT;
      for (let k = 0; k < n; k++) {
        if (isFree[k] || k === blocked) continue;
        let slope = 0;
        for (let i = 0; i < rows; i++) slope += (a[i * n + k] as number) * (residual[i] as number);
        const gain = x[k] === 0 ? slope : -slope;
        if (gain > steepest) {
          enter = k;
          steepest = gain;
        }
      }
      if (enter < 0 || this.count >= rows) return;
      this.add(enter);
      blocked = -1;
      const from = x[enter] as number;
      if (!this.settle(a, b, x)) {
        // Its column lies among the others': it cannot help.
        this.drop(this.count - 1);
        blocked = enter;
      } else if (!isFree[enter] && x[enter] === from) blocked = enter;
    }
  }

  private add(k: number): void {
    this.free[this.count++] = k;
    this.isFree[k] = 1;
  }

  private drop(at: number): void {
    this.isFree[this.free[at] as number] = 0;
    this.count--;
    for (let f = at; f < this.count; f++) this.free[f] = this.free[f + 1] as number;
  }

  /** Free unknowns to their best, stopping each time at the first bound that is met. @returns whether their columns are independent */
  private settle(a: Float64Array, b: Float64Array, x: Float64Array): boolean {
    const { free, target } = this;
    while (this.count > 0) {
      if (!this.fit(a, b, x)) return false;
      let step = 1;
      let stops = -1;
      for (let f = 0; f < this.count; f++) {
        const now = x[free[f] as number] as number;
        const to = target[f] as number;
        if (to >= 0 && to <= 1) continue;
        const share = Math.max(0, ((to < 0 ? 0 : 1) - now) / (to - now));
        if (share < step) {
          step = share;
          stops = f;
        }
      }
      for (let f = 0; f < this.count; f++) {
        const k = free[f] as number;
        x[k] = (x[k] as number) + step * ((target[f] as number) - (x[k] as number));
      }
      if (stops < 0) return true;
      x[free[stops] as number] = (target[stops] as number) < 0 ? 0 : 1;
      this.drop(stops);
    }
    return true;
  }

  /** The free unknowns that fit best with the others where they are (normal equations, Cholesky). */
  private fit(a: Float64Array, b: Float64Array, x: Float64Array): boolean {
    const { rows, n, isFree, free, l, target, residual, count } = this;
    const width = rows + 1;
    for (let i = 0; i < rows; i++) {
      let sum = b[i] as number;
      for (let k = 0; k < n; k++) if (!isFree[k]) sum -= (a[i * n + k] as number) * (x[k] as number);
      residual[i] = sum;
    }
    for (let p = 0; p < count; p++) {
      const kp = free[p] as number;
      for (let q = 0; q <= p; q++) {
        const kq = free[q] as number;
        let sum = 0;
        for (let i = 0; i < rows; i++) sum += (a[i * n + kp] as number) * (a[i * n + kq] as number);
        const whole = sum;
        for (let s = 0; s < q; s++) sum -= (l[p * width + s] as number) * (l[q * width + s] as number);
        if (p !== q) l[p * width + q] = sum / (l[q * width + q] as number);
        else if (sum <= INDEPENDENT * whole) return false;
        else l[p * width + p] = Math.sqrt(sum);
      }
      let sum = 0;
      for (let i = 0; i < rows; i++) sum += (a[i * n + kp] as number) * (residual[i] as number);
      for (let s = 0; s < p; s++) sum -= (l[p * width + s] as number) * (target[s] as number);
      target[p] = sum / (l[p * width + p] as number);
    }
    for (let p = count - 1; p >= 0; p--) {
      let sum = target[p] as number;
      for (let s = p + 1; s < count; s++) sum -= (l[s * width + p] as number) * (target[s] as number);
      target[p] = sum / (l[p * width + p] as number);
    }
    return true;
  }
}
