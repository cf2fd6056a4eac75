/**
 * Writing templates: a letter in a template of 5,000 folders until its outline and sample are worked out; deriving from
 * 200,000 lines; pasting 100,000.
 */
import { parseListing } from '@nesting/core/listing';
import { NO_REGISTERS } from '@nesting/core/name';
import {
  deriveTemplate,
  diagnoseTemplate,
  type FolderNode,
  findFolder,
  insertFolders,
  setFolder,
  type Template,
} from '@nesting/core/template';
import { foldersFromText } from '../packages/web/src/features/templates/editor/paste';
import { rowsOf } from '../packages/web/src/features/templates/editor/rows';
import { sampleOf } from '../packages/web/src/features/templates/editor/sample';
import { line, median } from './measure';

const wide = (id: string, n: number, inner: (id: string) => FolderNode[]): FolderNode[] =>
  Array.from({ length: n }, (_, i) => ({ id: `${id}-${i}`, name: `folder-${i}`, folders: inner(`${id}-${i}`) }));

function time(rounds: number, work: (i: number) => void): number {
  return median(
    Array.from({ length: rounds + 1 }, (_, i) => {
      const start = performance.now();
      work(i);
      return performance.now() - start;
    }).slice(1),
  );
}

export function benchTemplates(): void {
  const root: FolderNode = {
    id: 'root',
    name: '{number}_{title:kebab}',
    numbering: { digits: 2, joiner: '_' },
    folders: wide('a', 17, (a) => wide(a, 17, (b) => wide(b, 16, () => []))),
  };
  const template: Template = {
    format: 'nesting/template',
    formatVersion: 1,
    id: 't',
    name: 'T',
    fields: [{ key: 'title', type: 'text' }],
    conventions: [],
    root,
  };
  const none = new Set<string>();
  const letter = time(15, (i) => {
    const next = { ...template, root: setFolder(root, 'a-8-8-8', { name: `written-${i}` }) };
    rowsOf(next, next.root, none);
  });
  line(
    `a letter in ${rowsOf(template, root, none).length} folders: the outline's rows`,
    `${letter.toFixed(1)} ms`,
    'under 16 ms',
    letter < 16,
  );
  const values = { number: '26001', title: 'Sample' };
  const laid = time(15, (i) => {
    const next = { ...template, root: setFolder(root, 'a-8-8-8', { name: `written-${i}` }) };
    rowsOf(next, next.root, none);
    diagnoseTemplate(next, NO_REGISTERS);
    sampleOf(next, NO_REGISTERS, values);
  });
  line('  with its faults and the sample laid over it', `${laid.toFixed(1)} ms`, 'under 16 ms', laid < 16);

  const pasted = Array.from({ length: 100_000 }, (_, i) => `top-${i % 40}/middle-${i % 1000}/leaf-${i}/`).join('\n');
  const paste = time(3, () => {
    const { nodes } = foldersFromText(pasted, new Set(['root']), null);
    rowsOf(template, insertFolders({ id: 'root', name: 'r' }, { parent: 'root', index: 0 }, nodes), none);
  });
  line('a listing of 100,000 lines pasted (50,000 taken)', `${(paste / 1000).toFixed(2)} s`, 'under 1 s', paste < 1000);

  const files = Array.from({ length: 200_000 }, (_, i) => {
    const [place, scene, v] = [i % 40, Math.floor(i / 40) % 25, Math.floor(i / 1000)];
    return `26014_QHT_harbour-lights/40_motion/place-${String.fromCharCode(97 + (place % 26))}${place}/s${String(scene + 1).padStart(2, '0')}/${v % 2 === 0 ? 'working' : 'renders'}/26014_place_s${String(scene + 1).padStart(2, '0')}_v${String(v + 1).padStart(3, '0')}.usda`;
  }).join('\n');
  let folders = 0;
  const derive = time(3, () => {
    folders =
      findFolder(deriveTemplate(parseListing(files), {}, NO_REGISTERS).template.root, 'motion')?.node.folders?.length ??
      0;
  });
  if (folders === 0) throw new Error('nothing was derived');
  line('derive from a listing of 200,000 lines', `${(derive / 1000).toFixed(2)} s`, 'under 5 s', derive < 5000);
}
