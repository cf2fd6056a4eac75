/**
 * What a block's next edition would change in each template that holds it; where both sides changed one setting,
 * somebody says which way counts.
 */
import {
  type BlockEditionRow,
  type BlockRow,
  clashKeyOf,
  type PutBlockInForce,
  type TemplateRow,
} from '@nesting/contract';
import { type Clash, diffTemplates, takeUp } from '@nesting/core/template';
import { differenceWords } from '@nesting/core/words';
import { useMemo } from 'react';
import { many } from '../../app/words';
import { Choose, Tick } from '../../ui';

export type Taking = PutBlockInForce['take'];

interface Props {
  readonly block: BlockRow;
  readonly folders: BlockRow['folders'];
  readonly editions: readonly BlockEditionRow[];
  readonly holders: readonly TemplateRow[];
  readonly taking: Taking;
  readonly onTaking: (taking: Taking) => void;
}

const SHOWN = 12;

export function TakeUp({ block, folders, editions, holders, taking, onTaking }: Props) {
  return (
    <ul aria-label="Templates that hold it" className="flex flex-col gap-3">
      {holders.map((row) => {
        const mine = taking.find((t) => t.template === row.id);
        const set = (theirs: readonly string[] | null) =>
          onTaking([
            ...taking.filter((t) => t.template !== row.id),
            ...(theirs === null ? [] : [{ template: row.id, theirs: [...theirs] }]),
          ]);
        return (
          <Holder key={row.id} {...{ block, folders, editions, row }} theirs={mine?.theirs ?? null} onTheirs={set} />
        );
      })}
      {holders.length === 0 && <li className="text-sm text-ink2">No template holds it.</li>}
    </ul>
  );
}

function Holder({
  block,
  folders,
  editions,
  row,
  theirs,
  onTheirs,
}: Pick<Props, 'block' | 'folders' | 'editions'> & {
  row: TemplateRow;
  theirs: readonly string[] | null;
  onTheirs: (theirs: readonly string[] | null) => void;
}) {
  const template = row.draft?.template ?? row.template;
  const { words, clashes } = useMemo(() => {
    const base = (edition: number) => editions.find((e) => e.edition === edition)?.folders ?? [];
    const taken = takeUp(template, block.id, base, { edition: block.edition + 1, folders }, (clash) =>
      theirs?.includes(clashKeyOf(clash)) ? 'theirs' : 'mine',
    );
    return { words: diffTemplates(template, taken.template).map(differenceWords), clashes: taken.clashes };
  }, [block, editions, folders, template, theirs]);
  const held = block.usedIn.find((u) => u.template === row.id)?.edition;
  return (
    <li className="flex flex-col gap-1 border-b border-line pb-2 text-sm">
      <Tick label={row.name} checked={theirs !== null} onChange={(on) => onTheirs(on ? [] : null)} />
      <span className="text-xs text-note">
        has edition {held}
        {row.draft ? ', and a draft that takes it up too' : ''};{' '}
        {words.length === 0 ? 'nothing would be otherwise' : many(words.length, 'difference')}
      </span>
      {words.length > 0 && (
        <ul className="list-inside list-disc pl-1">
          {words.slice(0, SHOWN).map((w) => (
            <li key={w}>{w}</li>
          ))}
          {words.length > SHOWN && <li>and {words.length - SHOWN} more</li>}
        </ul>
      )}
      {theirs !== null &&
        clashes.map((clash) => (
          <ClashRow
            key={clashKeyOf(clash)}
            clash={clash}
            theirs={theirs.includes(clashKeyOf(clash))}
            onTheirs={(on) =>
              onTheirs(on ? [...theirs, clashKeyOf(clash)] : theirs.filter((k) => k !== clashKeyOf(clash)))
            }
          />
        ))}
    </li>
  );
}

const WHAT: Readonly<Record<string, string>> = {
  place: 'where it stands',
  folder: 'whether it is there',
  starter: 'its starter file',
  name: 'its name',
  purpose: 'what it is for',
  mark: 'its mark',
  presence: 'when it is made',
  accepts: 'what it takes',
  conventions: 'how its files are called',
  onePer: 'what it is made once for',
  onlyWhen: 'when it is there',
  number: 'its number',
};
const wordsOf = (value: unknown): string =>
  value === undefined ? 'none' : typeof value === 'string' ? value : JSON.stringify(value);

function ClashRow({ clash, theirs, onTheirs }: { clash: Clash; theirs: boolean; onTheirs: (theirs: boolean) => void }) {
  return (
    <div className="flex flex-col gap-1 rounded-tray bg-bench px-2 py-1">
      <span>
        <span className="font-mono">{clash.name}</span>: {WHAT[clash.what] ?? clash.what} was changed on both sides
      </span>
      <Choose
        label={`${clash.name}: ${WHAT[clash.what] ?? clash.what}`}
        value={theirs ? 'theirs' : 'mine'}
        options={[
          { value: 'mine', label: `the template's: ${wordsOf(clash.mine)}` },
          { value: 'theirs', label: `the shared part's: ${wordsOf(clash.theirs)}` },
        ]}
        onChange={(side) => onTheirs(side === 'theirs')}
      />
    </div>
  );
}
