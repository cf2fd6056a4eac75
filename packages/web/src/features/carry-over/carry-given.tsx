/** What is said of the whole plan: where it goes, how versions and old words go on, which files are shown. */
import type { KeptWay } from '@nesting/contract';
import type { VersionWay } from '@nesting/core/planners';
import { type FormEvent, type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { troubleOf } from '../../app/api';
import { many, size } from '../../app/words';
import { FilterList, FilterRow } from '../../changes/filter-list';
import { FindAndGroup } from '../../changes/find-and-group';
import { Button, Choose, Heading, Labelled, Popover, TextInput } from '../../ui';
import { carryApi } from './carry-api';
import { useShownFiles, viewOf } from './carry-lists';
import { filterOf, isOf, isShown, refRows, STATE_WORDS, STATES, takenBy } from './carry-rows';
import type { CarryWork } from './carry-work';

export type Where = 'new' | 'there' | 'revision';

const WHERE_WORDS: Readonly<Record<Where, string>> = {
  new: 'A new project',
  there: 'A project that is there',
  revision: 'The next revision of it',
};

const VERSION_WORDS: Readonly<Record<VersionWay, string>> = {
  restart: 'Begin anew, in their order',
  keep: 'Stay as they are',
  drop: 'Are left out where names allow it',
};

interface Props {
  readonly work: CarryWork;
  readonly where: Where;
  readonly wheres: readonly Where[];
  /** The fields of where it goes. */
  readonly children: ReactNode;
}

export function CarryGiven({ work, where, wheres, children }: Props) {
  const { project, said, setWay, put, plan, params } = work;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="font-mono text-sm">
          <Link to={`/projects/${project.id}`} className="text-plum hover:underline">
            {project.number}
          </Link>
        </p>
        <h1 className="text-xl font-semibold">Carry {project.title || project.folder} over</h1>
        <p className="text-sm text-ink2">
          {where === 'revision' ? 'What is there stays as it is.' : 'The old project is only read.'} What comes can be
          taken back.
        </p>
      </div>
      <Labelled id="carry-where" label="Carried to">
        <Choose
          id="carry-where"
          label="Carried to"
          value={where}
          options={wheres.map((value) => ({ value, label: WHERE_WORDS[value] }))}
          onChange={(value) => put({ to: value === 'new' ? null : value, line: null, folder: null })}
        />
      </Labelled>
      <Fields isOpen={plan === undefined || viewOf(params) === 'folders'}>{children}</Fields>
      <Labelled id="carry-versions" label="Versions">
        <Choose
          id="carry-versions"
          label="Versions"
          value={said.way.version}
          options={(['restart', 'keep', 'drop'] as const).map((value) => ({ value, label: VERSION_WORDS[value] }))}
          onChange={(version) => setWay({ version })}
        />
      </Labelled>
      <OldWords work={work} />
      {plan !== undefined && viewOf(params) === 'files' && <Narrow work={work} />}
      {plan !== undefined && viewOf(params) === 'references' && <TakeAll work={work} />}
      <KeptWays work={work} />
    </div>
  );
}

/** Out of the way while one looks through files, and open again where something is missing. */
function Fields({ isOpen, children }: { isOpen: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(isOpen);
  useEffect(() => setOpen(isOpen), [isOpen]);
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer pb-2 text-sm font-semibold">What it will be</summary>
      {children}
    </details>
  );
}

/** Words of the old project in names that read by no convention, each with its new one. */
function OldWords({ work: { plan, said, setWay } }: { work: CarryWork }) {
  const [old, setOld] = useState('');
  const [now, setNow] = useState('');
  const { words } = said.way;
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (old.trim() === '') return;
    const others = words.filter((word) => word.old !== old.trim());
    setWay({ words: [...others, { old: old.trim(), new: now.trim() === '' ? null : now.trim() }] });
    setOld('');
    setNow('');
  };
  return (
    <div className="flex flex-col gap-2">
      <Heading>Old words still in names</Heading>
      {plan !== undefined && plan.words.length > 0 && (
        <table className="w-full table-fixed text-sm" aria-label="Old words still in names">
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th scope="col" className="font-normal">
                Word
              </th>
              <th scope="col" className="font-normal">
                Becomes
              </th>
              <th scope="col" className="w-12 text-right font-normal">
                Names
              </th>
              <th scope="col" className="w-8">
                <span className="sr-only">Take it back</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {plan.words.map((word) => (
              <tr key={`${word.isAdded} ${word.old}`} className="h-7 border-t border-line">
                <td className="truncate font-mono" title={word.old}>
                  {word.old}
                </td>
                <td className="truncate font-mono">{word.now ?? <span className="font-sans text-ink2">goes</span>}</td>
                <td className="text-right text-ink2">{word.names}</td>
                <td className="text-right">
                  {word.isAdded && (
                    <button
                      type="button"
                      aria-label={`Take ${word.old} back`}
                      className="rounded-tray px-1.5 text-ink2 hover:bg-bench"
                      onClick={() => setWay({ words: words.filter(({ old: other }) => other !== word.old) })}
                    >
                      ×
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <form className="flex items-end gap-2" onSubmit={add}>
        <TextInput
          aria-label="Another old word"
          placeholder="Another word"
          value={old}
          maxLength={255}
          className="min-w-0 flex-1 font-mono"
          onChange={(e) => setOld(e.target.value)}
        />
        <TextInput
          aria-label="Its new word; empty where it goes"
          placeholder="or it goes"
          value={now}
          maxLength={255}
          className="min-w-0 flex-1 font-mono"
          onChange={(e) => setNow(e.target.value)}
        />
        <Button type="submit" disabled={old.trim() === ''}>
          Add
        </Button>
      </form>
    </div>
  );
}

/** Each count is under the other filters. */
function Narrow({ work }: { work: CarryWork }) {
  const { plan, params, put, said, pick } = work;
  const filter = filterOf(params);
  const shown = useShownFiles(work);
  const isPicked = (path: string) => said.picked[path] !== undefined;
  const all = plan?.items ?? [];
  const ofState = all.filter((item) => isShown(item, { ...filter, state: null }, isPicked));
  const left = shown.filter((item) => !item.comes);
  const coming = shown.filter((item) => item.comes);
  const set = (items: typeof shown, comes: boolean) =>
    pick(Object.fromEntries(items.map(({ from }) => [from, { comes }])));
  return (
    <>
      {filter.folder !== null && (
        <p className="flex items-baseline gap-2 text-sm">
          <span className="min-w-0 flex-1 truncate font-mono">{filter.folder || 'the whole project'}</span>
          <Button variant="quiet" onClick={() => put({ in: null })}>
            All folders
          </Button>
        </p>
      )}
      <FilterList label="What becomes of it">
        {STATES.map((state) => ({ state, of: ofState.filter((item) => isOf(item, state, isPicked)).length }))
          .filter(({ state, of }) => of > 0 || filter.state === state)
          .map(({ state, of }) => (
            <FilterRow
              key={state}
              words={STATE_WORDS[state]}
              of={of}
              chosen={filter.state === state}
              onChoose={() => put({ state: filter.state === state ? null : state, line: null })}
            />
          ))}
      </FilterList>
      {(plan?.families.length ?? 0) > 1 && (
        <FilterList label="Family, of what comes">
          {plan?.families.map(({ family, files, bytes }) => (
            <FilterRow
              key={family ?? '-'}
              words={family ?? 'Other files'}
              note={size(bytes)}
              of={files}
              chosen={filter.family === (family ?? '')}
              onChoose={() => put({ family: filter.family === (family ?? '') ? null : (family ?? '-'), line: null })}
            />
          ))}
        </FilterList>
      )}
      <FindAndGroup
        find={filter.find}
        onFind={(find) => put({ find })}
        label="How files are grouped"
        group={params.get('group') ?? 'folder'}
        groups={[
          { value: 'folder', label: 'by folder' },
          { value: 'family', label: 'by family' },
        ]}
        onGroup={(value) => put({ group: value === 'folder' ? null : value })}
      />
      {shown.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {left.length > 0 && <Button onClick={() => set(left, true)}>Take {many(left.length, 'file')} along</Button>}
          {coming.length > 0 && <Button onClick={() => set(coming, false)}>Leave {many(coming.length, 'file')}</Button>}
        </div>
      )}
    </>
  );
}

/** With one press what comes has all that it refers to, or all that refers to it. */
function TakeAll({ work: { plan, pick } }: { work: CarryWork }) {
  if (plan === undefined) return null;
  const rows = refRows(plan);
  const take = (kind: 'needed' | 'referring') =>
    pick(
      Object.fromEntries(
        rows
          .filter((row) => row.kind === kind && row.taken !== null)
          .flatMap(({ taken }) => Object.entries(takenBy(plan, taken ?? ''))),
      ),
    );
  return (
    <div className="flex flex-col items-start gap-2">
      {plan.needed.length > 0 && <Button onClick={() => take('needed')}>Take all along that is needed</Button>}
      {plan.referring.length > 0 && <Button onClick={() => take('referring')}>Take all along that refers to it</Button>}
    </div>
  );
}

/** "How we make the next one": kept with the template, and used again. */
function KeptWays({ work }: { work: CarryWork }) {
  const { project, said, setWay, forget } = work;
  const template = project.template.id;
  const { data: ways = [] } = carryApi.useCarryWaysQuery(template);
  const [keep, keeping] = carryApi.useKeepCarryWayMutation();
  const [drop] = carryApi.useDropCarryWayMutation();
  const [name, setName] = useState('');
  const [isOpen, setIsOpen] = useState(false);
  const wayBody = {
    ...said.way,
    take: [...said.way.take],
    leave: [...said.way.leave],
    words: [...said.way.words],
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const kept = await keep({ template, name: name.trim(), way: wayBody })
      .unwrap()
      .then(() => true)
      .catch(() => false);
    if (kept) setName('');
  };
  const use = (way: KeptWay['way']) => {
    setWay({ ...UNSET, ...way });
    setIsOpen(false);
  };
  return (
    <div className="flex flex-wrap gap-2">
      <Popover label="Kept ways" trigger={<Button>Kept ways…</Button>} open={isOpen} onOpen={setIsOpen} width="w-80">
        <div className="flex flex-col gap-3 p-3 text-sm">
          <Heading>Kept with this template</Heading>
          {ways.length === 0 && (
            <p className="text-ink2">
              None yet. What comes of each folder, versions and words are kept; single files are not.
            </p>
          )}
          <ul className="flex flex-col gap-1">
            {ways.map((way) => (
              <li key={way.name} className="flex items-center gap-1">
                <button
                  type="button"
                  onClick={() => use(way.way)}
                  className="min-w-0 flex-1 truncate rounded-tray px-2 py-1 text-left hover:bg-bench"
                >
                  {way.name}
                </button>
                <Button
                  variant="quiet"
                  aria-label={`Forget ${way.name}`}
                  onClick={() => void drop({ template, name: way.name })}
                >
                  Forget it
                </Button>
              </li>
            ))}
          </ul>
          <form className="flex gap-2" onSubmit={(event) => void submit(event)}>
            <TextInput
              aria-label="What this way is called"
              placeholder="What this way is called"
              value={name}
              maxLength={100}
              className="min-w-0 flex-1"
              onChange={(e) => setName(e.target.value)}
            />
            <Button type="submit" disabled={name.trim() === '' || keeping.isLoading}>
              Keep it
            </Button>
          </form>
          {keeping.isError && <p className="text-brick">{troubleOf(keeping.error)}</p>}
        </div>
      </Popover>
      <Button variant="quiet" onClick={forget}>
        Begin anew
      </Button>
    </div>
  );
}

const UNSET = { folders: {}, take: [], leave: [], version: 'restart', words: [] } as const;
