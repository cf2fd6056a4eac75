/**
 * The right column of a start: the selected line's full path, its length against the budget, what it is for, what
 * stands against it.
 */
import type { VolumeRow } from '@nesting/contract';
import type { Field, Registers, Values } from '@nesting/core/name';
import type { Expansion, PlannedLine, Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import { useMemo } from 'react';
import { readerPath, useReaderSystem } from '../../app/reader-path';
import { CopyButton, Heading } from '../../ui';
import { WeightSign } from '../../ui/signs';
import { FolderFacts, Pair } from '../templates/folder-facts';

interface Props {
  readonly template: Template;
  readonly registers: Registers;
  readonly expansion: Expansion;
  readonly line: PlannedLine;
  readonly prefix: string;
  /** Where it is written; `null` for what is taken away. Its root is another on each system. */
  readonly volume: VolumeRow | null;
  readonly clash: string | null;
  readonly onSelect: (key: string) => void;
}

export function SelectedLine({ template, registers, expansion, line, prefix, volume, clash, onSelect }: Props) {
  const here = expansion.diagnostics.filter((d) => d.line === line.key);
  const elsewhere = expansion.diagnostics.filter(
    (d) => d.line !== line.key && d.code !== 'value-missing' && d.code !== 'field-required',
  );
  const values = useMemo<Values>(() => ({ ...expansion.values.values, ...line.entries }), [expansion, line]);
  const fields = useMemo<Field[]>(
    () => [...Object.keys(line.entries).flatMap((as) => entryField(template, expansion, as)), ...template.fields],
    [template, expansion, line],
  );
  return (
    <div className="flex flex-col gap-5">
      <PathOf expansion={expansion} line={line} prefix={prefix} volume={volume} />
      {(here.length > 0 || clash !== null) && (
        <ul className="flex flex-col gap-1.5">
          {clash !== null && <Fault weight="must" words={clash} />}
          {here.map((d) => (
            <Fault
              key={`${d.code}${d.field}`}
              weight={d.weight === 'refused' ? 'must' : 'should'}
              words={wordsFor(d.code, d.params)}
            />
          ))}
        </ul>
      )}
      {line.folder ? (
        <FolderFacts
          template={template}
          registers={registers}
          node={line.folder}
          rules={line.rules}
          values={values}
          fields={fields}
          per={Object.keys(line.entries)}
        />
      ) : (
        <dl className="grid grid-cols-[5.5rem_1fr] gap-x-3 gap-y-1.5 text-sm">
          <Pair what="From" words={<span className="font-mono">{line.starter?.from}</span>} />
          <Pair what="Made" words={line.starter?.fill ? 'copied, renamed and filled in' : 'copied and renamed'} />
        </dl>
      )}
      {elsewhere.length > 0 && <Elsewhere diagnostics={elsewhere} onSelect={onSelect} />}
    </div>
  );
}

function entryField(template: Template, expansion: Expansion, as: string): Field[] {
  const list = expansion.lines.find((l) => l.folder?.onePer?.as === as)?.folder?.onePer?.list;
  const field = template.fields.find((f) => f.key === list);
  return field?.type === 'list' ? [{ key: as, ...field.of }] : [];
}

function longestBelow(expansion: Expansion, line: PlannedLine): number {
  const head = line.path === '' ? '' : `${line.path}/`;
  const rest = expansion.lines.reduce(
    (n, l) => (l.path.startsWith(head) && l.path.length > n ? l.path.length : n),
    line.path.length,
  );
  const before = expansion.longest - Math.max(...expansion.lines.map((l) => l.path.length), 0);
  return before + rest;
}

function Fault({ weight, words }: { weight: 'must' | 'should'; words: string }) {
  return (
    <li className="flex items-start gap-2 text-sm">
      <span className="pt-1">
        <WeightSign weight={weight} />
      </span>
      {words}
    </li>
  );
}

/** How much of the longest allowed path is used, with the mark at which it ends. */
function Budget({ used, most }: { used: number; most: number }) {
  const share = Math.min(1, used / (most * 1.12));
  return (
    // biome-ignore lint/a11y/useSemanticElements: <meter> cannot be drawn in these looks
    <div
      role="meter"
      aria-label="Length of the path"
      aria-valuenow={used}
      aria-valuemin={0}
      aria-valuemax={most}
      className="relative h-1.5 rounded-full bg-line"
    >
      <span
        className={`absolute inset-y-0 left-0 rounded-full ${used > most ? 'bg-brick' : 'bg-bottle'}`}
        style={{ width: `${share * 100}%` }}
      />
      <span className="absolute -inset-y-1 w-0.5 bg-brick" style={{ left: `${100 / 1.12}%` }} />
    </div>
  );
}

function PathOf({ expansion, line, prefix, volume }: Pick<Props, 'expansion' | 'line' | 'prefix' | 'volume'>) {
  const path = [expansion.rootName, line.path].filter((p) => p !== '').join('/');
  const longest = useMemo(() => longestBelow(expansion, line), [expansion, line]);
  const length = prefix.length + path.length;
  const system = useReaderSystem();
  const whole =
    volume === null
      ? path
      : readerPath({ root: `${volume.root}/${path}`, folder: path, prefixes: volume.prefixes }, system, '');
  return (
    <div className="flex flex-col gap-2">
      <Heading>Selected</Heading>
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
        <span className="min-w-0 flex-1 font-mono text-sm break-all">
          {volume !== null && <span className="text-ink2">{volume.name}/</span>}
          {path}
        </span>
        <CopyButton text={whole} what="the path" />
      </div>
      <Budget used={length} most={expansion.budget} />
      <p className="text-xs text-ink2">
        {length} of {expansion.budget} characters with the volume's own path
        {longest > length ? `; the longest planned below it has ${longest}` : ''}
      </p>
    </div>
  );
}

interface ElsewhereProps {
  readonly diagnostics: Expansion['diagnostics'];
  readonly onSelect: (key: string) => void;
}

function Elsewhere({ diagnostics, onSelect }: ElsewhereProps) {
  return (
    <div className="flex flex-col gap-2">
      <Heading>Elsewhere in this plan</Heading>
      <ul className="flex flex-col gap-1.5">
        {diagnostics.slice(0, 6).map((d, i) => (
          <li key={`${d.code}${d.line}${i}`}>
            <button
              type="button"
              disabled={d.line === null}
              onClick={() => d.line && onSelect(d.line)}
              className="flex items-start gap-2 text-left text-sm"
            >
              <span className="pt-1">
                <WeightSign weight={d.weight === 'refused' ? 'must' : 'should'} />
              </span>
              {wordsFor(d.code, d.params)}
            </button>
          </li>
        ))}
      </ul>
      {diagnostics.length > 6 && <p className="text-xs text-ink2">…and {diagnostics.length - 6} more</p>}
    </div>
  );
}
