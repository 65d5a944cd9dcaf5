/**
 * Standard uncertainty of f at some inputs by the law of propagation (JCGM 100:2008, eq. 10; inputs independent), with central differences.
 * @param inputs values and standard uncertainties, in the same units as f takes
 * @example propagate(([a, b]) => a + b, [{ value: 1, u: 3 }, { value: 2, u: 4 }]) // 5
 */
export function propagate(
  f: (values: number[]) => number,
  inputs: readonly { value: number; u: number }[],
): number {
  const values = inputs.map((input) => input.value);
  const squares = inputs.map(({ value, u }, i) => {
    if (u === 0) return 0;
    const at = (shift: number): number => f(values.map((v, k) => (k === i ? value + shift : v)));
    // A step of the uncertainty's own size follows the curve as far as the input is likely to move.
    const slope = (at(u / 2) - at(-u / 2)) / u;
    return (slope * u) ** 2;
  });
  return Math.sqrt(squares.reduce((sum, s) => sum + s, 0));
}
