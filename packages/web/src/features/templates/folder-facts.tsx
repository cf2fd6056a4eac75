/**
 * What a folder is for, in a few lines: the same words on the template's page, at the start and on the project's page.
 */
import {
  compileConvention,
  examplePieces,
  type Field,
  parsePattern,
  type Registers,
  type Values,
} from '@nesting/core/name';
import type { Convention, FolderNode, FolderRules, Template } from '@nesting/core/template';
import { useMemo } from 'react';
import { Anatomy } from '../../anatomy/anatomy';
import { many, size } from '../../app/words';
import { Heading } from '../../ui';

interface Props {
  readonly template: Template;
  readonly registers: Registers;
  readonly node: FolderNode;
  readonly rules: FolderRules;
  /** Values known here: the project's, and the entries of the folder. */
  readonly values: Values;
  readonly fields: readonly Field[];
  /** The lists it is made once per entry of, outer ones first. */
  readonly per: readonly string[];
}

export function FolderFacts({ template, registers, node, rules, values, fields, per }: Props) {
  const conventions = (rules.conventions ?? []).flatMap((id) => template.conventions.find((c) => c.id === id) ?? []);
  return (
    <div className="flex flex-col gap-5">
      {conventions.length > 0 && (
        <div className="flex flex-col gap-2">
          <Heading>Files here are called</Heading>
          {conventions.map((c) => (
            <Example key={c.id} convention={c} registers={registers} values={values} fields={fields} />
          ))}
        </div>
      )}
      <dl className="grid grid-cols-[5.5rem_1fr] gap-x-3 gap-y-1.5 text-sm">
        {facts(node, rules, per).map(([what, words]) => (
          <Pair key={what} what={what} words={words} />
        ))}
      </dl>
    </div>
  );
}

export function Pair({ what, words }: { what: React.ReactNode; words: React.ReactNode }) {
  return (
    <>
      <dt className="text-ink2">{what}</dt>
      <dd className="min-w-0 break-words">{words}</dd>
    </>
  );
}

interface ExampleProps {
  readonly convention: Convention;
  readonly registers: Registers;
  readonly values: Values;
  readonly fields: readonly Field[];
}

function Example({ convention, registers, values, fields }: ExampleProps) {
  const parts = useMemo(() => {
    const pattern = parsePattern(convention.pattern);
    const compiled = pattern.ok
      ? compileConvention(pattern.value, {
          fields: [...(convention.fields ?? []), ...fields],
          registers,
          families: convention.families,
        })
      : null;
    return compiled?.ok
      ? examplePieces(compiled.value, { ...values, date: values.date ?? null }).map((p) => ({
          text: p.text,
          label: p.field,
          ok: true,
        }))
      : [];
  }, [convention, registers, values, fields]);
  return (
    <div>
      <Anatomy parts={parts} />
      <p className="text-xs text-ink2">{convention.name}</p>
    </div>
  );
}

function facts(node: FolderNode, rules: FolderRules, per: readonly string[]): [string, string][] {
  const out: [string, string][] = [];
  if (node.purpose) out.push(['For', node.purpose]);
  out.push(['Takes', takes(rules)]);
  out.push(['Made', made(node, per)]);
  if (node.older)
    out.push([
      'Older',
      `superseded versions lie in ${node.older.folder}${node.older.keep === undefined ? '' : `; the last ${node.older.keep} are kept`}`,
    ]);
  if (rules.stable) out.push(['Stable', 'file names here never carry a version: others link to them']);
  if (node.licensed) out.push(['Licensed', 'each file has its licence note beside it']);
  if (node.checksums) out.push(['Checksums', 'a list of them is laid beside what is brought in']);
  if (node.outsiders === false) out.push(['Outsiders', 'it goes into no package for somebody outside the studio']);
  if (node.cards) out.push(['Cards', 'each card of a camera or recorder lies here as it was, in a folder of its own']);
  for (const { name, onePer, due } of node.deliveries ?? []) {
    const each = onePer === undefined ? '' : `, for each ${onePer.as}`;
    out.push(['To be delivered', `${name}${each}${due === undefined ? '' : `, ${dueWords(due)}`}`]);
  }
  if (node.filledWithinDays !== undefined) out.push(['Filled', `within ${node.filledWithinDays} days`]);
  if (node.frames !== undefined) out.push(['Frames', node.frames]);
  if (node.limitBytes !== undefined) out.push(['Limit', size(node.limitBytes)]);
  if (node.signpost) out.push(['Path for programs', node.signpost]);
  return out;
}

function takes(rules: FolderRules): string {
  if (rules.free) return 'anything, by any name';
  if (rules.accepts !== null) return rules.accepts.length === 0 ? 'folders only' : rules.accepts.join(', ');
  return rules.holdsFolders && rules.conventions === null ? 'folders only' : 'any family of files';
}

function made(node: FolderNode, lists: readonly string[]): string {
  const when = node.onlyWhen ? ` only when ${node.onlyWhen.field} is ${[node.onlyWhen.is].flat().join(' or ')}` : '';
  const per = lists.length > 0 ? `, once for each ${lists.join(' and ')}` : '';
  const presence =
    node.presence === 'optional'
      ? 'if wanted'
      : node.presence === 'on-demand'
        ? 'the first time it is needed'
        : 'always';
  const by = node.artistsMayAdd && presence !== 'always' ? ', by artists too' : '';
  return `${presence}${per}${when && `,${when}`}${by}`;
}

function dueWords({ field, days }: { readonly field: string; readonly days: number }): string {
  if (days === 0) return `by ${field}`;
  return `${many(Math.abs(days), 'day')} ${days < 0 ? 'before' : 'after'} ${field}`;
}
