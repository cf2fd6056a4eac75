/** About the selected file: what it is, where it could go, what its name lacks, what it belongs with. */

import { nameOf, parentOf } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import type { Placed } from '@nesting/core/planners';
import { placeReasonWords, wordsFor } from '@nesting/core/words';
import { useId, useMemo, useState } from 'react';
import { many, moment, size } from '../../app/words';
import { FolderField } from '../../changes/folder-field';
import { NameField } from '../../changes/name-field';
import { NameParts } from '../../changes/name-parts';
import { Button, CopyButton, Heading, Labelled, TextInput } from '../../ui';
import { volumesApi } from '../house/volumes-api';
import { fieldsToSay, type SayField, wordsOf } from './intake-fields';
import { useShownItems } from './intake-list';
import { filterOf, type Item, meantBy, STATE_WORDS, stateOf } from './intake-rows';
import type { IntakeWork } from './intake-work';
import { LoosePreview } from './loose-preview';
import { PairOf } from './pair-of';
import { UnpackZip } from './unpack-zip';

interface Props {
  readonly work: IntakeWork;
  readonly registers: Registers;
}

export function IntakeSelected({ work, registers }: Props) {
  const shown = useShownItems(work);
  const item = shown.find(({ from }) => from === work.params.get('line')) ?? shown[0];
  if (item === undefined) return null;
  const isWhole = item.card !== null && filterOf(work.params).find === '';
  return isWhole ? (
    <WholeCard key={item.card} {...{ work, registers, item }} card={item.card ?? ''} />
  ) : (
    <Selected key={item.from} {...{ work, registers, item }} />
  );
}

function Selected({ work, registers, item }: Props & { item: Item }) {
  const { project, said } = work;
  const { from, to, state, missing } = item;
  const isWhole = filterOf(work.params).find === '';
  const paths = useMemo(() => meantBy(item, work.plan?.items ?? [], isWhole), [item, work.plan, isWhole]);
  const say = (one: Placed) => work.say(paths, one);
  const fields = useMemo(() => fieldsToSay(project, registers), [project, registers]);
  return (
    <div className="flex flex-col gap-4 text-sm">
      <WhatItIs item={item} frames={paths.length} />
      <LoosePreview work={work} item={item} />
      {item.facts.content === 'zip' && <InsideZip work={work} item={item} />}
      {to !== null && <WhereItGoes {...{ work, registers, item, to }} />}
      <WhatHinders item={item} />
      {item.inWay !== null && <InWay item={item} inWay={item.inWay} onReplace={(replaces) => say({ replaces })} />}
      <div className="flex flex-wrap gap-2">
        {to !== null && (
          <Button onClick={() => say({ comes: state !== 'comes' })}>
            {state === 'comes' ? 'Leave it here' : 'Bring it in'}
          </Button>
        )}
        {said.placed[from] !== undefined && (
          <Button variant="quiet" onClick={() => say(AS_IT_WAS)}>
            As it was
          </Button>
        )}
      </div>
      {item.card === null ? <Place {...{ work, registers, item, paths }} /> : <OfCard work={work} card={item.card} />}
      {missing.map((key) => (
        <Lacking
          key={key}
          field={fields.find((f) => isOf(f, key)) ?? lone(key)}
          onValue={(value) => say({ values: { [key]: value } })}
        />
      ))}
      {(item.facts.has === 'sound' || item.facts.has === 'picture') && <PairOf work={work} item={item} />}
    </div>
  );
}

function WhatItIs({ item, frames }: { item: Item; frames: number }) {
  const { from, run, foreign, lie, facts } = item;
  return (
    <div className="flex flex-col gap-1">
      <Heading>{STATE_WORDS[stateOf(item)]}</Heading>
      <p className="flex items-start gap-1">
        <span className="min-w-0 flex-1 font-mono break-all">{frames > 1 ? (run ?? from) : from}</span>
        <CopyButton text={from} what="the path" />
      </p>
      {frames > 1 && (
        <p className="text-ink2">
          {run === null ? `A burst of ${frames}, taken in one go` : many(frames, 'frame')}; the first of them:
        </p>
      )}
      <p className="text-ink2">{factWords(item)}</p>
      {foreign !== null && (
        <p>
          It carries the number <span className="font-mono">{foreign}</span>, which is another project’s.
        </p>
      )}
      {lie !== null && (
        <p className="text-brick">
          It is called .{lie}, and what is in it is {facts.content ?? 'something else'}.
        </p>
      )}
    </div>
  );
}

function WhereItGoes({ work: { project }, registers, item, to }: Props & { item: Item; to: string }) {
  const reasons = item.reasons.map(placeReasonWords).join(', ');
  return (
    <div className="flex flex-col gap-1">
      <p className="text-ink2">
        Goes to <span className="font-mono break-all text-ink">{parentOf(to)}</span>
        {item.isByHand ? ', by hand' : reasons === '' ? '' : `: ${reasons}`}
      </p>
      {item.differing.map(({ setting, agreed, found }) => (
        <p key={setting} className="text-ochre">
          “{setting}” is {found}; {agreed} was agreed.
        </p>
      ))}
      <NameParts rules={project} registers={registers} folder={parentOf(to)} name={nameOf(to)} label="Its name there" />
      {item.derived.length > 0 && item.missing.length === 0 && (
        <p>Look whether its {item.derived.map((field) => wordsOf(field).toLowerCase()).join(' and ')} is right.</p>
      )}
    </div>
  );
}

/** What is in it can be brought in once it lies there itself. */
function InsideZip({ work: { place, readAgain }, item: { from, size: bytes } }: { work: IntakeWork; item: Item }) {
  const { data: volumes } = volumesApi.useVolumesQuery();
  const isInbox = volumes?.find(({ name }) => name === place?.volume)?.isInbox === true;
  if (place === null || !isInbox || !/\.zip$/i.test(from)) return null;
  const path = place.folder === '' ? from : `${place.folder}/${from}`;
  return <UnpackZip volume={place.volume} path={path} bytes={bytes} onThere={readAgain} />;
}

interface InWayProps {
  readonly item: Item;
  readonly inWay: NonNullable<Item['inWay']>;
  readonly onReplace: (replaces: boolean | undefined) => void;
}

/** A corrected file comes for a name that is taken: what lies there gives way and is kept, if somebody says so. */
function InWay({ item: { to, clash, modified }, inWay, onReplace }: InWayProps) {
  const { size: bytes, modified: since, referrers, keptAs } = inWay;
  const age = modified > since ? 'older' : 'newer';
  return (
    <section
      aria-label="What lies there now"
      className="flex flex-col gap-2 rounded-tray border border-line bg-sheet p-3"
    >
      <p>
        <span className="font-mono break-all">{nameOf(to ?? '')}</span> is there already: {size(bytes)}, written{' '}
        {moment(new Date(since).toISOString())}, {age} than this one.{' '}
        {referrers > 0 && `${many(referrers, 'document')} ${referrers === 1 ? 'refers' : 'refer'} to it.`}
      </p>
      <p className="text-ink2">
        {keptAs === null ? (
          clash ? (
            'If it gives way, it is kept with this change, and comes back when that is undone.'
          ) : (
            'It gives way, is kept with this change, and comes back when that is undone.'
          )
        ) : (
          <>
            {clash ? 'If it gives way, it is kept as' : 'It gives way, and is kept as'}{' '}
            <span className="font-mono break-all text-ink">{keptAs}</span>
          </>
        )}
      </p>
      <Button className="self-start" onClick={() => onReplace(clash ? true : undefined)}>
        {clash ? 'Put this one in its place' : 'Leave the one that is there'}
      </Button>
    </section>
  );
}

function WhatHinders({ item: { same, fault, clash, inWay } }: { item: Item }) {
  return (
    <>
      {same !== null && (
        <p className="text-ink2">
          The same content lies {same.where === 'project' ? 'in the project' : 'here'} as{' '}
          <span className="font-mono break-all text-ink">{same.path}</span>
        </p>
      )}
      {fault !== null && <p className="text-brick">{wordsFor(fault.code, fault.params)} It stays here so.</p>}
      {clash && inWay === null && (
        <p className="text-brick">
          Something else has this place, or wants it too. Nothing is overwritten: it stays here so.
        </p>
      )}
    </>
  );
}

const AS_IT_WAS: Placed = {
  ...{ comes: undefined, folder: undefined, name: undefined, values: undefined, replaces: undefined },
};
const lone = (key: string): SayField => ({ key, label: wordsOf(key), isDay: false, known: [] });
const isOf = (field: SayField, key: string): boolean => field.key === key || field.key === `${key}s`;

function factWords({ size: bytes, modified, family, facts }: Item): string {
  const { taken, seconds, device, width, height, frameRate, sampleRate, timecode, unread } = facts;
  return [
    family ?? 'of no family',
    size(bytes),
    ...(taken === undefined
      ? [`written ${moment(new Date(modified).toISOString())}`]
      : [`made ${taken.replace('T', ' at ')}`]),
    ...(seconds === undefined ? [] : [`${Math.round(seconds * 10) / 10} s`]),
    ...(timecode === undefined ? [] : [`timecode ${timecode}`]),
    ...(width === undefined || height === undefined ? [] : [`${width} × ${height}`]),
    ...(frameRate === undefined ? [] : [`${frameRate} frames a second`]),
    ...(sampleRate === undefined ? [] : [`${sampleRate} Hz`]),
    ...(device === undefined ? [] : [device]),
    ...(unread === undefined
      ? []
      : [unread === 'failed' ? 'its content could not be read' : 'reading its content took too long']),
  ].join(', ');
}

/** Other folders that fit, best first, and any other. */
function Place({ work, registers, item, paths }: Props & { item: Item; paths: readonly string[] }) {
  const { project } = work;
  const say = (one: Placed) => work.say(paths, one);
  const { to, folders } = item;
  const here = to === null ? '' : parentOf(to);
  return (
    <>
      {folders.length > 1 && !item.isByHand && (
        <fieldset className="flex min-w-0 flex-col gap-1">
          <legend className="pb-1 text-xs font-semibold text-ink2">Folders that fit</legend>
          {folders.slice(0, 5).map((folder) => (
            <label
              key={folder}
              className={`flex items-center gap-2.5 rounded-tray border px-2.5 py-1 ${folder === here ? 'border-plum bg-chosen' : 'border-line bg-sheet'}`}
            >
              <input
                type="radio"
                name="intake-folder"
                checked={folder === here}
                onChange={() => say({ folder, comes: true })}
                className="size-4 accent-(--plum)"
              />
              <span className="min-w-0 flex-1 font-mono break-all">{folder}</span>
            </label>
          ))}
        </fieldset>
      )}
      <FolderField
        id="intake-folder"
        label="Its folder"
        project={project}
        registers={registers}
        given={here}
        onFolder={(folder) => say({ folder, comes: true })}
      />
      {to !== null && paths.length === 1 && (
        <NameField
          key={to}
          id="intake-name"
          label="Its name"
          given={nameOf(to)}
          onName={(name) => say({ name, comes: true })}
        />
      )}
    </>
  );
}

function WholeCard({ work, registers, item, card }: Props & { item: Item; card: string }) {
  const { plan, say, said, project } = work;
  const whole = plan?.cards.find(({ path }) => path === card);
  const of = (plan?.items ?? []).filter((one) => one.card === card);
  const bytes = of.reduce((sum, one) => sum + one.size, 0);
  const reasons = item.reasons.map(placeReasonWords).join(', ');
  const to = whole?.to ?? null;
  return (
    <div className="flex flex-col gap-4 text-sm">
      <div className="flex flex-col gap-1">
        <Heading>{STATE_WORDS[stateOf(item)]}</Heading>
        <p className="font-mono break-all">{card === '' ? 'The whole card' : card}</p>
        <p className="text-ink2">
          A card of {many(of.length, 'file')}, {size(bytes)}. It stays as it is: its device’s own programs find their
          way by it.
        </p>
      </div>
      {to !== null && (
        <p className="text-ink2">
          Goes to <span className="font-mono break-all text-ink">{to}</span>
          {item.isByHand ? ', by hand' : reasons === '' ? '' : `: ${reasons}`}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {to !== null && (
          <Button onClick={() => say([card], { comes: item.state !== 'comes' })}>
            {item.state === 'comes' ? 'Leave it here' : 'Bring it in'}
          </Button>
        )}
        <Button onClick={() => say([card], { isCard: false })}>It is no card: sort its files</Button>
        {said.placed[card] !== undefined && (
          <Button variant="quiet" onClick={() => say([card], { ...AS_IT_WAS, isCard: undefined })}>
            As it was
          </Button>
        )}
      </div>
      <FolderField
        id="intake-card-folder"
        label="The folder it lies in"
        project={project}
        registers={registers}
        given={to === null ? '' : parentOf(to)}
        onFolder={(folder) => say([card], { folder, comes: true })}
      />
    </div>
  );
}

function OfCard({ work: { say, plan }, card }: { work: IntakeWork; card: string }) {
  const whole = plan?.cards.find(({ path }) => path === card);
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        It is part of a card{card === '' ? '' : ` (${card})`} of {many(whole?.files ?? 0, 'file')}, which stays as it is
        {whole?.to === null || whole === undefined ? '' : ` in ${whole.to}`}.
      </p>
      <Button className="self-start" onClick={() => say([card], { isCard: false })}>
        It is no card: sort its files
      </Button>
    </div>
  );
}

function Lacking({ field, onValue }: { field: SayField; onValue: (value: string) => void }) {
  const id = useId();
  const [value, setValue] = useState('');
  return (
    <Labelled id={id} label={`${field.label}, which its name lacks`}>
      <TextInput
        id={id}
        value={value}
        list={`${id}-known`}
        maxLength={255}
        className="font-mono"
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => setValue(e.target.value)}
        onBlur={() => value.trim() !== '' && onValue(value.trim())}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      <datalist id={`${id}-known`}>
        {field.known.map((entry) => (
          <option key={entry} value={entry} />
        ))}
      </datalist>
    </Labelled>
  );
}
