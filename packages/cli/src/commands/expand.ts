import { randomUUID } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import { inMakingOrder, type Made } from '@nesting/core/planners';
import { type FilledStep, planOutline, planPaths, planPowerShell, planSh } from '@nesting/core/report';
import { type Expansion, expandTemplate, type Template } from '@nesting/core/template';
import { base64 } from '@nesting/core/text';
import { wordsFor } from '@nesting/core/words';
import { ZipFile } from 'yazl';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, registersOf, templateOf, valuesOf } from '../input';
import { print, say } from '../output';
import { type Making, makingOf } from '../starters';

const FORMS = ['paths', 'json', 'outline', 'sh', 'powershell', 'zip'] as const;

/** Prints the plan of a project; what cannot be written is said on standard error. */
export async function expand(options: Options): Promise<Exit> {
  const [file] = options.positionals;
  if (file === undefined) throw new Unusable('give a template file');
  const form = FORMS.find((f) => f === (options.as ?? 'paths'));
  if (form === undefined) throw new Unusable(`--as ${options.as}: one of ${FORMS.join(', ')}`);
  const { template, folder } = templateOf(file);
  const expansion = expandTemplate(template, valuesOf(options), registersOf(options));
  if (form !== 'json') sayDiagnostics(expansion);
  await print(await printed(form, template, folder, expansion));
  return refused(expansion) ? EXIT.findings : EXIT.ok;
}

export const refused = (expansion: Expansion): boolean => expansion.diagnostics.some((d) => d.weight === 'refused');

export function sayDiagnostics(expansion: Expansion): void {
  for (const d of expansion.diagnostics)
    say(
      `${d.weight === 'refused' ? 'refused' : 'note'}: ${d.line ?? d.node ?? d.field ?? ''}: ${wordsFor(d.code, d.params)}`,
    );
}

async function printed(
  form: (typeof FORMS)[number],
  template: Template,
  folder: string,
  expansion: Expansion,
): Promise<string | Uint8Array> {
  const making = () => makingOf(template, folder, expansion, randomUUID(), new Date().toISOString());
  switch (form) {
    case 'paths':
      return planPaths(expansion);
    case 'outline':
      return planOutline(expansion);
    case 'json':
      return planJson(expansion);
    case 'sh':
      return planSh(expansion.rootName, filled(making()));
    case 'powershell':
      return `\ufeff${planPowerShell(expansion.rootName, filled(making()))}`;
    case 'zip':
      return zipped(expansion.rootName, making());
  }
}

export function planJson(expansion: Expansion): string {
  const plan = {
    root: expansion.rootName,
    folders: expansion.folders,
    files: expansion.files,
    longestPath: expansion.longest,
    pathBudget: expansion.budget,
    lines: expansion.lines.map((l) => ({
      key: l.key,
      node: l.node,
      kind: l.kind,
      path: l.path,
      presence: l.presence,
      made: l.made,
      ...(Object.keys(l.entries).length > 0 && { entries: l.entries }),
    })),
    diagnostics: expansion.diagnostics.map((d) => ({
      code: d.code,
      weight: d.weight,
      node: d.node,
      line: d.line,
      field: d.field,
      message: wordsFor(d.code, d.params),
    })),
  };
  return `${JSON.stringify(plan, null, 2)}\n`;
}

const inOrder = ({ changes }: Making): readonly Made[] => {
  const made = inMakingOrder(changes);
  return made.ok ? made.value : [];
};

const filled = (making: Making): FilledStep[] =>
  inOrder(making).map((one) =>
    one.entry === 'folder'
      ? { do: 'make', path: one.path }
      : { do: 'write', path: one.path, base64: base64(making.bytesOf(one.content)) },
  );

/** Empty folders are entries of their own; times are those of the moment, so that unpacked files are not of 1980. */
async function zipped(rootName: string, making: Making): Promise<Uint8Array> {
  const zip = new ZipFile();
  zip.addEmptyDirectory(rootName);
  for (const one of inOrder(making)) {
    if (one.entry === 'folder') zip.addEmptyDirectory(`${rootName}/${one.path}`);
    else zip.addBuffer(Buffer.from(making.bytesOf(one.content)), `${rootName}/${one.path}`);
  }
  zip.end();
  return buffer(zip.outputStream);
}
