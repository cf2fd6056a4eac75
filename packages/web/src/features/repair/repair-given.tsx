/** Where the plan comes from: causes, certainty, families; and what is set for all lines that are shown. */
import type { ProjectPage, RepairPlan } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { RULE_WORDS } from '@nesting/core/words';
import { type FormEvent, type ReactNode, useState } from 'react';
import { troubleOf } from '../../app/api';
import { many, sayHour, size } from '../../app/words';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { FolderField } from '../../changes/folder-field';
import { Button, Choose, Heading, Labelled, TextInput } from '../../ui';
import { renamedByWord } from './old-words';
import { repairApi } from './repair-api';
import {
  CERTAINTIES,
  CERTAINTY_WORDS,
  certaintyOf,
  type Filter,
  GROUP_WORDS,
  GROUPS,
  type Group,
  isShown,
  type Line,
  SIZE_WORDS,
  SIZES,
  WRITTEN,
  WRITTEN_WORDS,
} from './repair-rows';
import { placedAs, type RepairWork } from './repair-work';
import type { MentionsWork } from './use-mentions';

interface Props {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly work: RepairWork;
  readonly group: Group;
  readonly filter: Filter;
  readonly shown: readonly Line[];
  /** The way back to where the findings stand. */
  readonly from: ReactNode;
}

export function RepairGiven({ project, registers, work, group, filter, shown, from }: Props) {
  const { plan, put } = work;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="font-mono text-sm">{from}</p>
        <h1 className="text-xl font-semibold">Put {project.title || project.folder} right</h1>
        <p className="text-sm text-ink2">Planned on what lies on the disk now. Nothing is overwritten or deleted.</p>
      </div>
      {work.proposal !== null && (
        <p className="rounded-tray border border-plum bg-sheet px-3 py-2 text-sm">
          Proposed by {work.proposal.by}
          {work.proposal.note === '' ? '.' : `: “${work.proposal.note}”`}
        </p>
      )}
      {work.later !== null && <Waiting project={project.id} />}
      {plan !== undefined && <Narrow plan={plan} filter={filter} put={put} />}
      <div className="flex gap-2">
        <span className="min-w-0 flex-1">
          <Choose
            label="Size"
            value={filter.size}
            options={SIZES.map((value) => ({ value, label: SIZE_WORDS[value] }))}
            onChange={(value) => put({ size: value === 'any' ? null : value, line: null })}
          />
        </span>
        <span className="min-w-0 flex-1">
          <Choose
            label="When it was written"
            value={filter.written}
            options={WRITTEN.map((value) => ({ value, label: WRITTEN_WORDS[value] }))}
            onChange={(value) => put({ written: value === 'any' ? null : value, line: null })}
          />
        </span>
      </div>
      <FindAndGroup
        find={filter.find}
        onFind={(find) => put({ find })}
        label="How lines are grouped"
        group={group}
        groups={GROUPS.map((value) => ({ value, label: GROUP_WORDS[value] }))}
        onGroup={(value) => put({ group: value === 'place' ? null : value })}
      />
      {shown.length > 0 && <ForAll {...{ project, registers, work, shown }} />}
      {work.mentions !== null && <OtherPrograms mentions={work.mentions} />}
    </div>
  );
}

/** Plans that wait for their hour. */
function Waiting({ project }: { project: string }) {
  const { data: waiting = [] } = repairApi.useLaterRepairsQuery(project);
  const [drop, dropping] = repairApi.useDropLaterRepairMutation();
  if (waiting.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1 rounded-tray border border-plum bg-sheet px-3 py-2 text-sm">
      {waiting.map(({ id, by, beginsAt, findings }) => (
        <li key={id} className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1">
            {many(findings, 'finding')} put right {sayHour(new Date(beginsAt))}, by {by}
          </span>
          <Button variant="quiet" onClick={() => void drop({ id: project, later: id })}>
            Do not begin it
          </Button>
        </li>
      ))}
      {dropping.isError && <li className="text-brick">{troubleOf(dropping.error)}</li>}
    </ul>
  );
}

interface NarrowProps {
  readonly plan: RepairPlan;
  readonly filter: Filter;
  readonly put: RepairWork['put'];
}

/** Each count is under the other filters. */
function Narrow({ plan, filter, put }: NarrowProps) {
  const counted = (without: Partial<Filter>, keyOf: (line: Line) => string) => {
    const counts = new Map<string, number>();
    for (const line of plan.lines)
      if (isShown(line, { ...filter, ...without }, plan.now))
        counts.set(keyOf(line), (counts.get(keyOf(line)) ?? 0) + 1);
    return counts;
  };
  const causes = counted({ cause: null }, (l) => l.rule);
  const certainties = counted({ certainty: null }, certaintyOf);
  const families = counted({ family: null }, (l) => l.family ?? '');
  const choose = (key: string, value: string) =>
    put({ [key]: filterOf(filter, key) === value ? null : value, line: null });
  return (
    <>
      <FilterList label="What it comes from">
        {[...causes].map(([rule, n]) => (
          <FilterRow
            key={rule}
            words={RULE_WORDS[rule as Line['rule']].title}
            of={n}
            chosen={filter.cause === rule}
            onChoose={() => choose('cause', rule)}
          />
        ))}
      </FilterList>
      <FilterList label="How certain">
        {CERTAINTIES.filter((c) => (certainties.get(c) ?? 0) > 0 || filter.certainty === c).map((c) => (
          <FilterRow
            key={c}
            words={CERTAINTY_WORDS[c]}
            of={certainties.get(c) ?? 0}
            chosen={filter.certainty === c}
            onChoose={() => choose('certainty', c)}
          />
        ))}
      </FilterList>
      {families.size > 1 && (
        <FilterList label="Family">
          {[...families]
            .sort((a, b) => b[1] - a[1])
            .map(([family, n]) => (
              <FilterRow
                key={family}
                words={family === '' ? 'Folders and other files' : family}
                of={n}
                chosen={filter.family === family}
                onChoose={() => put({ family: filter.family === family ? null : family || '-', line: null })}
              />
            ))}
        </FilterList>
      )}
    </>
  );
}

const filterOf = (filter: Filter, key: string): string | null => (key === 'cause' ? filter.cause : filter.certainty);

/** Whether documents that only their programs can read were searched for what moves. */
function OtherPrograms({ mentions: { found, searchAll } }: { mentions: MentionsWork }) {
  if (found?.files === 0) return null;
  const documents = found === null ? '' : `${many(found.files, 'document')} of other programs (${size(found.bytes)})`;
  return (
    <div className="flex flex-col gap-2 text-sm">
      <Heading>Documents of other programs</Heading>
      <p className="text-ink2" aria-live="polite">
        {found === null
          ? 'They are searched for what moves…'
          : found.isSearched
            ? `${documents}: ${namedWords(found.references.length)}`
            : `${documents} were not searched for what moves: that takes a while.`}
      </p>
      {found?.isSearched === false && (
        <Button className="self-start" onClick={searchAll}>
          Search them
        </Button>
      )}
    </div>
  );
}

const namedWords = (count: number): string =>
  count === 0
    ? 'none names anything that moves.'
    : `${many(count, 'name')} to put right by hand, listed last in the plan.`;

/** One thing for all lines that are shown. */
function ForAll({ project, registers, work, shown }: Pick<Props, 'project' | 'registers' | 'work' | 'shown'>) {
  const offered = shown.filter((l) => certaintyOf(l) === 'likely');
  const chosen = shown.filter((l) => l.state === 'ready' || l.state === 'clash');
  const left = shown.filter((l) => l.state === 'left');
  const placed = chosen.filter((l) => l.entry === 'file' && l.after !== null);
  const take = (lines: readonly Line[], keyOf: (line: Line) => string | null) =>
    work.answer(Object.fromEntries(lines.map((l) => [l.id, { key: keyOf(l) }])));
  return (
    <div className="flex flex-col gap-2">
      <Heading>For the {many(shown.length, 'line')} shown</Heading>
      <div className="flex flex-wrap gap-2">
        {offered.length > 0 && (
          <Button onClick={() => take(offered, (l) => l.options[0]?.key ?? null)}>
            Take the {offered.length} likely
          </Button>
        )}
        {chosen.length > 0 && <Button onClick={() => take(chosen, () => null)}>Leave {chosen.length}</Button>}
        {left.length > 0 && (
          <Button onClick={() => work.forget(left.map((l) => l.id))}>Take back {left.length} left</Button>
        )}
      </div>
      <OldWords work={work} lines={chosen} />
      {placed.length > 1 && (
        <FolderField
          id="repair-folder-for-all"
          label={`The folder of ${many(placed.length, 'file')}`}
          project={project}
          registers={registers}
          given=""
          onFolder={(folder) => work.answer(Object.fromEntries(placed.map((l) => [l.id, placedAs(l, { folder })])))}
        />
      )}
    </div>
  );
}

/** A word of the new names becomes another one, in all lines that are shown. */
function OldWords({ work, lines }: { work: RepairWork; lines: readonly Line[] }) {
  const [old, setOld] = useState('');
  const [now, setNow] = useState('');
  const renamed = old.trim() === '' ? [] : renamedByWord(lines, old.trim(), now.trim());
  const submit = (event: FormEvent) => {
    event.preventDefault();
    work.answer(Object.fromEntries(renamed.map(({ line, name }) => [line.id, placedAs(line, { name })])));
    setOld('');
    setNow('');
  };
  if (lines.length === 0) return null;
  return (
    <form className="flex flex-col gap-2" onSubmit={submit}>
      <div className="grid grid-cols-2 gap-2">
        <Labelled id="repair-old" label="A word in new names">
          <TextInput id="repair-old" value={old} className="font-mono" onChange={(e) => setOld(e.target.value)} />
        </Labelled>
        <Labelled id="repair-new" label="becomes">
          <TextInput id="repair-new" value={now} className="font-mono" onChange={(e) => setNow(e.target.value)} />
        </Labelled>
      </div>
      {renamed.length > 0 && (
        <Button type="submit" className="self-start">
          Write it in {many(renamed.length, 'name')}
        </Button>
      )}
    </form>
  );
}
