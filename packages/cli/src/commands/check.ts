import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { markerSchema, parseRegisters, parseTemplate } from '@nesting/contract';
import { type CheckOutcome, checkListing } from '@nesting/core/check';
import { commonRoot, foldersFrom, parseListing } from '@nesting/core/listing';
import { NO_REGISTERS, type Registers, type Values } from '@nesting/core/name';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { findingsCsv, findingsJson, findingsSarif, findingsText } from '@nesting/core/report';
import type { Expansion } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { checkOnDisk, inRoot, readMarker } from '@nesting/disk';
import { EXIT, type Exit, Unusable } from '../fail';
import { type Options, registersOf, templateOf, textOf, valuesOf } from '../input';
import { print, progressLine } from '../output';

const FORMS = { text: findingsText, json: findingsJson, csv: findingsCsv, sarif: findingsSarif } as const;

/** Compares a project's folder, or a listing of it, with the rules. */
export async function check(options: Options): Promise<Exit> {
  const form = (options.as ?? 'text') as keyof typeof FORMS;
  if (!Object.hasOwn(FORMS, form)) throw new Unusable(`--as ${options.as}: one of ${Object.keys(FORMS).join(', ')}`);
  const outcome = options.listing === undefined ? await checkFolder(options) : checkText(options, options.listing);
  await print(FORMS[form](outcome));
  return outcome.findings.length > 0 ? EXIT.findings : EXIT.ok;
}

async function checkFolder(options: Options): Promise<CheckOutcome> {
  const [first, second] = options.positionals;
  const root = second ?? first;
  if (root === undefined) throw new Unusable("give a project's folder, or --listing FILE");
  if (!existsSync(root) || !statSync(root).isDirectory()) throw new Unusable(`${root}: no such folder`);
  const input = inputOf(options, second === undefined ? undefined : first, root);
  sayPlan(new ProjectRules(input).expansion);
  const script = new URL('./disk-child.js', import.meta.url);
  const outcome = await checkOnDisk({
    where: { base: root, folder: '' },
    input: { ...input, now: Date.now() },
    script: existsSync(script) ? script : null,
    progress: (p) =>
      progressLine(`${p.stage === 'reading' ? 'looking into ' : ''}${p.files} files in ${p.folders} folders`),
    ...(!options.namesOnly && { contents: { roots: [path.resolve(root)], known: [] } }),
  });
  progressLine('');
  if (outcome.unseen.some((u) => u.path === ''))
    throw new Unusable(`${root}: cannot be read (${outcome.unseen[0]?.code})`);
  for (const u of outcome.unseen) process.stderr.write(`not seen: ${u.path} (${u.code})\n`);
  return outcome;
}

function checkText(options: Options, listing: string): CheckOutcome {
  const input = inputOf(options, options.positionals[0], null);
  const rules = new ProjectRules(input);
  sayPlan(rules.expansion);
  let paths: ReturnType<typeof parseListing>;
  try {
    paths = parseListing(textOf(listing));
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw new Unusable(`${listing}: no listing that can be understood`);
  }
  // A listing made from outside the project has its folder in front of every line.
  const root = commonRoot(paths);
  const planned = rules.expansion.lines.some((l) => l.depth === 1 && l.name === root);
  return checkListing(rules, foldersFrom(paths, root !== null && !planned ? root : null));
}

/** A plan that cannot be worked out would make everything on the disk look unplanned: that is no check. */
function sayPlan(expansion: Expansion): void {
  const refused = expansion.diagnostics.filter((d) => d.weight === 'refused' && d.code !== 'path-over-budget');
  if (expansion.rootName === '')
    throw new Unusable(
      `the plan cannot be worked out: ${refused.map((d) => wordsFor(d.code, d.params))[0] ?? 'the root has no name'} (give --values and --registers)`,
    );
  for (const d of refused.slice(0, 20))
    process.stderr.write(`note: ${d.line ?? d.node ?? d.field ?? ''}: ${wordsFor(d.code, d.params)}\n`);
}

/** Template and values from the project's marker, unless they are given. */
function inputOf(options: Options, template: string | undefined, root: string | null): CheckInput {
  const marker = root === null ? null : inRoot({ base: root, folder: '' }, readMarker);
  let values: Values = {};
  let registers: Registers = NO_REGISTERS;
  if (marker !== null) {
    const parsed = markerSchema.safeParse(safeJson(marker.marker));
    if (!parsed.success && (template === undefined || options.values === undefined))
      throw new Unusable(`${root}: its marker cannot be read; give the template and --values`);
    if (parsed.success) values = parsed.data.values;
    const own = marker.registers === null ? null : parseRegisters(marker.registers);
    if (own?.ok) registers = own.value;
  }
  if (template !== undefined)
    return {
      template: templateOf(template).template,
      values: valuesOf(options, values),
      registers: registersOf(options, registers),
    };
  if (marker?.template == null)
    throw new Unusable(
      root === null
        ? 'give a template with --listing'
        : `${root}: no marker of a project in it; give a template and --values`,
    );
  const parsed = parseTemplate(marker.template, "the project's template");
  if (!parsed.ok) throw new Unusable(parsed.faults[0] ?? 'its template cannot be read');
  return { template: parsed.value, values: valuesOf(options, values), registers: registersOf(options, registers) };
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
