/**
 * Files a folder begins with: each has a name, and may be there only when a value says so; several with one name are
 * variants of it.
 */
import { LIMITS } from '@nesting/core';
import type { Registers, Values } from '@nesting/core/name';
import type { FolderNode, Starter, Template } from '@nesting/core/template';
import { useState } from 'react';
import { count, many, size } from '../../../app/words';
import { Button, Choose, FileButton, Heading, Refused, TextInput, Tick } from '../../../ui';
import { ALWAYS, conditionOf, conditions, wordOfCondition } from './conditions';
import { StarterContent } from './starter-content';

export interface StarterPlace {
  /** Where a file given to this folder under this name is kept. */
  readonly pathOf: (node: FolderNode, name: string) => string;
  readonly addressOf: (path: string) => string;
  /** Takes a file's bytes to the draft. */
  readonly onFile: (path: string, file: File) => void;
  readonly registers: Registers;
  readonly values: Values;
}

interface Props extends StarterPlace {
  readonly template: Template;
  readonly node: FolderNode;
  readonly readOnly: boolean;
  readonly onSet: (starters: readonly Starter[]) => void;
}

/** Files of a document that is a folder. */
const MOST_IN_FOLDER = 1000;

const FILLED = /\.(md|txt|otio|csv|json|xml|html|svg|env|usda)$/i;

export function StartersForm({ template, node, readOnly, onSet, pathOf, addressOf, onFile, registers, values }: Props) {
  const starters = node.starters ?? [];
  const [refused, setRefused] = useState('');
  const put = (file: File) => {
    if (file.size > LIMITS.starterBytes)
      return setRefused(
        `${file.name} has ${size(file.size)}; a starter file may have ${size(LIMITS.starterBytes)}. It was not taken.`,
      );
    setRefused('');
    const path = pathOf(node, file.name);
    onFile(path, file);
    // The same file once more is its new content; of another folder it is another starter.
    if (starters.some((s) => s.from === path)) return;
    const id = freeId(node, file.name, starters);
    onSet([...starters, { id, name: file.name, from: path, ...(FILLED.test(file.name) && { fill: true }) }]);
  };
  const putFolder = (files: readonly File[]) => {
    const [name = ''] = files[0]?.webkitRelativePath.split('/') ?? [];
    const large = files.find((file) => file.size > LIMITS.starterBytes);
    if (large !== undefined || files.length > MOST_IN_FOLDER)
      return setRefused(
        large === undefined
          ? `${name} holds ${count(files.length)} files; a document may hold ${count(MOST_IN_FOLDER)}. It was not taken.`
          : `${large.name} has ${size(large.size)}; a starter file may have ${size(LIMITS.starterBytes)}. Nothing was taken.`,
      );
    setRefused('');
    const from = pathOf(node, name);
    const inside = files.map((file) => ({ file, path: file.webkitRelativePath.slice(name.length + 1) }));
    for (const { file, path } of inside) onFile(`${from}/${path}`, file);
    const held = inside.map(({ path }) => path).sort();
    const known = starters.find((s) => s.from === from);
    onSet(
      known === undefined
        ? [...starters, { id: freeId(node, name, starters), name, from, files: held }]
        : starters.map((s) => (s === known ? { ...s, files: held } : s)),
    );
  };
  return (
    <section aria-label="Starter files" className="flex flex-col gap-2">
      <Heading>Starter files</Heading>
      {starters.map((s) => (
        <StarterRow
          key={s.id}
          starter={s}
          template={template}
          registers={registers}
          values={values}
          address={addressOf(s.from)}
          readOnly={readOnly}
          onChange={(change) => onSet(starters.map((o) => (o.id === s.id ? { ...o, ...change } : o)))}
          onTakeOut={() => onSet(starters.filter((o) => o.id !== s.id))}
        />
      ))}
      {starters.length > 1 &&
        starters.some(
          (s) => wordOfCondition(s.onlyWhen) === ALWAYS && starters.some((o) => o !== s && o.name === s.name),
        ) && <p className="text-xs text-ink2">Files of one name are variants: say for each when it is there.</p>}
      <Refused words={refused} />
      {!readOnly && (
        <div className="flex flex-wrap gap-2">
          <FileButton label="A starter file" onFiles={([file]) => put(file)}>
            Add a file…
          </FileButton>
          <FileButton label="A document that is a folder" folder onFiles={putFolder}>
            Add a document that is a folder…
          </FileButton>
        </div>
      )}
    </section>
  );
}

interface RowProps extends Pick<Props, 'template' | 'registers' | 'values' | 'readOnly'> {
  readonly starter: Starter;
  /** Where its content is. */
  readonly address: string;
  readonly onChange: (change: Partial<Starter>) => void;
  readonly onTakeOut: () => void;
}

function StarterRow({ starter: s, template, registers, values, address, readOnly, onChange, onTakeOut }: RowProps) {
  const [open, setOpen] = useState(false);
  return (
    <div className="flex flex-col gap-1 border-b border-line pb-2">
      <TextInput
        aria-label={`Name of ${s.from}`}
        value={s.name}
        readOnly={readOnly}
        onChange={(e) => onChange({ name: e.target.value })}
        className="font-mono"
      />
      <div className="flex items-center gap-2 text-xs text-ink2">
        <span className="shrink-0">only when</span>
        <Choose
          label={`${s.name} only when`}
          disabled={readOnly}
          value={wordOfCondition(s.onlyWhen)}
          options={conditions(template)}
          onChange={(value) => onChange({ onlyWhen: conditionOf(value) })}
        />
      </div>
      <div className="flex flex-wrap items-center gap-3 text-xs text-ink2">
        <span className="min-w-0 flex-1 font-mono break-all">{s.from.split('/').at(-1)}</span>
        {s.files === undefined ? (
          <>
            <Tick
              label="fill in"
              checked={s.fill ?? false}
              disabled={readOnly}
              onChange={(fill) => onChange({ fill: fill || undefined })}
            />
            <Button variant="quiet" className="h-6!" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Close' : 'Look into it'}
            </Button>
          </>
        ) : (
          <span>a folder of {many(s.files.length, 'file')}</span>
        )}
        {!readOnly && (
          <Button variant="quiet" className="h-6!" onClick={() => onTakeOut()}>
            Take out
          </Button>
        )}
      </div>
      {open && (
        <StarterContent
          address={address}
          fill={s.fill ?? false}
          template={template}
          registers={registers}
          values={values}
        />
      )}
    </div>
  );
}

function freeId(node: FolderNode, name: string, starters: readonly Starter[]): string {
  const taken = new Set(starters.map((s) => s.id));
  const base = `${node.id}-${name}`.replace(/[^A-Za-z0-9-]+/g, '-');
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
