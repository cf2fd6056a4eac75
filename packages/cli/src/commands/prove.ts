import { proveOneWay } from '@nesting/core/name';
import { EXIT, type Exit } from '../fail';
import { type Options, ruleOf } from '../input';
import { print } from '../output';

/** Whether any name could be read in two ways, with the shortest example; `null` where that was not decided in time. */
export async function prove(options: Options): Promise<Exit> {
  const verdict = proveOneWay(ruleOf(options).compiled);
  const said =
    verdict === 'one-way'
      ? { oneWay: true }
      : verdict === null
        ? { oneWay: null }
        : { oneWay: false, example: verdict };
  await print(`${JSON.stringify(said)}\n`);
  return verdict === 'one-way' ? EXIT.ok : EXIT.findings;
}
