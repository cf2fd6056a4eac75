import path from 'node:path';
import { type PathLine, parseListing } from '@nesting/core/listing';
import { deriveTemplate, type Known, type Question } from '@nesting/core/template';
import { QUESTION_WORDS } from '@nesting/core/words';
import { TASKS } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import { listingOf, type Options, registersOf, valuesOf } from '../input';
import { print, say } from '../output';
import { requireFolder, wholePath } from '../project-folder';

/** Names looked at: beyond them the rest says nothing new. */
const MOST_NAMES = 200_000;

/** A template file from a project that is there; what could not be told is asked on standard error. */
export async function derive(options: Options): Promise<Exit> {
  const lines =
    options.listing === undefined ? await linesOf(options.positionals[0]) : listingOf(options.listing, parseListing);
  if (lines.length === 0) throw new Unusable('there is nothing to derive a template from');
  const { template, questions } = deriveTemplate(lines, knownOf(options), registersOf(options));
  await print(`${JSON.stringify(template, null, 2)}\n`);
  for (const question of questions) say(`question: ${asked(question)}`);
  return questions.length > 0 ? EXIT.findings : EXIT.ok;
}

/** With the folder's own name in front: it says the number, the client and the title. */
async function linesOf(dir: string | undefined): Promise<PathLine[]> {
  if (dir === undefined) throw new Unusable("give a project's folder");
  requireFolder(dir);
  const root = wholePath(dir);
  const { paths, whole } = await TASKS.namesBelow.run({ where: { base: root, folder: '' }, most: MOST_NAMES });
  if (!whole) say(`note: the first ${MOST_NAMES} names are looked at`);
  const name = path.basename(root);
  return paths.map((at) => ({
    path: `${name}/${at.replace(/\/$/, '')}`,
    folder: at.endsWith('/'),
    size: 0,
    modified: 0,
  }));
}

function knownOf(options: Options): Known {
  const values = valuesOf(options);
  const text = (key: string) => {
    const value = values[key];
    return typeof value === 'string' || typeof value === 'number' ? { [key]: String(value) } : {};
  };
  return { ...text('number'), ...text('client'), ...text('title') };
}

const asked = ({ code, path: at, names }: Question): string =>
  `${at === '' ? '' : `${at}: `}${names.join(', ')} ${QUESTION_WORDS[code]}`;
