/** Places in the order in which folders come before what is in them. */
import type { Place } from './place';

export function depthOf({ path }: Place): number {
  let depth = 1;
  for (let i = 0; i < path.length; i++) if (path.charCodeAt(i) === 47) depth++;
  return depth;
}

interface Deep {
  readonly depth: number;
  readonly at: Place;
}

export const byPlace = (a: Place, b: Place): number => {
  const [x, y] = a.root === b.root ? [a.path, b.path] : [a.root, b.root];
  return x < y ? -1 : x > y ? 1 : 0;
};
export const byDepth = (a: Deep, b: Deep): number => a.depth - b.depth || byPlace(a.at, b.at);
