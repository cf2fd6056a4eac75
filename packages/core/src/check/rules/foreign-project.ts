import { sameDomain } from '../../name/mend/candidates';
import type { Reading } from '../../name/pattern/field';
import { readName } from '../../name/read/read';
import type { FolderConvention } from '../../project/folder-convention';
import { frameless } from '../../project/frameless';
import type { FileCase, Rule } from '../rule';

/** A name that is right but for another project's number or client. */
export const foreignProject: Rule = {
  code: 'foreign-project',
  scope: 'file',
  judge: (c) => {
    for (const convention of c.conventions) {
      const foreign = readAsForeign(c, convention);
      if (foreign !== null)
        return { path: c.path, ...frameless(convention.strict, c.path), params: { name: c.file.name, ...foreign } };
    }
    return null;
  },
};

/** Read with any project's number and client. */
export function readForeign({ foreign, bound }: FolderConvention, name: string): Reading | null {
  if (foreign === null) return null;
  const { number: _number, client: _client, ...rest } = bound;
  return readName(foreign, name, rest);
}

/** The same name as this project would have it. */
export const ownOf = ({ bound }: FolderConvention, reading: Reading): Reading => ({
  ...reading,
  ...(bound.number !== undefined && { number: bound.number }),
  ...(bound.client !== undefined && { client: bound.client }),
});

function readAsForeign(
  { rules, file }: FileCase,
  convention: FolderConvention,
): { number: string; client: string; own: string } | null {
  const reading = readForeign(convention, file.name);
  if (reading === null) return null;
  const number = reading.number === undefined ? '' : String(reading.number);
  const client = reading.client === undefined ? '' : String(reading.client);
  const otherNumber =
    number !== '' && rules.number !== undefined && number !== rules.number && sameDomain(number, rules.number);
  const otherClient = client !== '' && rules.client !== undefined && client !== rules.client;
  // Any text at all may stand where a number does: only one of the same form is another project's.
  if (number !== '' && number !== rules.number && !otherNumber) return null;
  if (!otherNumber && !otherClient) return null;
  return {
    number: otherNumber ? number : '',
    client: otherClient ? client : '',
    own: rules.number ?? rules.client ?? '',
  };
}
