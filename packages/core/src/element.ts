/** An element that is known to be there. That it is not is a mistake of the program's, and throws. */
export function elementAt<T>(list: ArrayLike<T>, index: number): T {
  const element = list[index];
  if (element === undefined) throw new RangeError(`no element ${index} of ${list.length}`);
  return element;
}
