// Gauss–Legendre on 16 nodes: abscissae and weights of the positive half (Abramowitz & Stegun, table 25.4).
const NODES = [
  0.0950125098376374, 0.2816035507792589, 0.4580167776572274, 0.6178762444026438, 0.755404408355003,
  0.8656312023878318, 0.9445750230732326, 0.9894009349916499,
];
const WEIGHTS = [
  0.1894506104550685, 0.1826034150449236, 0.1691565193950025, 0.1495959888165767, 0.1246289712555339,
  0.0951585116824928, 0.0622535239386479, 0.0271524594117541,
];

/** ∫ f from a to b by 16-point Gauss–Legendre: exact far beyond a micrometre for the smooth arcs used here. */
export function integrate(f: (t: number) => number, a: number, b: number): number {
  const half = (b - a) / 2;
  const middle = (a + b) / 2;
  let sum = 0;
  for (let i = 0; i < NODES.length; i++) {
    const step = half * (NODES[i] ?? 0);
    sum += (WEIGHTS[i] ?? 0) * (f(middle - step) + f(middle + step));
  }
  return sum * half;
}

/** Calls `visit` with each node and weight between a and b: for several integrals in one pass. */
export function eachNode(a: number, b: number, visit: (t: number, weight: number) => void): void {
  const half = (b - a) / 2;
  const middle = (a + b) / 2;
  for (let i = 0; i < NODES.length; i++) {
    const step = half * (NODES[i] ?? 0);
    const weight = half * (WEIGHTS[i] ?? 0);
    visit(middle - step, weight);
    visit(middle + step, weight);
  }
}

// The same on 8 nodes.
const FEW_NODES = [0.1834346424956498, 0.525532409916329, 0.7966664774136267, 0.9602898564975363];
const FEW_WEIGHTS = [0.362683783378362, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763];

/** As {@link eachNode} with half the nodes: as exact over the short panels of an arc. */
export function eachNodeOfPanel(a: number, b: number, visit: (t: number, weight: number) => void): void {
  const half = (b - a) / 2;
  const middle = (a + b) / 2;
  for (let i = 0; i < FEW_NODES.length; i++) {
    const step = half * (FEW_NODES[i] as number);
    const weight = half * (FEW_WEIGHTS[i] as number);
    visit(middle - step, weight);
    visit(middle + step, weight);
  }
}
