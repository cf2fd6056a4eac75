/**
 * Rules of another house, or of this one earlier: what is new, the same or otherwise, and what is done about each. Ours
 * never changes unseen.
 */

import type { BlockFile, RuleChoices, RuleKind, RuleSetRow, RulesTaken } from '@nesting/contract';
import { ruleKeyOf } from '@nesting/contract';
import { deepEqual, keysOf } from '@nesting/core';
import type { Registers } from '@nesting/core/name';
import { type Convention, diffTemplates, type Template } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { type Client, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { insertEdition, upsertRegisters } from '../../db/queries/house/install';
import { readMeanings } from '../../db/queries/house/marks';
import { readRegisters } from '../../db/queries/house/registers';
import { insertBlockEdition, listBlocks, putBlockStarter, saveBlockDraft } from '../../db/queries/rules/blocks';
import { insertEditionOf, listConventions, saveDraft } from '../../db/queries/rules/conventions';
import { putDraftStarter, saveTemplateDraft } from '../../db/queries/rules/template-drafts';
import { listTemplates, readStarters } from '../../db/queries/rules/templates';
import { Refused, type World } from '../world';
import { newConvention } from './conventions';
import type { RuleSet, WithFiles } from './rule-file';
import { addMeanings, type Settled, settleBlock, settleTemplate } from './settled-marks';
import { newTemplate } from './templates';

/** Rules of another house with the marks of ours. */
interface OurSet extends RuleSet {
  readonly templates: readonly (RuleSet['templates'][number] & Settled<Template>)[];
  readonly blocks: readonly (RuleSet['blocks'][number] & Settled<BlockFile>)[];
}

/** One after another: what one gives a free mark holds for the next. */
async function withOurMarks(world: World, set: RuleSet): Promise<OurSet> {
  let ours = await readMeanings(world.db);
  const after = <T extends Settled<unknown>>(settled: T): T => {
    ours = { ...settled.meanings, ...ours };
    return settled;
  };
  return {
    ...set,
    blocks: set.blocks.map((b) => ({ ...b, ...after(settleBlock(b.thing, b.marks, ours)) })),
    templates: set.templates.map((t) => ({ ...t, ...after(settleTemplate(t.thing, t.marks, ours)) })),
  };
}

export const lookAtRules = async (world: World, set: RuleSet): Promise<RuleSetRow[]> =>
  rowsOf(world, await withOurMarks(world, set));

async function rowsOf(world: World, set: OurSet): Promise<RuleSetRow[]> {
  const [templates, blocks, conventions, registers] = await Promise.all([
    listTemplates(world.db),
    listBlocks(world.db),
    listConventions(world.db),
    readRegisters(world.db),
  ]);
  const rows: RuleSetRow[] = [];
  for (const theirs of set.templates) {
    const ours = templates.find((t) => t.id === theirs.thing.id);
    rows.push(withWords(await templateRow(world, ours, theirs), theirs.words));
  }
  for (const { thing, words } of set.blocks) {
    const ours = blocks.find((b) => b.id === thing.id);
    rows.push(withWords(blockRow(ours, thing), words));
  }
  for (const convention of set.conventions) {
    const ours = conventions.find((c) => c.id === convention.id);
    rows.push(conventionRow(ours?.convention ?? ours?.draft?.convention ?? null, ours !== undefined, convention));
  }
  return [...rows, ...listRows(registers, set.registers)];
}

const withWords = (row: RuleSetRow, words: readonly string[]): RuleSetRow =>
  row.state === 'same' ? row : { ...row, words: [...row.words, ...words] };

async function templateRow(
  world: World,
  ours: Awaited<ReturnType<typeof listTemplates>>[number] | undefined,
  { thing, starters }: RuleSet['templates'][number],
): Promise<RuleSetRow> {
  if (ours === undefined) {
    const about = `edition ${thing.edition ?? 1}, ${thing.fields.length} fields, ${thing.conventions.length} conventions, ${starters.size} starter files`;
    return rowOf('template', thing, false, false, [about]);
  }
  const words = [
    ...diffTemplates(ours.template, thing).map(differenceWords),
    ...(await otherFiles(world, ours.id, ours.edition, starters)),
  ];
  const isSame = words.length === 0 && deepEqual({ ...ours.template, edition: 0 }, { ...thing, edition: 0 });
  return rowOf(
    'template',
    thing,
    true,
    isSame,
    words.length > 0 ? words : ['Settings that have no words of their own'],
  );
}

function blockRow(ours: Awaited<ReturnType<typeof listBlocks>>[number] | undefined, thing: BlockFile): RuleSetRow {
  if (ours === undefined) return rowOf('block', thing, false, false, [`edition ${thing.edition}`]);
  const asTemplate = (folders: BlockFile['folders']): Template => ({
    format: 'nesting/template',
    formatVersion: 1,
    id: thing.id,
    name: thing.name,
    fields: [],
    conventions: [],
    root: { id: 'root', name: thing.name, folders },
  });
  const isSame = deepEqual({ name: ours.name, folders: ours.folders }, { name: thing.name, folders: thing.folders });
  const words = diffTemplates(asTemplate(ours.folders), asTemplate(thing.folders)).map(differenceWords);
  return rowOf('block', thing, true, isSame, words);
}

/** `ours` is `null` where a convention of that id is there and has no wording yet. */
function conventionRow(ours: Convention | null, isThere: boolean, thing: Convention): RuleSetRow {
  if (ours === null) return rowOf('convention', thing, isThere, false, [thing.pattern]);
  return rowOf('convention', thing, isThere, deepEqual({ ...ours, id: '' }, { ...thing, id: '' }), [
    `Ours: ${ours.pattern}`,
    `Theirs: ${thing.pattern}`,
    ...(ours.pattern === thing.pattern ? ['Its fields, families or examples are otherwise'] : []),
  ]);
}

function rowOf(
  kind: RuleKind,
  { id, name }: { readonly id: string; readonly name: string },
  there: boolean,
  wholly: boolean,
  words: readonly string[],
): RuleSetRow {
  if (!there) return { kind, id, name, state: 'new', words, acts: ['take', 'leave'] };
  if (wholly) return { kind, id, name, state: 'same', words: [], acts: ['leave'] };
  return {
    kind,
    id,
    name,
    state: 'differs',
    words,
    acts: kind === 'block' || kind === 'list' ? ['leave', 'take'] : ['leave', 'take', 'beside'],
  };
}

async function otherFiles(
  world: World,
  id: string,
  edition: number,
  starters: ReadonlyMap<string, Uint8Array>,
): Promise<string[]> {
  const ours = await readStarters(world.db, id, edition);
  return [...new Set([...ours.keys(), ...starters.keys()])].sort().flatMap((path) => {
    const [a, b] = [ours.get(path), starters.get(path)];
    if (a !== undefined && b !== undefined)
      return Buffer.from(a).equals(Buffer.from(b)) ? [] : [`The starter file ${path} has another content`];
    return [a === undefined ? `New starter file: ${path}` : `No starter file any more: ${path}`];
  });
}

interface Entry {
  readonly key: string;
  readonly value: unknown;
}

/** The house's lists by name: what tells an entry, and the entry. */
const LISTS: Readonly<
  Record<
    'clients' | 'families' | 'abbreviations' | 'banned' | 'libraries',
    { name: string; entries: (r: Registers) => Entry[] }
  >
> = {
  clients: {
    name: 'Clients',
    entries: (r) => r.clients.map((c) => ({ key: c.code, value: [c.name, c.retired ?? false] })),
  },
  families: {
    name: 'Families of files',
    entries: (r) =>
      r.families.map((f) => ({ key: f.name, value: [f.extensions, f.companions ?? [], f.document ?? {}] })),
  },
  abbreviations: {
    name: 'Abbreviations',
    entries: (r) => r.abbreviations.map((a) => ({ key: a.long, value: a.short })),
  },
  banned: { name: 'Banned words', entries: (r) => r.banned.map((word) => ({ key: word, value: true })) },
  libraries: { name: 'Libraries', entries: (r) => (r.libraries ?? []).map((l) => ({ key: l.path, value: l.name })) },
};

function listRows(ours: Registers, theirs: Registers): RuleSetRow[] {
  return Object.entries(LISTS).flatMap(([id, { name, entries }]): RuleSetRow[] => {
    const given = entries(theirs);
    if (given.length === 0) return [];
    const known = new Map(entries(ours).map((e) => [e.key, e.value]));
    const fresh = given.filter((e) => !known.has(e.key));
    const other = given.filter((e) => known.has(e.key) && !deepEqual(known.get(e.key), e.value));
    if (fresh.length + other.length === 0)
      return [{ kind: 'list', id, name, state: 'same', words: [], acts: ['leave'] }];
    const words = [...fresh.map((e) => `New: ${e.key}`), ...other.map((e) => `Otherwise: ${e.key}`)];
    return [
      {
        kind: 'list',
        id,
        name,
        state: other.length > 0 ? 'differs' : 'new',
        words,
        acts: other.length > 0 ? ['leave', 'take'] : ['take', 'leave'],
      },
    ];
  });
}

/**
 * Does what was chosen, all of it or nothing; what nobody chose about is done as proposed. Looked at anew first: what
 * has changed since is refused.
 */
export async function takeRules(
  world: World,
  person: string,
  theirs: RuleSet,
  choices: RuleChoices,
): Promise<RulesTaken> {
  const set = await withOurMarks(world, theirs);
  const rows = new Map((await rowsOf(world, set)).map((row) => [ruleKeyOf(row), row]));
  const actOf = (kind: RuleKind, id: string) => {
    const row = rows.get(ruleKeyOf({ kind, id }));
    const act = choices[ruleKeyOf({ kind, id })] ?? row?.acts[0] ?? 'leave';
    if (row !== undefined && !row.acts.includes(act)) throw new Refused('rules-changed', { name: row.name });
    return { act, isNew: row?.state === 'new' };
  };
  const taken: RulesTaken['taken'][number][] = [];
  await transaction(world.db, async (client) => {
    await addMeanings(client, [
      ...set.blocks.filter((b) => actOf('block', b.thing.id).act !== 'leave').map((b) => b.meanings),
      ...set.templates.filter((t) => actOf('template', t.thing.id).act !== 'leave').map((t) => t.meanings),
    ]);
    // Lists and conventions first: templates lean on them, and share what is there word for word.
    await takeLists(client, set.registers, (id) => actOf('list', id).act === 'take', taken);
    for (const convention of set.conventions) {
      const { act, isNew } = actOf('convention', convention.id);
      if (act === 'take')
        taken.push({ kind: 'convention', ...(await takeConvention(client, person, convention, isNew)) });
    }
    for (const block of set.blocks) {
      const { act, isNew } = actOf('block', block.thing.id);
      if (act === 'take') taken.push({ kind: 'block', ...(await takeBlock(client, person, block, isNew)) });
    }
    for (const template of set.templates) {
      const { act, isNew } = actOf('template', template.thing.id);
      if (act === 'take') taken.push({ kind: 'template', ...(await takeTemplate(client, person, template, isNew)) });
    }
    await recordActivity(client, 'rules-taken-in', person, null, {
      taken: taken
        .map((t) => `${t.kind} ${t.id}`)
        .join(', ')
        .slice(0, 2000),
    });
  });
  // Things of their own are drafts under free ids: each is made whole by itself.
  for (const { thing, starters } of set.templates) {
    if (actOf('template', thing.id).act !== 'beside') continue;
    const made = await newTemplate(world, person, {
      template: { ...thing, name: `${thing.name}, taken in` },
      starters: [...starters].map(([path, bytes]) => ({ path, base64: Buffer.from(bytes).toString('base64') })),
    });
    taken.push({ kind: 'template', id: made.id, as: 'draft' });
  }
  for (const convention of set.conventions) {
    if (actOf('convention', convention.id).act !== 'beside') continue;
    taken.push({
      kind: 'convention',
      id: (await newConvention(world, person, { ...convention, name: `${convention.name}, taken in` })).id,
      as: 'draft',
    });
  }
  return { taken };
}

async function takeLists(
  client: Client,
  registers: Registers,
  wanted: (id: string) => boolean,
  taken: RulesTaken['taken'][number][],
): Promise<void> {
  const keep = {
    clients: wanted('clients') ? registers.clients : [],
    families: wanted('families') ? registers.families : [],
    abbreviations: wanted('abbreviations') ? registers.abbreviations : [],
    banned: wanted('banned') ? registers.banned : [],
    libraries: wanted('libraries') ? (registers.libraries ?? []) : [],
    people: [],
  };
  await upsertRegisters(client, keep);
  for (const id of keysOf(LISTS)) if (keep[id].length > 0) taken.push({ kind: 'list', id, as: 'added' });
}

type Taken = Omit<RulesTaken['taken'][number], 'kind'>;

async function takeConvention(client: Client, person: string, convention: Convention, isNew: boolean): Promise<Taken> {
  if (isNew) {
    await insertEditionOf(client, convention);
    return { id: convention.id, as: 'in-force' };
  }
  if ((await saveDraft(client, convention, 0, person)) === null) throw draftThere(convention.name);
  return { id: convention.id, as: 'draft' };
}

async function takeBlock(
  client: Client,
  person: string,
  { thing, starters }: WithFiles<BlockFile>,
  isNew: boolean,
): Promise<Taken> {
  const body = { name: thing.name, folders: thing.folders };
  if (isNew) await insertBlockEdition(client, thing.id, thing.edition, body, 'Taken in.', person);
  else if ((await saveBlockDraft(client, thing.id, body, 0, person)) === null) throw draftThere(thing.name);
  for (const [path, bytes] of starters)
    if (!(await putBlockStarter(client, thing.id, path, bytes)))
      throw new Refused('file-there', { name: thing.name, path });
  return { id: thing.id, as: isNew ? 'in-force' : 'draft' };
}

async function takeTemplate(
  client: Client,
  person: string,
  { thing, starters }: WithFiles<Template>,
  isNew: boolean,
): Promise<Taken> {
  if (isNew) {
    await insertEdition(client, thing, starters);
    return { id: thing.id, as: 'in-force' };
  }
  const { edition: _theirs, ...body } = thing;
  if ((await saveTemplateDraft(client, body, 0, person)) === null) throw draftThere(thing.name);
  for (const [path, bytes] of starters) await putDraftStarter(client, thing.id, path, bytes);
  return { id: thing.id, as: 'draft' };
}

const draftThere = (name: string): Refused => new Refused('draft-there', { name });
