/** One line of a plan that puts findings right: what it is called, what it will be called, or what is asked. */
import { nameOf } from '@nesting/core/listing';
import type { Weight } from '@nesting/core/template';
import { byHandWords, REPAIR_STATE_WORDS, wayWords } from '@nesting/core/words';
import { many, size } from '../../app/words';
import { BeforeAfter } from '../../changes/before-after';
import { WeightSign } from '../../ui/signs';
import { isRenamed, type Line, type Row } from './repair-rows';

const ONE = 28;
const TWO = 46;

/** Two rows where a name becomes another, so that both are read whole, one under the other. */
export const heightOf = (row: Row): number => (row.kind === 'finding' && isRenamed(row.line) ? TWO : ONE);

export function RepairLine({ row }: { row: Row }) {
  switch (row.kind) {
    case 'finding':
      return <FindingLine line={row.line} />;
    case 'document':
      return (
        <>
          <span className="min-w-0 flex-1 truncate font-mono text-sm">{row.document.after}</span>
          <span className="shrink-0 text-xs text-ink2">
            {many(row.document.changes.length, 'reference')} written anew
          </span>
        </>
      );
    case 'by-hand':
      return (
        <>
          <span className="min-w-0 flex-1 truncate font-mono text-sm">
            {nameOf(row.reference.document)} <span className="text-ink2">names {row.reference.target}</span>
          </span>
          <span className="shrink-0 text-xs text-ochre">{byHandWords(row.reference)}</span>
        </>
      );
  }
}

function FindingLine({ line }: { line: Line }) {
  return (
    <>
      <WeightSign weight={line.weight as Weight} />
      <span className="min-w-0 flex-1">
        {isRenamed(line) ? (
          <BeforeAfter before={line.path} after={line.after ?? ''} isFolder={line.entry === 'folder'} />
        ) : (
          <Place line={line} />
        )}
      </span>
      <span className={`shrink-0 text-xs ${line.state === 'clash' ? 'font-semibold text-brick' : 'text-ink2'}`}>
        {noteOf(line)}
      </span>
    </>
  );
}

function Place({ line }: { line: Line }) {
  const chosen = line.options.find((o) => o.key === line.chosen);
  const name = nameOf(line.path);
  const what = chosen === undefined ? '' : chosen.way === 'make' ? '' : wayWords(chosen, line.path);
  return (
    <span className="block truncate font-mono text-sm whitespace-pre">
      <span className={chosen?.way === 'make' ? 'font-semibold' : ''}>
        {name || 'the project’s root'}
        {line.entry === 'folder' ? '/' : ''}
      </span>
      {what !== '' && <span className="font-sans text-ink2">{`  ${what.replace(/^./, (c) => c.toLowerCase())}`}</span>}
    </span>
  );
}

function noteOf(line: Line): string {
  if (line.state === 'ask') return questionOf(line);
  if (line.state !== 'ready')
    return line.state === 'clash' ? 'name is taken' : REPAIR_STATE_WORDS[line.state].toLowerCase();
  const chosen = line.options.find((o) => o.key === line.chosen);
  if (chosen?.way === 'make') return 'made';
  if (line.count > 1) return many(line.count, 'entry', 'entries');
  if (chosen?.way === 'clear' || chosen?.way === 'set-aside') return size(line.bytes);
  return chosen?.confidence ?? '';
}

/** What a person is asked, in as many words as fit beside the name. */
function questionOf({ rule, options }: Line): string {
  if (options[0]?.confidence === 'likely') return 'likely';
  if (options[0]?.value === 'own') return 'what is it called?';
  switch (rule) {
    case 'foreign-project':
      return 'does it belong here?';
    case 'same-content':
      return 'which one stays?';
    case 'unknown-code':
      return 'which code is meant?';
    case 'unplanned-folder':
      return 'what is it?';
    case 'version-twice':
      return 'which one moves on?';
    case 'broken-reference':
    case 'absolute-reference':
    case 'outside-reference':
      return 'which file is meant?';
    default:
      return options.length > 1 ? `${options.length} ways` : 'a guess';
  }
}
