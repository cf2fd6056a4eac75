/**
 * A template as a page to hand to somebody: the hierarchy with what each folder is for, conventions with examples.
 * Markdown (CommonMark).
 */
import { compileConvention } from '../name/pattern/compile';
import { examplePieces } from '../name/pattern/example';
import { type Field, mergeRegisters, type Registers } from '../name/pattern/field';
import { parsePattern } from '../name/pattern/parse';
import { type Convention, type FolderNode, ownRegisters, type Template } from '../template/node';
import { type ResolvedFolder, resolveTemplate } from '../template/resolve';

export interface PageFolder {
  readonly depth: number;
  readonly name: string;
  readonly notes: readonly string[];
}

export interface TemplatePage {
  readonly folders: readonly PageFolder[];
  readonly conventions: readonly {
    readonly name: string;
    readonly pattern: string;
    readonly example: string;
    readonly families: string;
  }[];
}

export function templatePage(template: Template, studio: Registers): TemplatePage {
  const registers = mergeRegisters(ownRegisters(template), studio);
  const folders: PageFolder[] = [];
  const walk = (folder: ResolvedFolder, depth: number): void => {
    folders.push({
      depth,
      name: `${folder.numberPrefix}${folder.node.name ?? ''}`,
      notes: notesOf(folder.node, template),
    });
    for (const child of folder.folders) walk(child, depth + 1);
  };
  walk(resolveTemplate(template, registers).root, 0);
  return {
    folders,
    conventions: template.conventions.map((c) => ({
      name: c.name,
      pattern: c.pattern,
      example: exampleOf(c, template, registers),
      families: c.families?.join(', ') ?? 'every family',
    })),
  };
}

function notesOf(node: FolderNode, template: Template): string[] {
  const calls = (node.conventions ?? []).flatMap((id) => template.conventions.find((c) => c.id === id)?.name ?? []);
  return [
    ...(node.purpose ? [node.purpose.replace(/\.$/, '')] : []),
    ...(node.onePer ? [`one for each of ${node.onePer.list}`] : []),
    ...(node.onlyWhen ? [`only when ${node.onlyWhen.field} is ${[node.onlyWhen.is].flat().join(' or ')}`] : []),
    ...(node.presence && node.presence !== 'always'
      ? [node.presence === 'optional' ? 'made where it is chosen' : 'made when somebody needs it']
      : []),
    ...(node.accepts === undefined
      ? []
      : [node.accepts.length === 0 ? 'no files' : `takes ${node.accepts.join(', ')}`]),
    ...(calls.length > 0 ? [`files are called as: ${calls.join(', ')}`] : []),
    ...(node.starters ?? []).map((s) => `starter file ${s.name}`),
  ];
}

function exampleOf(convention: Convention, template: Template, registers: Registers): string {
  const pattern = parsePattern(convention.pattern);
  const entries = template.fields.flatMap((f): Field[] =>
    f.type === 'list' ? [{ key: f.key.replace(/s$/, ''), ...f.of }] : [],
  );
  const compiled = pattern.ok
    ? compileConvention(pattern.value, {
        fields: [...(convention.fields ?? []), ...entries, ...template.fields],
        registers,
        families: convention.families,
      })
    : null;
  return compiled?.ok
    ? examplePieces(compiled.value, {})
        .map((p) => p.text)
        .join('')
    : '';
}

const plain = (text: string): string => text.replace(/([\\`*_{}[\]<>#|])/g, '\\$1');
/** A name in a code span, longer ticks where it holds some. */
const code = (text: string): string => (text.includes('`') ? `\`\` ${text} \`\`` : `\`${text}\``);

export function templateMarkdown(template: Template, studio: Registers): string {
  const { folders, conventions } = templatePage(template, studio);
  return [
    `# ${plain(template.name)}`,
    '',
    ...(template.purpose ? [plain(template.purpose), ''] : []),
    '## Folders',
    '',
    ...folders.map(
      (f) => `${'  '.repeat(f.depth)}- ${code(f.name)}${f.notes.length > 0 ? `: ${plain(f.notes.join('; '))}` : ''}`,
    ),
    '',
    ...(conventions.length === 0
      ? []
      : [
          '## How files are called',
          '',
          ...conventions.map(
            (c) =>
              `- **${plain(c.name)}** (${plain(c.families)}): ${code(c.pattern)}${c.example === '' ? '' : `, such as ${code(c.example)}`}`,
          ),
          '',
        ]),
  ].join('\n');
}

/** The hierarchy as an indented outline, which pasted gives the same tree. */
export const templateOutline = (template: Template, studio: Registers): string =>
  templatePage(template, studio)
    .folders.map((f) => `${'  '.repeat(f.depth)}${f.name}/\n`)
    .join('');
