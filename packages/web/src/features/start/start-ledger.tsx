/** What will be written, in words, and the one button that writes it. */
import type { Adjustments, Expansion } from '@nesting/core/template';
import { many } from '../../app/words';
import type { Progress } from '../../browser-disk/start';
import { Button, Tick } from '../../ui';
import { targetWords } from './target';
import type { StartPlan } from './use-start-plan';
import type { StartStatus, StartWriting } from './use-start-writing';

export function StartLedger({ plan, writing }: { plan: StartPlan; writing: StartWriting }) {
  const { status } = writing;
  const isWriting = status.kind === 'writing';
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        <Status plan={plan} status={status} onStop={writing.stop} />
      </div>
      {plan.isOnVolume && plan.adds && (
        <Tick label="Add to the folder that is there" checked={plan.into} onChange={plan.setInto} />
      )}
      <Button variant="main" disabled={plan.hindrance !== null || isWriting} onClick={() => void writing.begin()}>
        {isWriting ? 'Making it…' : actWords(plan)}
      </Button>
    </>
  );
}

function actWords({ isOnVolume, isAdding, target }: StartPlan): string {
  if (isOnVolume) return isAdding ? 'Add to it' : 'Make this project';
  return target?.kind === 'folder' ? 'Choose the folder, and write it' : 'Save it';
}

function Status({ plan, status, onStop }: { plan: StartPlan; status: StartStatus; onStop: () => void }) {
  switch (status.kind) {
    case 'writing':
      return <Writing progress={status.progress} onStop={onStop} />;
    case 'written':
      return <p className={status.outcome.ok ? '' : 'text-brick'}>{status.outcome.words}</p>;
    case 'failed':
      return <p className="text-brick">{status.why}</p>;
    case 'ready':
      return plan.hindrance === null ? <Ready plan={plan} /> : <Hindered why={plan.hindrance} />;
  }
}

function Writing({ progress, onStop }: { progress: Progress | null; onStop: () => void }) {
  return (
    <p>
      <strong className="font-semibold">
        {progress === null ? 'Making it…' : `${progress.done} of ${progress.all} written.`}
      </strong>{' '}
      <Button variant="quiet" className="h-6!" onClick={onStop}>
        Stop, and take it back
      </Button>
    </p>
  );
}

function Hindered({ why }: { why: string }) {
  return (
    <p>
      <strong className="font-semibold">Nothing can be written yet.</strong> <span className="text-ink2">{why}</span>
    </p>
  );
}

function Ready({ plan }: { plan: StartPlan }) {
  const { expansion, isOnVolume, isAdding, target } = plan;
  const isLegal = !expansion.diagnostics.some((d) => d.code.startsWith('name-'));
  return (
    <p>
      <strong className="font-semibold">
        {isAdding
          ? `Adds ${many(lackingFolders(plan), 'folder')} and what files are missing to`
          : `Makes ${many(expansion.folders, 'folder')} and ${many(expansion.files, 'file')} ${isOnVolume ? 'on' : 'in'}`}{' '}
        <span className={isOnVolume ? 'font-mono' : ''}>{target === null ? '' : targetWords(target)}</span>.
      </strong>{' '}
      <span className="text-ink2">
        {isOnVolume ? awayWords(expansion) : inPlaceWords(plan.adjusted)}
        {isOnVolume && (isAdding ? 'What is there stays as it is.' : 'Nothing exists there yet.')} Longest path{' '}
        {expansion.longest} of {expansion.budget}.{isLegal && ' Every name is legal on every system.'}
      </span>
    </p>
  );
}

function lackingFolders({ expansion, there }: StartPlan): number {
  const folders = new Set(expansion.lines.filter((l) => l.kind === 'folder').map((l) => l.path));
  return expansion.folders - 1 - there.filter((path) => folders.has(path)).length;
}

/** What is made on other volumes, in words. */
function awayWords(expansion: Expansion): string {
  const by = new Map<string, number>();
  for (const l of expansion.lines)
    if (l.elsewhere?.made && l.kind === 'folder') by.set(l.elsewhere.volume, (by.get(l.elsewhere.volume) ?? 0) + 1);
  return [...by].map(([volume, n]) => `And ${n} ${n === 1 ? 'folder' : 'folders'} on ${volume}. `).join('');
}

/** What was to lie on another volume, said where there are no volumes. */
function inPlaceWords(adjusted: Adjustments): string {
  const count = Object.values(adjusted).filter((a) => a.volume !== undefined).length;
  if (count === 0) return '';
  return `${many(count, 'folder')} meant for another volume ${count === 1 ? 'is' : 'are'} written here too. `;
}
