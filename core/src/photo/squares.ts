// Small squares in rows, each marked or not.

/** Every marked square that neighbours lead to from some squares, by their sides; they are marked no more. */
function taken(marked: Uint8Array, width: number, from: readonly number[]): number[] {
  const found: number[] = [];
  const take = (p: number): void => {
    if (!marked[p]) return;
    marked[p] = 0;
    found.push(p);
  };
  for (const p of from) take(p);
  for (const p of found) {
    const x = p % width;
    if (x > 0) take(p - 1);
    if (x < width - 1) take(p + 1);
    take(p - width);
    take(p + width);
  }
  return found;
}

/** Connected squares, the largest island first; each as its squares. */
export function islands(marked: Uint8Array, width: number): number[][] {
  const left = marked.slice();
  const found: number[][] = [];
  for (let start = 0; start < left.length; start++) if (left[start]) found.push(taken(left, width, [start]));
  return found.sort((a, b) => b.length - a.length);
}

/** Whether a square lies at the edge of them all. */
export const isAtEdge = (p: number, width: number, size: number): boolean =>
  p < width || p >= size - width || p % width === 0 || p % width === width - 1;

const unmarked = (marked: Uint8Array): Uint8Array => marked.map((value) => 1 - value);

/** All that no way from outside leads to. */
export function filled(marked: Uint8Array, width: number): Uint8Array {
  const open = unmarked(marked);
  const edge: number[] = [];
  for (let p = 0; p < open.length; p++) if (isAtEdge(p, width, open.length)) edge.push(p);
  taken(open, width, edge);
  return open.map((value, p) => (value || marked[p] ? 1 : 0));
}

function grown(marked: Uint8Array, width: number, by: number): Uint8Array {
  let now = marked;
  for (let round = 0; round < by; round++) {
    const next = now.slice();
    for (let p = 0; p < now.length; p++)
      if (now[p]) {
        if (p % width > 0) next[p - 1] = 1;
        if (p % width < width - 1) next[p + 1] = 1;
        if (p >= width) next[p - width] = 1;
        if (p < now.length - width) next[p + width] = 1;
      }
    now = next;
  }
  return now;
}

/** With gaps closed that are no wider than twice so many squares. */
export const joined = (marked: Uint8Array, width: number, by: number): Uint8Array =>
  unmarked(grown(unmarked(grown(marked, width, by)), width, by));
