/** Places of loose files, in words. */
import type { IntakeState } from '../planners/intake/given';
import type { PlaceReason } from '../planners/intake/places';
import { assertNever } from '../result';

export const INTAKE_STATE_WORDS: Readonly<Record<IntakeState, string>> = {
  orphan: 'No place is known',
  look: 'To look at',
  comes: 'Comes',
  left: 'Left',
  twice: 'In the heap twice',
  there: 'In the project already',
  system: 'Left by a program',
};

export function placeReasonWords({ code, value }: PlaceReason): string {
  switch (code) {
    case 'name':
      return 'its name follows the rules there';
    case 'form':
      return `its name is made like “${value}”`;
    case 'entry':
      return `its path says “${value}”`;
    case 'day':
      return `made on ${value}`;
    case 'night':
      return `made after midnight, in the night of ${value}`;
    case 'word':
      return `“${value}” stands in its path`;
    case 'purpose':
      return `“${value}” is what belongs there`;
    case 'code':
      return `its path says ${value}`;
    case 'side':
      return `it belongs to ${value}`;
    default:
      return assertNever(code);
  }
}
