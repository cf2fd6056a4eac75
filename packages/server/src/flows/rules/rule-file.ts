/** Rules as files: one template with its starter files, or all that is in force in a house, as a zip; and back. */

import {
  type BlockFile,
  type ConventionRow,
  parseBlock,
  parseConvention,
  parseMeanings,
  parseRegisters,
  parseTemplate,
  type TemplateRow,
} from '@nesting/contract';
import { valueAt } from '@nesting/core';
import { NO_REGISTERS, type Registers } from '@nesting/core/name';
import {
  type Convention,
  type Meanings,
  marksIn,
  only,
  starterPaths,
  starterPathsIn,
  type Template,
  withConventions,
} from '@nesting/core/template';
import { readMeanings } from '../../db/queries/house/marks';
import { readRegisters } from '../../db/queries/house/registers';
import { blockStarters, listBlocks } from '../../db/queries/rules/blocks';
import { conventionsOf, listConventions } from '../../db/queries/rules/conventions';
import { listEditions, readDraftStarter, readTemplateDraft } from '../../db/queries/rules/template-drafts';
import { listTemplates, readEdition, readStarters } from '../../db/queries/rules/templates';
import { Refused, type World } from '../world';
import { foldersOf } from './settled-marks';
import { filesOf, unusable, zipOf } from './zip';

export interface WithFiles<T> {
  readonly thing: T;
  /** What its marks mean where it comes from. */
  readonly marks: Meanings;
  /** Starter files by their path in the thing. */
  readonly starters: ReadonlyMap<string, Uint8Array>;
}

export interface RuleSet {
  readonly templates: readonly WithFiles<Template>[];
  readonly blocks: readonly WithFiles<BlockFile>[];
  readonly conventions: readonly Convention[];
  readonly registers: Registers;
}

const text = (thing: unknown): Uint8Array => Buffer.from(`${JSON.stringify(thing, null, 2)}\n`);

/** A template as a file, with what its marks mean. */
const withMeanings = (template: Template, ours: Meanings): Uint8Array =>
  text({ ...template, marks: only(ours, marksIn(foldersOf(template))) });

/** One template as it is in force, its draft where it never was, or one of its editions. */
export async function templateFile(
  world: World,
  id: string,
  edition: number | null,
): Promise<{ name: string; bytes: Uint8Array }> {
  const draft = edition === null ? await readTemplateDraft(world.db, id) : null;
  const newest = edition ?? (draft === null ? ((await listEditions(world.db, id))[0]?.edition ?? null) : null);
  const template = draft?.template ?? (newest === null ? null : await readEdition(world.db, id, newest));
  if (template === null) throw new Refused('no-template');
  const files = new Map([
    [
      `${id}.nest.json`,
      withMeanings(
        draft === null ? withConventions(template, (await conventionsOf(world.db, id)).bodies) : template,
        await readMeanings(world.db),
      ),
    ],
  ]);
  for (const path of starterPaths(template).sort()) {
    const bytes =
      draft === null && newest !== null
        ? (await readStarters(world.db, id, newest)).get(path)
        : await readDraftStarter(world.db, id, path);
    if (bytes) files.set(path, bytes);
  }
  return { name: `${id}.zip`, bytes: await zipOf(files) };
}

/**
 * All that is in force: templates, blocks, conventions and the lists they lean on. People are not rules: they sign in.
 */
export async function ruleSetFile(world: World): Promise<{ name: string; bytes: Uint8Array }> {
  const files = new Map<string, Uint8Array>();
  const ours = await readMeanings(world.db);
  const inForce = (rows: readonly TemplateRow[]) =>
    rows.filter((r) => r.edition > 0).sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const row of inForce(await listTemplates(world.db))) {
    files.set(`templates/${row.id}/${row.id}.nest.json`, withMeanings(row.template, ours));
    for (const [path, bytes] of await readStarters(world.db, row.id, row.edition))
      files.set(`templates/${row.id}/${path}`, bytes);
  }
  for (const block of (await listBlocks(world.db)).sort((a, b) => (a.id < b.id ? -1 : 1))) {
    files.set(
      `blocks/${block.id}/${block.id}.block.json`,
      text({
        format: 'nesting/block',
        formatVersion: 1,
        id: block.id,
        name: block.name,
        edition: block.edition,
        folders: block.folders,
        marks: only(ours, marksIn(block.folders)),
      } satisfies BlockFile),
    );
    const kept = await blockStarters(world.db, block.id);
    // Files of other editions stay at home.
    for (const path of starterPathsIn(block.folders))
      files.set(`blocks/${block.id}/${path}`, kept.get(path) ?? new Uint8Array());
  }
  const withEdition = (rows: readonly ConventionRow[]) =>
    rows
      .flatMap((r) => (r.convention === null ? [] : [{ ...r.convention, id: r.id }]))
      .sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const convention of withEdition(await listConventions(world.db)))
    files.set(
      `conventions/${convention.id}.convention.json`,
      text({ format: 'nesting/convention', formatVersion: 1, ...convention }),
    );
  const { clients, families, abbreviations, banned, libraries } = await readRegisters(world.db);
  files.set('registers.json', text({ clients, families, abbreviations, banned, libraries }));
  return { name: 'rules.zip', bytes: await zipOf(new Map([...files].sort(([a], [b]) => (a < b ? -1 : 1)))) };
}

interface Found {
  readonly templates: WithFiles<Template>[];
  readonly blocks: WithFiles<BlockFile>[];
  readonly conventions: Convention[];
  registers: Registers;
}

/**
 * What is in a file somebody gives: a zip, or one template, convention, block or lists as JSON. The first thing that
 * cannot be used refuses it whole.
 */
export async function readRuleFile(bytes: Uint8Array): Promise<RuleSet> {
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const files = zipped ? await filesOf(bytes) : new Map([['given.json', Buffer.from(bytes)]]);
  const set: Found = { templates: [], blocks: [], conventions: [], registers: NO_REGISTERS };
  const taken = <T>(parsed: { ok: true; value: T } | { ok: false; faults: readonly string[] }): T => {
    if (!parsed.ok) throw unusable('fault', `${parsed.faults[0]}.`);
    return parsed.value;
  };
  const beside = (path: string, wanted: readonly string[]): Map<string, Uint8Array> => {
    const folder = path.slice(0, path.lastIndexOf('/') + 1);
    return new Map(
      wanted.flatMap((from) => (files.has(folder + from) ? [[from, valueAt(files, folder + from)] as const] : [])),
    );
  };
  for (const [path, content] of files) {
    const kind = kindOf(path, zipped ? '' : content.toString('utf8'));
    if (kind === null) continue;
    const body = content.toString('utf8');
    if (kind === 'template') {
      const template = taken(parseTemplate(body, path));
      set.templates.push({
        thing: template,
        marks: taken(parseMeanings(body, path)),
        starters: beside(path, starterPaths(template)),
      });
    } else if (kind === 'block') {
      const { marks = {}, ...block } = taken(parseBlock(body, path));
      set.blocks.push({ thing: block, marks, starters: beside(path, starterPathsIn(block.folders)) });
    } else if (kind === 'convention') set.conventions.push(taken(parseConvention(body, path)));
    else set.registers = taken(parseRegisters(body, path));
  }
  if (set.templates.length + set.blocks.length + set.conventions.length === 0 && set.registers === NO_REGISTERS)
    throw unusable('no-rules');
  return set;
}

/** By the path in a zip; a single file says itself what it is, and is taken for a template where it does not. */
function kindOf(path: string, body: string): 'template' | 'block' | 'convention' | 'registers' | null {
  if (path.endsWith('.nest.json')) return 'template';
  if (path.endsWith('.block.json')) return 'block';
  if (path.endsWith('.convention.json')) return 'convention';
  if (path === 'registers.json') return 'registers';
  if (path !== 'given.json') return null;
  const format = /"format"\s*:\s*"nesting\/(template|block|convention)"/.exec(body)?.[1];
  return (
    (['template', 'block', 'convention'] as const).find((kind) => kind === format) ??
    (/"(clients|families|abbreviations|banned|libraries)"\s*:/.test(body) && !/"root"\s*:/.test(body)
      ? 'registers'
      : 'template')
  );
}
