/** About what is selected: a folder with what of it comes, a file with both its names, a reference with its ends. */
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { COMES, type Comes } from '@nesting/core/planners';
import { byHandWords, wordsFor } from '@nesting/core/words';
import { useMemo } from 'react';
import { count, many, moment, size } from '../../app/words';
import { FolderField } from '../../changes/folder-field';
import { NameField } from '../../changes/name-field';
import { NameParts, type RulesOf } from '../../changes/name-parts';
import { Button, CopyButton, Heading } from '../../ui';
import { below, COMES_WORDS, type Folder } from './carry-folders';
import { BY_WORDS } from './carry-line';
import { useShownFiles, viewOf } from './carry-lists';
import { type Item, REF_WORDS, type RefRow, refRows, takenBy } from './carry-rows';
import type { CarryWork } from './carry-work';

interface Props {
  readonly work: CarryWork;
  readonly registers: Registers;
  /** What the new project goes by. */
  readonly next: RulesOf;
}

export function CarrySelected({ work, registers, next }: Props) {
  const { plan, params } = work;
  const shown = useShownFiles(work);
  if (plan === undefined) return null;
  switch (viewOf(params)) {
    case 'folders': {
      const folder = plan.folders.find(({ path }) => path === (params.get('folder') ?? '')) ?? plan.folders[0];
      return folder === undefined ? null : <SelectedFolder work={work} folder={folder} folders={plan.folders} />;
    }
    case 'files': {
      const item = shown.find(({ from }) => from === params.get('line')) ?? shown[0];
      return item === undefined ? null : <SelectedFile {...{ work, registers, next, item }} />;
    }
    case 'references': {
      const rows = refRows(plan);
      const row = rows.find(({ key }) => key === params.get('ref')) ?? rows[0];
      return row === undefined ? null : <SelectedReference work={work} row={row} />;
    }
  }
}

interface FolderProps {
  readonly work: CarryWork;
  readonly folder: Folder;
  readonly folders: readonly Folder[];
}

function SelectedFolder({ work, folder, folders }: FolderProps) {
  const { sayFolder, pick, said, put } = work;
  const { path, to, node, comes, isSaid } = folder;
  const sum = useMemo(() => below(folders).get(path), [folders, path]);
  const { files = 0, current = 0, coming = 0, bytes = 0 } = sum ?? {};
  // What no plan makes is taken or left whole.
  const ways = node === null ? (['nothing', 'everything'] as const) : COMES;
  const counts = { nothing: '', empty: '', current: many(current, 'file'), everything: many(files, 'file') };
  const say = (next: Comes | null) =>
    node === null
      ? pick({ [path]: { comes: next === null ? undefined : next === 'everything' } })
      : sayFolder(node, next);
  const own = node === null ? wholeOf(said.picked[path]?.comes) : said.way.folders[node];
  const taken = own ?? (path === '' ? 'current' : null);
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{path === '' ? 'The whole project' : nameOf(path)}</Heading>
        {path !== '' && to !== path && (
          <p className="text-ink2">
            Becomes <span className="font-mono break-all text-ink">{to}</span>
          </p>
        )}
        <p className="text-ink2">
          {count(coming)} of {many(files, 'file')} in it and below come, {size(bytes)}.
        </p>
      </div>
      <fieldset className="flex min-w-0 flex-col gap-2">
        <legend className="pb-1 text-xs font-semibold text-ink2">What comes along of it</legend>
        {path !== '' && (
          <Choice
            isTaken={taken === null}
            words="What the folder above says"
            note={isSaid ? '' : COMES_WORDS[comes]}
            onTake={() => say(null)}
          />
        )}
        {ways.map((way) => (
          <Choice
            key={way}
            isTaken={taken === way}
            words={COMES_WORDS[way].replace(/^./, (c) => c.toUpperCase())}
            note={counts[way]}
            onTake={() => say(way)}
          />
        ))}
      </fieldset>
      <p className="text-ink2">
        What is in it follows, unless it says otherwise. Current is the newest of each version, without what programs
        generate.
      </p>
      {files > 0 && (
        <Button className="self-start" onClick={() => put({ view: 'files', in: path, line: null })}>
          Show its {many(files, 'file')}
        </Button>
      )}
    </div>
  );
}

const wholeOf = (comes: boolean | undefined): Comes | undefined =>
  comes === undefined ? undefined : comes ? 'everything' : 'nothing';

interface ChoiceProps {
  readonly isTaken: boolean;
  readonly words: string;
  readonly note: string;
  readonly onTake: () => void;
}

function Choice({ isTaken, words, note, onTake }: ChoiceProps) {
  return (
    <label
      className={`flex items-center gap-2.5 rounded-tray border px-2.5 py-1.5 ${isTaken ? 'border-plum bg-chosen' : 'border-line bg-sheet'}`}
    >
      <input type="radio" name="carry-comes" checked={isTaken} onChange={onTake} className="size-4 accent-(--plum)" />
      <span className="min-w-0 flex-1">{words}</span>
      <span className="shrink-0 text-xs text-ink2">{note}</span>
    </label>
  );
}

interface FileProps extends Props {
  readonly item: Item;
}

function SelectedFile({ work, registers, next, item }: FileProps) {
  const { project, pick, said } = work;
  const { from, to, comes, by, fault, clash, first } = item;
  const picked = said.picked[from];
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{comes ? `Comes along, ${BY_WORDS[by]}` : 'Stays behind'}</Heading>
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1 font-mono break-all">{from}</span>
          <CopyButton text={from} what="the path" />
        </p>
        <p className="text-ink2">
          {size(item.size)}
          {item.frames > 1 && ` in ${many(item.frames, 'frame')}`}, written{' '}
          {moment(new Date(item.modified).toISOString())}
        </p>
      </div>
      <NameParts
        rules={project}
        registers={registers}
        folder={parentOf(from)}
        name={first?.from ?? nameOf(from)}
        label={project.number}
      />
      {comes && (
        <NameParts
          rules={next}
          registers={registers}
          folder={parentOf(to)}
          name={first?.to ?? nameOf(to)}
          label="Next"
        />
      )}
      {fault !== null && <p className="text-brick">{wordsFor(fault.code, fault.params)} It stays behind so.</p>}
      {clash && (
        <p className="text-brick">
          Something else has this place, or wants it too. Nothing is overwritten: it stays behind so.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => pick({ [from]: { comes: !comes } })}>
          {comes ? 'Leave it behind' : 'Take it along'}
        </Button>
        {picked !== undefined && (
          <Button
            variant="quiet"
            onClick={() => pick({ [from]: { comes: undefined, name: undefined, folder: undefined } })}
          >
            As it was
          </Button>
        )}
      </div>
      {comes && item.frames === 1 && (
        <>
          <NameField
            key={`${from} ${to}`}
            id="carry-name"
            label="Its name there"
            given={nameOf(to)}
            onName={(name) => pick({ [from]: { name } })}
          />
          <FolderField
            id="carry-folder"
            label="Its folder there"
            project={next}
            registers={registers}
            given={parentOf(to)}
            onFolder={(folder) => pick({ [from]: { folder } })}
          />
        </>
      )}
    </div>
  );
}

function SelectedReference({ work: { pick, plan }, row }: { work: CarryWork; row: RefRow }) {
  const { kind, document, target, to, taken } = row;
  const byHand = plan?.byHand.find((one) => one.document === document && one.target === target);
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{REF_WORDS[kind]}</Heading>
        <p className="font-mono break-all">{document}</p>
        <p className="text-ink2">
          refers to <span className="font-mono break-all text-ink">{target}</span>
        </p>
        {kind === 'by-hand' && byHand !== undefined && <p className="text-ink2">{byHandWords(byHand)}</p>}
        {kind === 'outside' && (
          <p className="text-ink2">It refers to the same place from the new project. Nothing is copied from there.</p>
        )}
      </div>
      {to !== null && (
        <p className="flex items-start gap-1">
          <span className="min-w-0 flex-1">
            Point it to <span className="font-mono break-all">{to}</span>
          </span>
          <CopyButton text={to} what="the new place" />
        </p>
      )}
      {taken !== null && (
        <Button className="self-start" onClick={() => pick(takenBy(plan, taken))}>
          Take it along
        </Button>
      )}
    </div>
  );
}
