/** About the selected line: what is wrong, the ways there are and what each does, its name, what is in its way. */
import type { ProjectPage, RepairOption } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import { explainName, type Registers } from '@nesting/core/name';
import { DEFAULT_PROFILES, nameFaults } from '@nesting/core/portable';
import { ProjectRules } from '@nesting/core/project';
import { REPAIR_STATE_REASONS, RULE_WORDS, WAY_NOTES, wayWords, wordsFor } from '@nesting/core/words';
import { useEffect, useId, useMemo, useState } from 'react';
import { Anatomy, partsOfBroken } from '../../anatomy/anatomy';
import { many, moment, size } from '../../app/words';
import { FolderField } from '../../changes/folder-field';
import { Button, CopyButton, Heading, Labelled, TextInput, Tick } from '../../ui';
import { alikeOf, type Line } from './repair-rows';
import { placedAs, type RepairWork } from './repair-work';

interface Props {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly line: Line;
  readonly work: RepairWork;
  readonly wholePath: (path: string) => string;
}

const CONFIDENCE: Readonly<Record<RepairOption['confidence'], string>> = {
  sure: 'sure',
  likely: 'likely',
  guess: 'a guess',
};

export function SelectedRepair({ project, registers, line, work, wholePath }: Props) {
  const [isForAll, setForAll] = useState(false);
  useEffect(() => setForAll(false), [line.rule]);
  const lines = work.plan?.lines ?? [];
  const answer = (key: string | null) => {
    const others = isForAll && key !== null ? alikeOf(lines, line, key) : [];
    work.answer(Object.fromEntries([[line.id, { key }], ...others.map((o) => [o.id, { key: o.key }])]));
  };
  const alike = line.options[0] === undefined ? 0 : alikeOf(lines, line, line.chosen ?? line.options[0].key).length;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1.5">
        <Heading>{RULE_WORDS[line.rule].title}</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">{line.path}</span>
          <CopyButton text={wholePath(line.path)} what="the path" />
        </p>
        <p className="text-ink2">{RULE_WORDS[line.rule].reason}</p>
      </div>
      {line.options.length > 0 && (
        <Ways line={line} onAnswer={answer}>
          {alike > 0 && (
            <Tick label={`The same answer for ${many(alike, 'other')} alike`} checked={isForAll} onChange={setForAll} />
          )}
        </Ways>
      )}
      <Obstacle line={line} work={work} />
      {line.chosen !== null && line.after !== null && (
        <NameField
          key={`${line.id} ${line.chosen}`}
          project={project}
          registers={registers}
          line={line}
          onName={(name) => work.answer({ [line.id]: placedAs(line, { name }) })}
        />
      )}
      {line.chosen !== null && line.after !== null && line.entry === 'file' && (
        <FolderField
          key={`${line.id} ${line.chosen} folder`}
          id="repair-folder"
          label="Its folder"
          project={project}
          registers={registers}
          given={parentOf(line.after)}
          onFolder={(folder) => work.answer({ [line.id]: placedAs(line, { folder }) })}
        />
      )}
      {line.state !== 'ready' && line.state !== 'clash' && (
        <p className="text-ink2">{REPAIR_STATE_REASONS[line.state]}</p>
      )}
      {line.state === 'by-hand' && <p>{RULE_WORDS[line.rule].cure}</p>}
    </div>
  );
}

interface WaysProps {
  readonly line: Line;
  readonly onAnswer: (key: string | null) => void;
  readonly children: React.ReactNode;
}

/** The ways there are, surest first, and that it stays as it is. */
function Ways({ line, onAnswer, children }: WaysProps) {
  const name = useId();
  const ways = line.options.filter((o) => o.way !== 'accept');
  return (
    <fieldset className="flex min-w-0 flex-col gap-2">
      <legend className="pb-1 text-xs font-semibold text-ink2">How it is put right</legend>
      {ways.map((option, i) => (
        <Way
          key={option.key}
          group={name}
          isTaken={line.chosen === option.key}
          words={wayWords(option, line.path)}
          facts={option.facts === undefined ? '' : factsWords(option.facts)}
          // Said once of several that do the same, and of the one that is taken.
          note={
            line.chosen === option.key || (line.chosen === null && ways[i - 1]?.way !== option.way)
              ? WAY_NOTES[option.way]
              : undefined
          }
          confidence={CONFIDENCE[option.confidence]}
          onTake={() => onAnswer(option.key)}
        />
      ))}
      <Way
        group={name}
        isTaken={line.state === 'left'}
        words="Leave it as it is"
        facts=""
        note={undefined}
        confidence=""
        onTake={() => onAnswer(null)}
      />
      {children}
    </fieldset>
  );
}

const factsWords = ({ modified, size: bytes, referrers }: NonNullable<RepairOption['facts']>): string =>
  [
    `since ${moment(new Date(modified).toISOString())}`,
    size(bytes),
    referrers === 0
      ? 'nothing refers to it'
      : `${many(referrers, 'document')} ${referrers === 1 ? 'refers' : 'refer'} to it`,
  ].join(', ');

interface WayProps {
  readonly group: string;
  readonly isTaken: boolean;
  readonly words: string;
  /** What tells it from the others. */
  readonly facts: string;
  readonly note: string | undefined;
  readonly confidence: string;
  readonly onTake: () => void;
}

function Way({ group, isTaken, words, facts, note, confidence, onTake }: WayProps) {
  return (
    <label
      className={`flex items-start gap-2.5 rounded-tray border px-2.5 py-1.5 ${isTaken ? 'border-plum bg-chosen' : 'border-line bg-sheet'}`}
    >
      <input type="radio" name={group} checked={isTaken} onChange={onTake} className="mt-0.5 size-4 accent-(--plum)" />
      <span className="min-w-0 flex-1">
        <span className="block wrap-anywhere">{words}</span>
        {facts !== '' && <span className="block text-xs">{facts}</span>}
        {note !== undefined && <span className="block text-xs text-ink2">{note}</span>}
      </span>
      <span className="shrink-0 text-xs text-ink2">{confidence}</span>
    </label>
  );
}

/** What stands in its way, and the ways out. */
function Obstacle({ line, work }: { line: Line; work: RepairWork }) {
  const { clash, fault, free, id } = line;
  if (fault !== null) return <p className="text-brick">{wordsFor(fault.code, fault.params)}</p>;
  if (clash === null) return null;
  const other = clash.other === null ? undefined : work.plan?.lines.find((l) => l.id === clash.other);
  return (
    <div className="flex flex-col gap-2">
      <p className="text-brick">
        <span className="font-mono break-all">{nameOf(clash.at)}</span>{' '}
        {clash.other === null
          ? 'is there already. Nothing is overwritten, so both stay as they are.'
          : `is wanted by ${other === undefined ? 'another line' : nameOf(other.path)} too. Both stay as they are until one of them gets another name.`}
      </p>
      {free !== null && (
        <>
          <Button className="self-start" onClick={() => work.answer({ [id]: placedAs(line, { name: free }) })}>
            Give it a free name
          </Button>
          <span className="font-mono wrap-anywhere text-ink2">{free}</span>
        </>
      )}
    </div>
  );
}

interface NameProps {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly line: Line;
  readonly onName: (name: string) => void;
}

/** The name it gets, to be written otherwise; its anatomy and its faults follow each letter. */
function NameField({ project, registers, line, onName }: NameProps) {
  const given = nameOf(line.after ?? '');
  const [name, setName] = useState(given);
  useEffect(() => setName(given), [given]);
  const rules = useMemo(
    () => new ProjectRules({ template: project.body, values: project.values, registers }),
    [project.body, project.values, registers],
  );
  const [fault] = nameFaults(name, project.body.checks?.profiles ?? DEFAULT_PROFILES).filter(
    (f) => f.weight === 'refused',
  );
  const folder = rules.planned(parentOf(line.after ?? ''));
  const [by] = folder === undefined || line.entry === 'folder' ? [] : rules.conventionsFor(folder, name);
  const explanation = by === undefined ? null : explainName(by.strict, name, by.context);
  const take = () => {
    if (fault === undefined && name.trim() !== '' && name !== given) onName(name.trim());
  };
  return (
    <Labelled
      id="repair-name"
      label={line.entry === 'folder' ? 'Called' : 'Its name'}
      help={line.count > 1 ? 'The others follow.' : undefined}
    >
      <TextInput
        id="repair-name"
        value={name}
        maxLength={255}
        // A name that only a person knows is what is asked for: the next letter belongs here.
        autoFocus={line.state === 'ask'}
        className="font-mono"
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => setName(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {explanation !== null && explanation.stretches.length > 0 && (
        <span className="overflow-x-auto pt-1">
          <Anatomy parts={partsOfBroken(name, explanation.stretches, explanation.problems)} />
        </span>
      )}
      {fault !== undefined && <span className="text-brick">{wordsFor(fault.code, fault.params)}</span>}
    </Labelled>
  );
}
