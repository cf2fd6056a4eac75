/** A project in good order, and what a working week does to it: each damage with the findings that name it, and no others. Deterministic. */
import { readFileSync } from 'node:fs';
import { parseRegisters, parseTemplate } from '@nesting/contract';
import { CheckGround, Checker, type ContentFact, contentTasks, contentWants, type Finding, type FolderListing, type FolderNode, join, judgeWhole, refFormatOf, type Registers, type RuleCode, type Template, type Values, withContents } from '@nesting/core';

export interface Entry {
  readonly folder: boolean;
  readonly size: number;
  readonly modified: number;
  /** What stands in it: two files of one content are the same. Without it every file has its own. */
  readonly content?: string;
}

/** Paths from the project's root. */
export type Disk = Map<string, Entry>;

export interface Expected {
  readonly rule: RuleCode;
  readonly path: string;
}

export interface DiskDamage {
  readonly kind: string;
  /** Does it somewhere; what a check is to find then, and the places nobody else may damage; `null` where there is no place left. */
  readonly act: (disk: Disk, pick: Pick, spared: (path: string) => boolean) => { readonly expected: readonly Expected[]; readonly touched: readonly string[] } | null;
}

type Pick = <T>(all: readonly T[]) => T | undefined;

export const VALUES: Values = { number: '26011', title: 'Curtain Rise', client: 'FNR', person: 'AP', date: '2026-04-18', surfaces: ['portico', 'fly-tower'], scenes: ['s01', 's02', 's03'], projectors: ['A', 'B'], nights: ['2026-03-04'], voice: 'spoken', languages: ['en', 'nl'] };

function parsed<T>(answer: { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: readonly unknown[] }): T {
  if (!answer.ok) throw new Error(String(answer.faults[0]));
  return answer.value;
}

export function ground(): { template: Template; registers: Registers; ground: CheckGround } {
  const template = parsed(parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8')));
  const registers = parsed(parseRegisters(readFileSync('demo/registers.json', 'utf8')));
  return { template, registers, ground: new CheckGround({ template: withDue(template), values: VALUES, registers, now: Date.UTC(2026, 3, 20) }) };
}

/** Test nights are to be filled within three days. */
function withDue(template: Template): Template {
  const due = (node: FolderNode): FolderNode => ({ ...node, ...(node.id === 'night' && { filledWithinDays: 3 }), ...(node.folders && { folders: node.folders.map(due) }) });
  return { ...template, root: due(template.root) };
}

const WHEN = Date.UTC(2026, 2, 6);
const file = (size = 1000, content?: string): Entry => ({ folder: false, size, modified: WHEN, ...(content !== undefined && { content }) });
const folder: Entry = { folder: true, size: 0, modified: 0 };

/** In good order: no finding. */
export function goodDisk(of: CheckGround): Disk {
  const disk: Disk = new Map();
  for (const line of of.expansion.lines) if (line.made && line.path !== '') disk.set(line.path, line.kind === 'folder' ? folder : file());
  const add = (path: string) => disk.set(path, file());
  for (const surface of ['portico', 'fly-tower']) {
    for (const scene of ['s01', 's02', 's03']) {
      const at = `05_motion/${surface}/${scene}`;
      disk.set(`${at}/working/older`, folder);
      for (const v of [1, 2]) add(`${at}/working/older/26011_${surface}_${scene}_anim_BO_v00${v}.usda`);
      add(`${at}/working/26011_${surface}_${scene}_anim_BO_v003.usda`);
      for (let f = 1; f <= 24; f++) add(`${at}/renders/26011_${surface}_${scene}_comp_v003.${String(f).padStart(4, '0')}.exr`);
    }
  }
  for (const v of [1, 2, 3]) add(`06_sound/music/26011_MX_v0${v}.wav`);
  for (const scene of ['s01', 's02', 's03']) {
    add(`06_sound/effects/26011_FX_${scene}_v01.wav`);
    for (const language of ['en', 'nl']) add(`06_sound/voice/${language}/26011_VO_${language}_${scene}_v01.wav`);
  }
  for (const projector of ['A', 'B']) {
    add(`08_masters/26011_MS_${projector}.mov`);
    for (let n = 20; n < 26; n++) add(`02_survey/test-nights/2026-03-04/${projector}/2026-03-04_${projector}_00${n}.jpg`);
  }
  for (let n = 1; n < 9; n++) add(`02_survey/site-photos/2026-01-1${n}_000${n}.jpg`);
  for (const [at, subject] of [['quotes', 'quote'], ['permits', 'road-closure'], ['schedules', 'nights'], ['rights', 'music']] as const) add(`01_paperwork/${at}/2026-02-11_${subject}_curtain-rise.pdf`);
  for (const subject of ['opening', 'tide', 'return']) add(`03_design/boards/26011_SB_${subject}_v002.png`);
  add('03_design/palettes/26011_PAL_stone_v001.svg');
  add('07_library/stock/gulls.wav');
  add('07_library/stock/gulls.licence.txt');
  add('09_cache/west.cache');
  return disk;
}

export function listingOf(disk: Disk): FolderListing[] {
  const folders = new Map<string, { folders: string[]; files: { name: string; size: number; modified: number }[] }>([['', { folders: [], files: [] }]]);
  for (const path of [...disk.keys()].sort()) if (disk.get(path)?.folder) folders.set(path, { folders: [], files: [] });
  for (const [path, entry] of disk) {
    const above = folders.get(path.slice(0, Math.max(0, path.lastIndexOf('/'))));
    const name = path.slice(path.lastIndexOf('/') + 1);
    if (entry.folder) above?.folders.push(name);
    else above?.files.push({ name, size: entry.size, modified: entry.modified });
  }
  return [...folders].map(([path, inside]) => ({ path, folders: inside.folders.sort(), files: inside.files.sort((a, b) => (a.name < b.name ? -1 : 1)), others: [] }));
}

/** A check with a look into every file, as a disk would give it. */
export function checkDisk(of: CheckGround, disk: Disk): readonly Finding[] {
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
  return withContents(of, outcome, { facts, roots: ['/srv/studio/26011_FNR_curtain-rise', 'P:\\26011_FNR_curtain-rise'], namesIn }).findings;
}

function factsIn(of: CheckGround, disk: Disk, listing: FolderListing, wants: ReturnType<typeof contentWants>): ContentFact[] {
  const { hash, runs, search } = contentTasks(of, listing, wants);
  const contentOf = (path: string) => disk.get(path)?.content ?? path;
  return [
    ...hash.map((f): ContentFact => ({ kind: 'hash', path: join(listing.path, f.name), frames: 1, size: f.size, modified: f.modified, sha256: contentOf(join(listing.path, f.name)) })),
    ...runs.map((run): ContentFact => {
      const frames = [...run.names].sort();
      return { kind: 'hash', path: join(listing.path, frames[0] ?? ''), frames: frames.length, size: run.bytes, modified: run.newest, sha256: frames.map((name) => contentOf(join(listing.path, name))).join() };
    }),
    ...search.flatMap((f): ContentFact[] => {
      const path = join(listing.path, f.name);
      const content = disk.get(path)?.content;
      const format = content === undefined ? null : refFormatOf(f.name);
      return format === null || content === undefined ? [] : [{ kind: 'references', path, modified: f.modified, targets: format.find(content).map((r) => r.target), holdsRoot: false }];
    }),
  ];
}

export const findingsOf = (of: CheckGround, disk: Disk): Expected[] => checkDisk(of, disk).map(({ rule, path }) => ({ rule, path }));

const nameOf = (path: string) => path.slice(path.lastIndexOf('/') + 1);
const above = (path: string) => path.slice(0, Math.max(0, path.lastIndexOf('/')));

function moved(disk: Disk, from: string, to: string): void {
  for (const [path, entry] of [...disk]) {
    if (path !== from && !path.startsWith(`${from}/`)) continue;
    disk.delete(path);
    disk.set(to + path.slice(from.length), entry);
  }
}

function removed(disk: Disk, from: string): void {
  for (const path of [...disk.keys()]) if (path === from || path.startsWith(`${from}/`)) disk.delete(path);
}

const filesIn = (disk: Disk, test: RegExp, spared: (path: string) => boolean) => [...disk].filter(([path, e]) => !e.folder && test.test(path) && !spared(path)).map(([path]) => path).sort();

/** A file gets another name. */
const renamed = (kind: string, where: RegExp, name: (old: string) => string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const to = `${above(path)}/${name(nameOf(path))}`;
    if (disk.has(to)) return null;
    const entry = disk.get(path) as Entry;
    disk.delete(path);
    disk.set(to, entry);
    return { expected: [{ rule, path: to }], touched: [path, to] };
  },
});

/** A file comes that was not there. */
const added = (kind: string, where: readonly string[], name: (folder: string) => string, rule: RuleCode, size = 1000): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name(f) : `${f}/${name(f)}`)));
    if (at === undefined) return null;
    const path = at === '' ? name(at) : `${at}/${name(at)}`;
    if (disk.has(path)) return null;
    disk.set(path, file(size));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A working file that points somewhere. */
const pointing = (kind: string, target: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, WORKING, spared));
    if (path === undefined) return null;
    disk.set(path, file(1000, `#usda 1.0\ndef "a" (references = @${target}@) {}`));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A file comes that holds what another one holds. */
const doubled = (kind: string, where: RegExp, to: (path: string) => string, said?: (path: string, to: string) => string): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const copy = to(path);
    if (disk.has(copy) || spared(copy) || !disk.has(above(copy))) return null;
    disk.set(path, file(1000, `content of ${path}`));
    disk.set(copy, file(1000, `content of ${path}`));
    return { expected: [{ rule: 'same-content', path: said?.(path, copy) ?? ([path, copy].sort()[0] as string) }], touched: [path, copy] };
  },
});

const newFolder = (kind: string, where: readonly string[], name: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name : `${f}/${name}`)));
    if (at === undefined) return null;
    const path = at === '' ? name : `${at}/${name}`;
    if (disk.has(path)) return null;
    disk.set(path, folder);
    disk.set(`${path}/what ever.usda`, file());
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A planned folder gets a name that is nearly its own. */
const misspelt = (kind: string, where: readonly string[], name: (old: string) => string): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(where.filter((f) => disk.has(f) && !spared(f)));
    if (path === undefined) return null;
    const to = above(path) === '' ? name(nameOf(path)) : `${above(path)}/${name(nameOf(path))}`;
    moved(disk, path, to);
    return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [path, to] };
  },
});

const placed = (kind: string, from: string, to: string): DiskDamage => ({
  kind,
  act: (disk, _pick, spared) => {
    if (!disk.has(from) || !disk.has(above(to) || from) || spared(from) || spared(to)) return null;
    moved(disk, from, to);
    return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
  },
});

const WORKING = /\/working\/26011_[^/]*_v003\.usda$/;
const SOUND = /^06_sound\/(?:music|effects)\//;
const PAPER = /^01_paperwork\//;
const BOARD = /^03_design\/boards\//;
const workings = ['portico', 'fly-tower'].flatMap((s) => ['s01', 's02', 's03'].map((c) => `05_motion/${s}/${c}/working`));
const renders = workings.map((w) => w.replace('working', 'renders'));
const entriesOf = (at: string) => /05_motion\/([^/]+)\/([^/]+)/.exec(at)?.slice(1) ?? [];
const workingName = (at: string, change: Record<string, string> = {}) => {
  const [surface, scene] = entriesOf(at);
  const p = { number: '26011', surface, scene, task: 'anim', person: 'BO', version: 'v004', ...change };
  return `${p.number}_${p.surface}_${p.scene}_${p.task}_${p.person}_${p.version}.usda`;
};

export const DISK_DAMAGES: readonly DiskDamage[] = [
  // Folders.
  { kind: 'a folder removed', act: (disk, pick, spared) => {
    const path = pick(['01_paperwork/rights', '02_survey/measurements', '03_design/type', '06_sound/effects', '07_library/logos', '09_cache'].filter((f) => disk.has(f) && !spared(f)));
    if (path === undefined) return null;
    removed(disk, path);
    return { expected: [{ rule: 'missing-folder', path }], touched: [path] };
  } },
  misspelt('two letters exchanged', ['02_survey', '03_design', '08_masters'], (n) => n.replace(/(..)(.)(.)/, '$1$2$3').replace(/_(.)(.)(.)/, '_$1$3$2')),
  misspelt('its number left out', ['02_survey', '03_design', '06_sound', '07_library'], (n) => n.replace(/^\d+_/, '')),
  misspelt('another number in front', ['02_survey', '03_design', '08_masters'], (n) => n.replace(/^\d+/, '15')),
  misspelt('in capitals', ['02_survey/site-photos', '03_design/boards', '06_sound/music'], (n) => n.toUpperCase()),
  misspelt('a blank in place of a hyphen', ['02_survey/site-photos', '02_survey/test-nights'], (n) => n.replace('-', ' ')),
  misspelt('a letter twice', ['02_survey/measurements', '03_design/palettes', '01_paperwork/schedules'], (n) => n.replace(/(.)$/, '$1$1')),
  misspelt('a letter left out', ['02_survey/measurements', '03_design/palettes', '01_paperwork/permits'], (n) => n.replace(/^(..)./, '$1')),
  misspelt('run together', ['02_survey/site-photos', '02_survey/test-nights'], (n) => n.replace('-', '')),
  misspelt('an entry with a blank', ['05_motion/fly-tower'], () => 'fly tower'),
  newFolder('a folder of one’s own at the root', [''], 'misc', 'unplanned-folder'),
  newFolder('a folder of tests', ['05_motion', '05_motion/portico', '06_sound'], 'tests', 'unplanned-folder'),
  newFolder('old stuff', ['02_survey', '03_design', '08_masters'], 'old stuff', 'unplanned-folder'),
  newFolder('a scene nobody planned', ['05_motion/portico', '05_motion/fly-tower'], 's09', 'unplanned-folder'),
  newFolder('a folder doubled inside itself', ['08_masters'], '08_masters', 'misplaced-folder'),
  newFolder('a folder of the same name inside', ['03_design/boards'], 'boards', 'misplaced-folder'),
  placed('palettes among the masters', '03_design/palettes', '08_masters/palettes'),
  placed('music at the root', '06_sound/music', 'music'),
  placed('permits in the survey', '01_paperwork/permits', '02_survey/permits'),
  { kind: 'a starter file removed', act: (disk, pick, spared) => {
    const path = pick(['26011_brief.md', '26011_show.otio'].filter((f) => disk.has(f) && !spared(f)));
    if (path === undefined) return null;
    disk.delete(path);
    return { expected: [{ rule: 'missing-starter', path }], touched: [path] };
  } },
  // Names.
  renamed('yesterday’s project number', WORKING, (n) => n.replace('26011', '26009'), 'foreign-project'),
  renamed('another project’s sound', SOUND, (n) => n.replace('26011', '26014'), 'foreign-project'),
  renamed('a colon', PAPER, (n) => n.replace('_', ':'), 'unportable-name'),
  renamed('a blank at the end', BOARD, (n) => `${n} `, 'unportable-name'),
  added('a device’s name', ['03_design/boards', '01_paperwork/quotes'], () => 'con.png', 'unportable-name'),
  added('a path too long', ['09_cache'], () => `${'long'.repeat(55)}.cache`, 'path-too-long'),
  { kind: 'a name in other capitals beside it', act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, PAPER, spared));
    if (path === undefined) return null;
    const other = `${above(path)}/${nameOf(path).replace('curtain', 'Curtain')}`;
    disk.set(other, file());
    return { expected: [{ rule: 'name-clash', path: [path, other].sort()[0] as string }], touched: [path, other] };
  } },
  added('a temporary file beside the work', workings, () => 'preview.tmp', 'stray-generated'),
  added('an autosave among the frames', renders, () => 'scene.autosave', 'stray-generated'),
  added('what a system left behind', ['02_survey/site-photos', '06_sound/music', '03_design/boards'], () => '.DS_Store', 'stray-generated'),
  added('sound among the boards', ['03_design/boards', '03_design/palettes'], () => 'thump.wav', 'family-not-accepted'),
  added('a paper among the masters', ['08_masters'], () => 'notes.pdf', 'family-not-accepted'),
  added('a film beside the work', workings, () => 'reference.mov', 'family-not-accepted'),
  added('another scene’s working file', workings, (at) => workingName(at, { scene: entriesOf(at)[1] === 's01' ? 's02' : 's01' }), 'misplaced-file'),
  added('another surface’s working file', workings, (at) => workingName(at, { surface: entriesOf(at)[0] === 'portico' ? 'fly-tower' : 'portico' }), 'misplaced-file'),
  added('another scene’s frame', renders, (at) => `26011_${entriesOf(at)[0]}_${entriesOf(at)[1] === 's03' ? 's01' : 's03'}_comp_v003.0001.exr`, 'misplaced-file'),
  added('a file at the root', [''], () => 'to do for monday.txt', 'loose-file'),
  added('a film at the root', [''], () => '26011_MS_A_preview.mov', 'loose-file'),
  added('a file beside folders', ['05_motion', '05_motion/portico', '05_motion/fly-tower/s01'], () => 'readme.txt', 'loose-file'),
  added('a person nobody knows', workings, (at) => workingName(at, { person: 'XQ' }), 'unknown-code'),
  added('a task nobody knows', workings, (at) => workingName(at, { task: 'wobble' }), 'unknown-code'),
  renamed('a capital V', WORKING, (n) => n.replace('_v003', '_V003'), 'version-style'),
  renamed('a version without noughts', WORKING, (n) => n.replace('_v003', '_v3'), 'version-style'),
  renamed('ver in place of v', WORKING, (n) => n.replace('_v003', '_ver003'), 'version-style'),
  renamed('a sound’s version with a nought more', SOUND, (n) => n.replace(/_v(\d\d)/, '_v0$1'), 'version-style'),
  { kind: 'frames with other digits', act: (disk, pick, spared) => {
    const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) {
      const entry = disk.get(path) as Entry;
      disk.delete(path);
      disk.set(path.replace(/\.0*(\d+)\.exr$/, (_, n: string) => `.${n.padStart(2, '0')}.exr`), entry);
    }
    return { expected: [{ rule: 'sequence-padding', path: filesIn(disk, new RegExp(`^${at}/`), () => false)[0] as string }], touched: [at] };
  } },
  renamed('blanks', WORKING, (n) => n.replaceAll('_', ' '), 'name-mismatch'),
  renamed('capitals', BOARD, (n) => n.replace(/_([a-z])(\w*)_v/, (_, a: string, rest: string) => `_${a.toUpperCase()}${rest}_v`), 'name-mismatch'),
  renamed('accents', PAPER, (n) => n.replace('_c', '_ç'), 'name-mismatch'),
  renamed('the task left out', WORKING, (n) => n.replace('_anim', ''), 'name-mismatch'),
  renamed('parts in another order', WORKING, (n) => n.replace(/(26011)_([^_]+)_/, '$2_$1_'), 'name-mismatch'),
  renamed('a date in another form', PAPER, (n) => n.replace('2026-02-11', '11-02-2026'), 'name-mismatch'),
  renamed('a careless copy', BOARD, (n) => n.replace('.png', ' (1).png'), 'name-mismatch'),
  renamed('the long form of a code', SOUND, (n) => n.replace('_MX_', '_music_').replace('_FX_', '_effects_'), 'name-mismatch'),
  renamed('final at the end', WORKING, (n) => n.replace('.usda', '_final.usda'), 'banned-word'),
  renamed('new in the middle', BOARD, (n) => n.replace('_v', '_new_v'), 'banned-word'),
  // Versions, frames, contents.
  { kind: 'an older version left on top', act: (disk, pick, spared) => {
    const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    const path = `${at}/${workingName(at, { version: 'v002' })}`;
    disk.set(path, file());
    return { expected: [{ rule: 'old-version-on-top', path }], touched: [at] };
  } },
  { kind: 'two people at one version', act: (disk, pick, spared) => {
    const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    disk.set(`${at}/${workingName(at, { version: 'v003', person: 'LV' })}`, file());
    return { expected: [{ rule: 'version-twice', path: `${at}/${workingName(at, { version: 'v003' })}` }], touched: [at] };
  } },
  renamed('a version in a master’s name', /^08_masters\//, (n) => n.replace('.mov', '_v02.mov'), 'versioned-delivery'),
  renamed('a version before the letter', /^08_masters\//, (n) => n.replace('_MS_', '_MS_V2_'), 'versioned-delivery'),
  ...[[[7], 'a frame missing'], [[5, 6, 7, 15], 'frames missing']].map(([frames, kind]): DiskDamage => ({ kind: kind as string, act: (disk, pick, spared) => {
    const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) if ((frames as number[]).includes(Number(/\.(\d+)\.exr$/.exec(path)?.[1]))) disk.delete(path);
    return { expected: [{ rule: 'sequence-gap', path: filesIn(disk, new RegExp(`^${at}/`), () => false)[0] as string }], touched: [at] };
  } })),
  { kind: 'a file of no bytes', act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, /^(?:06_sound|08_masters|01_paperwork)\//, spared));
    if (path === undefined) return null;
    disk.set(path, file(0));
    return { expected: [{ rule: 'empty-file', path }], touched: [path] };
  } },
  added('material without a licence', ['07_library/stock'], () => 'thunder.wav', 'licence-missing'),
  { kind: 'more older versions than are kept', act: (disk, pick, spared) => {
    const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    disk.delete(`${at}/${workingName(at, { version: 'v003' })}`);
    disk.set(`${at}/${workingName(at, { version: 'v009' })}`, file());
    for (let v = 3; v <= 8; v++) disk.set(`${at}/older/${workingName(at, { version: `v00${v}` })}`, file());
    return { expected: [{ rule: 'old-version-on-top', path: `${at}/older/${workingName(at, { version: 'v001' })}` }], touched: [at] };
  } },
  { kind: 'a version that is nowhere', act: (disk, pick, spared) => {
    const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    disk.delete(`${at}/older/${workingName(at, { version: 'v002' })}`);
    return { expected: [{ rule: 'version-gap', path: `${at}/${workingName(at, { version: 'v003' })}` }], touched: [at] };
  } },
  { kind: 'the music’s second version gone', act: (disk, _pick, spared) => {
    if (spared('06_sound/music')) return null;
    disk.delete('06_sound/music/26011_MX_v02.wav');
    return { expected: [{ rule: 'version-gap', path: '06_sound/music/26011_MX_v03.wav' }], touched: ['06_sound/music'] };
  } },
  { kind: 'a pass that is longer than its sister', act: (disk, pick, spared) => {
    const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    const [surface, scene] = entriesOf(at);
    for (let f = 1; f <= 30; f++) disk.set(`${at}/26011_${surface}_${scene}_light_v003.${String(f).padStart(4, '0')}.exr`, file(1001));
    return { expected: [{ rule: 'sequence-gap', path: `${at}/26011_${surface}_${scene}_comp_v003.0001.exr` }], touched: [at] };
  } },
  { kind: 'frames given a new version and nothing else', act: (disk, pick, spared) => {
    const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
    if (at === undefined) return null;
    for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) {
      disk.set(path, file(1000, `content of ${path}`));
      disk.set(path.replace('_v003.', '_v004.'), file(1000, `content of ${path}`));
    }
    return { expected: [{ rule: 'same-content', path: filesIn(disk, new RegExp(`^${at}/.*_v003`), () => false)[0] as string }], touched: [at] };
  } },
  doubled('a board saved again under the next version', BOARD, (p) => p.replace('_v002', '_v003')),
  doubled('a careless copy beside it', BOARD, (p) => p.replace('.png', ' (1).png')),
  doubled('a paper kept in two places', /^01_paperwork\/quotes\//, (p) => p.replace('/quotes/', '/permits/')),
  doubled('a site photo among the boards’ types', /^02_survey\/site-photos\//, (p) => p.replace('02_survey/site-photos', '02_survey/measurements')),
  { kind: 'one name in two folders', act: (disk, _pick, spared) => {
    const path = '03_design/type/26011_SB_opening_v002.png';
    const other = '03_design/boards/26011_SB_opening_v002.png';
    if (!disk.has('03_design/type') || !disk.has(other) || spared(path) || spared(other)) return null;
    disk.set(path, file());
    return { expected: [{ rule: 'same-name', path: other }], touched: [path, other] };
  } },
  added('a side file without its document', workings, () => 'lamp.mtl', 'companion-missing'),
  { kind: 'a side file away from its document', act: (disk, pick, spared) => {
    const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
    const other = workings.find((f) => f !== at && disk.has(`${f}/${workingName(f, { version: 'v003' })}`) && !spared(f));
    if (at === undefined || other === undefined) return null;
    const path = `${at}/${workingName(other, { version: 'v003' }).replace('.usda', '.mtl')}`;
    disk.set(path, file());
    return { expected: [{ rule: 'companion-apart', path }], touched: [path, `${other}/${workingName(other, { version: 'v003' })}`] };
  } },
  renamed('a photo of a day to come', /^02_survey\/site-photos\//, (n) => n.replace(/^2026-01-1(\d)/, '2026-05-1$1'), 'date-mismatch'),
  renamed('a paper dated a year ahead', PAPER, (n) => n.replace('2026-02-11', '2027-02-11'), 'date-mismatch'),
  { kind: 'another night’s photos', act: (disk, _pick, spared) => {
    const at = '02_survey/test-nights/2026-03-04';
    if (!disk.has(at) || spared(at)) return null;
    for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) moved(disk, path, `${above(path)}/${nameOf(path).replace('2026-03-04', '2026-02-24')}`);
    return { expected: [{ rule: 'date-mismatch', path: at }], touched: [at] };
  } },
  { kind: 'a night nobody brought in', act: (disk, _pick, spared) => {
    const at = '02_survey/test-nights/2026-03-04';
    if (!disk.has(at) || spared(at)) return null;
    for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) disk.delete(path);
    return { expected: [{ rule: 'empty-folder', path: at }], touched: [at] };
  } },
  pointing('a document that points to somebody’s desktop', '/Users/somebody/Desktop/lamp.usda', 'absolute-reference'),
  pointing('a document that points to a drive', 'P:\\26011_FNR_curtain-rise\\03_design\\x.usda', 'absolute-reference'),
  pointing('a document that points to another project', '../../../../../26009_HBC_lock/x.usda', 'outside-reference'),
  pointing('a document that points to nothing', './gone.usda', 'broken-reference'),
  { kind: 'frames under a name of their own', act: (disk, _pick, spared) => {
    const [from, to] = ['05_motion/portico/s02/renders', '05_motion/portico/s02/output'];
    if (!disk.has(from) || spared(from) || spared(to)) return null;
    moved(disk, from, to);
    return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [from, to] };
  } },
  { kind: 'a scene’s frames in a folder of one’s own', act: (disk, _pick, spared) => {
    const [from, to] = ['05_motion/fly-tower/s03/renders', '03_design/for later'];
    if (!disk.has(from) || !disk.has('03_design') || spared(from) || spared(to)) return null;
    moved(disk, from, to);
    return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
  } },
  added('a cache over its limit', ['09_cache'], () => 'huge.cache', 'over-limit', 600_000_000_000),
];

/** The same numbers for the same seed. */
export function pickerOf(seed: number): Pick {
  let state = seed >>> 0 || 1;
  return (all) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return all[Math.floor((state / 2 ** 32) * all.length)];
  };
}

export interface Damaged {
  readonly disk: Disk;
  readonly kinds: readonly string[];
  readonly expected: readonly Expected[];
}

/** So many damages in one project, no two at one place. */
export function damaged(of: CheckGround, damages: readonly DiskDamage[], seed: number): Damaged {
  const disk = goodDisk(of);
  const pick = pickerOf(seed);
  const touched: string[] = [];
  const near = (a: string, b: string) => a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);
  const expected: Expected[] = [];
  const kinds: string[] = [];
  for (const damage of damages) {
    const done = damage.act(disk, pick, (path) => touched.some((t) => near(t, path)));
    if (done === null) continue;
    touched.push(...done.touched);
    kinds.push(damage.kind);
    expected.push(...done.expected.map((e) => (e.rule === 'over-limit' ? { ...e, path: above(e.path) } : e)));
  }
  return { disk, kinds, expected };
}

/** `count` damages drawn by the seed. */
export function drawDamages(count: number, seed: number): DiskDamage[] {
  const pick = pickerOf(seed ^ 0x5bd1e995);
  const open = [...DISK_DAMAGES];
  return Array.from({ length: Math.min(count, open.length) }, () => {
    const chosen = pick(open) as DiskDamage;
    open.splice(open.indexOf(chosen), 1);
    return chosen;
  });
}

export interface RuleScore {
  readonly rule: RuleCode;
  readonly expected: number;
  readonly found: number;
  /** Expected and found. */
  readonly right: number;
}

export function scoreDamages(of: CheckGround, cases: readonly Damaged[]): { readonly rules: readonly RuleScore[]; readonly wrong: readonly string[] } {
  const rules = new Map<RuleCode, { expected: number; found: number; right: number }>();
  const wrong: string[] = [];
  const at = (rule: RuleCode) => {
    const known = rules.get(rule) ?? { expected: 0, found: 0, right: 0 };
    rules.set(rule, known);
    return known;
  };
  for (const { disk, kinds, expected } of cases) {
    const found = findingsOf(of, disk);
    const words = (e: Expected) => `${e.rule} ${e.path}`;
    const [wanted, got] = [new Set(expected.map(words)), new Set(found.map(words))];
    for (const e of expected) at(e.rule).expected++;
    for (const f of found) {
      at(f.rule).found++;
      if (wanted.has(words(f))) at(f.rule).right++;
      else wrong.push(`too much: ${words(f)} (${kinds.slice(0, 2).join(', ')})`);
    }
    for (const e of expected) if (!got.has(words(e))) wrong.push(`not found: ${words(e)} (${kinds.slice(0, 2).join(', ')})`);
  }
  return { rules: [...rules].map(([rule, counts]) => ({ rule, ...counts })).sort((a, b) => (a.rule < b.rule ? -1 : 1)), wrong };
}
