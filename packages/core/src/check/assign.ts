import { elementAt } from '../element';
/**
 * Pairs with the least farness in all: the Hungarian method by shortest augmenting paths, O(n²m). Source: Kuhn 1955, in
 * the form of Jonker and Volgenant 1987.
 */

/**
 * `far[i][j]` says how far left `i` is from right `j`, from 0 to 1; what is beyond `most` is no pair.
 * Gives for each left its right, or -1. More pairs are better than nearer ones; of equal ones the first in order.
 */
export function assign(far: readonly (readonly number[])[], most: number): number[] {
  const rows = far.length;
  const columns = far[0]?.length ?? 0;
  if (rows === 0 || columns === 0) return far.map(() => -1);
  if (rows > columns) {
    const turned = assign(
      Array.from({ length: columns }, (_, j) => far.map((row) => elementAt(row, j))),
      most,
    );
    const out = new Array<number>(rows).fill(-1);
    turned.forEach((i, j) => {
      if (i >= 0) out[i] = j;
    });
    return out;
  }
  // No pair at all costs more than any number of far ones.
  const cost = (i: number, j: number) => {
    const between = far[i]?.[j];
    return between !== undefined && between <= most ? between : 1000;
  };
  const [u, v] = [new Float64Array(rows + 1), new Float64Array(columns + 1)];
  const taken = new Int32Array(columns + 1);
  for (let i = 1; i <= rows; i++) augment(i, columns, cost, u, v, taken);
  const out = new Array<number>(rows).fill(-1);
  for (let j = 1; j <= columns; j++) {
    const i = elementAt(taken, j);
    if (i > 0 && cost(i - 1, j - 1) <= most) out[i - 1] = j - 1;
  }
  return out;
}

function augment(
  i: number,
  columns: number,
  cost: (i: number, j: number) => number,
  u: Float64Array,
  v: Float64Array,
  taken: Int32Array,
): void {
  const least = new Float64Array(columns + 1).fill(Number.POSITIVE_INFINITY);
  const way = new Int32Array(columns + 1);
  const used = new Uint8Array(columns + 1);
  taken[0] = i;
  let at = 0;
  do {
    used[at] = 1;
    const row = elementAt(taken, at);
    let [delta, next] = [Number.POSITIVE_INFINITY, 0];
    for (let j = 1; j <= columns; j++) {
      if (used[j]) continue;
      const reduced = cost(row - 1, j - 1) - elementAt(u, row) - elementAt(v, j);
      if (reduced < elementAt(least, j)) {
        least[j] = reduced;
        way[j] = at;
      }
      if (elementAt(least, j) < delta) {
        delta = elementAt(least, j);
        next = j;
      }
    }
    for (let j = 0; j <= columns; j++) {
      if (used[j]) {
        u[elementAt(taken, j)] = elementAt(u, elementAt(taken, j)) + delta;
        v[j] = elementAt(v, j) - delta;
      } else least[j] = elementAt(least, j) - delta;
    }
    at = next;
  } while (taken[at] !== 0);
  while (at !== 0) {
    const before = elementAt(way, at);
    taken[at] = elementAt(taken, before);
    at = before;
  }
}
