/** Sentences for what differs between two editions. */
import { assertNever } from '../result';
import type { Difference } from '../template/diff';

const SETTINGS: Readonly<Record<string, string>> = {
  number: 'its number',
  unnumbered: 'whether it has a number',
  purpose: 'what it is for',
  mark: 'its mark',
  presence: 'when it is made',
  accepts: 'the families it takes',
  conventions: 'how its files are called',
  free: 'whether anything goes',
  onePer: 'the list it is made for',
  onlyWhen: 'its condition',
  signpost: 'its path for programs',
  stable: 'whether its names stay',
  licensed: 'whether it is licensed',
  cards: 'whether cards come here',
  checksums: 'whether checksums lie beside what comes',
  outsiders: 'whether outsiders may have it',
  limitBytes: 'its limit',
  deliveries: 'what must be delivered into it',
  filledWithinDays: 'when it should hold something',
  frames: 'the frames expected in it',
  older: 'where older versions go',
  numbering: 'its numbering',
  block: 'its shared part',
  label: 'its label',
  type: 'its type',
  of: 'its entries',
  max: 'its longest text',
  options: 'its list',
  required: 'whether it is needed',
  within: 'the list it is within',
  pattern: 'its pattern',
  fields: 'its fields',
  families: 'its families',
  name: 'its name',
  registers: 'its own lists',
  checks: 'its checks',
  setup: 'its setup sheet',
  help: 'its help',
  good: 'its good names',
  bad: 'its bad names',
  like: 'its form',
  chars: 'its characters',
};

const what = (keys: readonly string[]): string => keys.map((key) => SETTINGS[key] ?? key).join(', ');

export function differenceWords(d: Difference): string {
  switch (d.kind) {
    case 'added':
      return `New ${d.of}: ${d.where}`;
    case 'removed':
      return `No ${d.of} any more: ${d.where}`;
    case 'renamed':
      return `${d.from || 'nothing'} is called ${d.to || 'nothing'} (${d.of} in ${d.where})`;
    case 'moved':
      return `${d.where}: moved, it was ${d.from}`;
    case 'changed':
      return `${d.of === 'template' ? 'The template' : d.where}: ${what(d.what)} changed`;
    default:
      return assertNever(d);
  }
}
