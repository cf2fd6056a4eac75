/** Takes back what a batch made where it never ended, without a journal: what nobody else can have been in. */
import type { Change } from './change';
import type { Place } from './place';
import { codeOf, type Port } from './port';

const depthOf = ({ path }: Place): number => path.split('/').length;

/** Files go first, then folders from the inside. Gives the places that had to stay, as something else is in them. */
export async function takeBackMade(changes: readonly Change[], port: Port): Promise<Place[]> {
  const stayed: Place[] = [];
  const made = changes.flatMap(({ entry, before, after }) =>
    before === null && after !== null ? [{ entry, after }] : [],
  );
  for (const { entry, after } of made.sort(
    (a, b) => depthOf(b.after) - depthOf(a.after) || (a.entry === 'file' ? -1 : 1),
  )) {
    try {
      await (entry === 'file' ? port.remove(after) : port.unmake(after));
    } catch (error) {
      if (codeOf(error) !== 'ENOENT') stayed.push(after);
    }
  }
  return stayed;
}
