/**
 * A project in good order, as a listing in memory with contents where they matter, and a check of it as a disk would
 * have it.
 */
import { readFileSync } from 'node:fs';
import { parseRegisters, parseTemplate } from '@nesting/contract';
import {
  Checker,
  type ContentFact,
  contentTasks,
  contentWants,
  type Finding,
  judgeWhole,
  withContents,
} from '@nesting/core/check';
import { type FolderListing, join, type MediaFacts } from '@nesting/core/listing';
import type { Registers, Values } from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { refFormatOf } from '@nesting/core/references';
import type { FolderNode, Template } from '@nesting/core/template';

export interface Entry {
  readonly folder: boolean;
  readonly size: number;
  readonly modified: number;
  /** What stands in it: two files of one content are the same. Without it every file has its own. */
  readonly content?: string;
  /** What a reader of media would tell of it. */
  readonly facts?: MediaFacts;
}

/** Paths from the project's root. */
export type Disk = Map<string, Entry>;

export const VALUES: Values = {
  number: '26011',
  title: 'Curtain Rise',
  client: 'FNR',
  person: 'AP',
  date: '2026-04-18',
  surfaces: ['portico', 'fly-tower'],
  scenes: ['s01', 's02', 's03'],
  stands: ['gallery', 'lamp-bridge'],
  nights: ['2026-03-04'],
  speech: 'spoken',
  languages: ['en', 'nl'],
};

function parsed<T>(
  answer: { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: readonly unknown[] },
): T {
  if (!answer.ok) throw new Error(String(answer.faults[0]));
  return answer.value;
}

export function rules(): { template: Template; registers: Registers; rules: ProjectRules } {
  const template = parsed(parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8')));
  const registers = parsed(parseRegisters(readFileSync('demo/registers.json', 'utf8')));
  return {
    template,
    registers,
    rules: new ProjectRules({ template: withDue(template), values: VALUES, registers, now: Date.UTC(2026, 3, 20) }),
  };
}

/** Test nights are to be filled within three days. */
function withDue(template: Template): Template {
  const due = (node: FolderNode): FolderNode => ({
    ...node,
    ...(node.id === 'night' && { filledWithinDays: 3 }),
    ...(node.folders && { folders: node.folders.map(due) }),
  });
  return { ...template, root: due(template.root) };
}

const WHEN = Date.UTC(2026, 2, 6);
export const file = (size = 1000, content?: string): Entry => ({
  folder: false,
  size,
  modified: WHEN,
  ...(content !== undefined && { content }),
});
export const folder: Entry = { folder: true, size: 0, modified: 0 };

/** In good order: no finding. */
export function goodDisk(of: ProjectRules): Disk {
  const disk: Disk = new Map();
  for (const line of of.expansion.lines)
    if (line.made && line.path !== '') disk.set(line.path, line.kind === 'folder' ? folder : file());
  const add = (path: string) => disk.set(path, file());
  for (const surface of ['portico', 'fly-tower']) {
    for (const scene of ['s01', 's02', 's03']) {
      const at = `40_motion/${surface}/${scene}`;
      disk.set(`${at}/working/older`, folder);
      for (const v of [1, 2]) add(`${at}/working/older/26011_${surface}_${scene}_anim_BO_v00${v}.usda`);
      add(`${at}/working/26011_${surface}_${scene}_anim_BO_v003.usda`);
      for (let f = 1; f <= 24; f++)
        add(`${at}/renders/26011_${surface}_${scene}_comp_v003.${String(f).padStart(4, '0')}.exr`);
    }
  }
  for (const v of [1, 2, 3]) add(`50_sound/music/26011_MUS_v0${v}.wav`);
  for (const scene of ['s01', 's02', 's03']) {
    add(`50_sound/atmosphere/26011_ATM_${scene}_v01.wav`);
    for (const language of ['en', 'nl']) add(`50_sound/speech/${language}/26011_SPK_${language}_${scene}_v01.wav`);
  }
  for (const stand of ['gallery', 'lamp-bridge']) {
    add(`80_masters/26011_MST_${stand}.mov`);
    for (let n = 20; n < 26; n++) add(`20_survey/test-nights/${stand}/2026-03-04/${stand}_2026-03-04_00${n}.jpg`);
  }
  for (let n = 1; n < 9; n++) add(`20_survey/site-photos/gallery_2026-01-1${n}_000${n}.jpg`);
  for (const [at, subject] of [
    ['quotes', 'quote'],
    ['permits', 'road-closure'],
    ['schedules', 'nights'],
    ['rights', 'music'],
  ] as const)
    add(`10_paperwork/${at}/2026-02-11_${subject}_curtain-rise.pdf`);
  for (const subject of ['opening', 'tide', 'return']) add(`30_design/boards/26011_BRD_${subject}_v002.png`);
  add('30_design/palettes/26011_PAL_stone_v001.svg');
  add('70_library/stock/gulls.wav');
  add('70_library/stock/gulls.licence.txt');
  add('90_cache/west.cache');
  return disk;
}

export function listingOf(disk: Disk): FolderListing[] {
  const folders = new Map<string, { folders: string[]; files: { name: string; size: number; modified: number }[] }>([
    ['', { folders: [], files: [] }],
  ]);
  for (const path of [...disk.keys()].sort()) if (disk.get(path)?.folder) folders.set(path, { folders: [], files: [] });
  for (const [path, entry] of disk) {
    const above = folders.get(path.slice(0, Math.max(0, path.lastIndexOf('/'))));
    const name = path.slice(path.lastIndexOf('/') + 1);
    if (entry.folder) above?.folders.push(name);
    else above?.files.push({ name, size: entry.size, modified: entry.modified });
  }
  return [...folders].map(([path, inside]) => ({
    path,
    folders: inside.folders.sort(),
    files: inside.files.sort((a, b) => (a.name < b.name ? -1 : 1)),
    others: [],
  }));
}

/** Whole paths of the project's root. */
export const ROOTS = ['/srv/studio/26011_FNR_curtain-rise', 'P:\\26011_FNR_curtain-rise'];

/** A check with a look into every file, as a disk would give it. */
export function checkDisk(of: ProjectRules, disk: Disk): readonly Finding[] {
  const listings = new Map(listingOf(disk).map((l) => [l.path, l]));
  const checker = new Checker(of);
  for (const listing of listings.values()) checker.folder(listing);
  const part = checker.part();
  const outcome = judgeWhole(of, part, (path) => listings.get(path) ?? null);
  const wants = contentWants(part);
  const facts = [...listings.values()].flatMap((listing) => factsIn(of, disk, listing, wants));
  const namesIn = (folder: string) => {
    const listing = listings.get(folder);
    return listing === undefined ? null : new Set([...listing.files.map((f) => f.name), ...listing.folders]);
  };
  return withContents(of, outcome, {
    facts,
    roots: ROOTS,
    namesIn,
  }).findings;
}

function factsIn(
  of: ProjectRules,
  disk: Disk,
  listing: FolderListing,
  wants: ReturnType<typeof contentWants>,
): ContentFact[] {
  const { hash, runs, search } = contentTasks(of, listing, wants);
  const contentOf = (path: string) => disk.get(path)?.content ?? path;
  return [
    ...search.flatMap((f): ContentFact[] => {
      const path = join(listing.path, f.name);
      const facts = disk.get(path)?.facts;
      return facts === undefined ? [] : [{ kind: 'told', path, modified: f.modified, facts }];
    }),
    ...hash.map(
      (f): ContentFact => ({
        kind: 'hash',
        path: join(listing.path, f.name),
        frames: 1,
        size: f.size,
        modified: f.modified,
        sha256: contentOf(join(listing.path, f.name)),
      }),
    ),
    ...runs.map((run): ContentFact => {
      const frames = [...run.names].sort();
      return {
        kind: 'hash',
        path: join(listing.path, frames[0] ?? ''),
        frames: frames.length,
        size: run.bytes,
        modified: run.newest,
        sha256: frames.map((name) => contentOf(join(listing.path, name))).join(),
      };
    }),
    ...search.flatMap((f): ContentFact[] => {
      const path = join(listing.path, f.name);
      const content = disk.get(path)?.content;
      const format = content === undefined ? null : refFormatOf(f.name);
      return format === null || content === undefined
        ? []
        : [
            {
              kind: 'references',
              path,
              modified: f.modified,
              targets: format.find(content).map((r) => r.target),
              holdsRoot: false,
            },
          ];
    }),
  ];
}
