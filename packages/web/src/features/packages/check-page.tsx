/** A package that lies on this computer is proved here, in the browser: nothing of it is sent anywhere. */
import type { Progress } from '@nesting/core/package';
import { proxy } from 'comlink';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { usePageTitle } from '../../app/use-page-title';
import { count, many, size } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Empty, FileButton, Heading } from '../../ui';
import { packagesWorker } from '../../workers/packages';
import type { VerdictHere } from '../../workers/packages-worker';
import { VerdictList } from './verdict-list';

type State =
  | { readonly kind: 'idle' }
  | { readonly kind: 'reading'; readonly name: string; readonly progress: Progress | null }
  | { readonly kind: 'done'; readonly name: string; readonly verdict: VerdictHere }
  | { readonly kind: 'stopped'; readonly name: string; readonly why: string };

/** What is chosen together: a zip, perhaps with the checksum that came with it; or a folder. */
function useProof() {
  const [state, setState] = useState<State>({ kind: 'idle' });
  const isStopped = useRef(false);
  const prove = async (name: string, run: (tell: (progress: Progress) => void) => Promise<VerdictHere>) => {
    isStopped.current = false;
    setState({ kind: 'reading', name, progress: null });
    try {
      const tell = proxy((progress: Progress) => setState({ kind: 'reading', name, progress }));
      const verdict = await run(tell);
      setState({ kind: 'done', name, verdict });
    } catch {
      const why = isStopped.current
        ? 'It was stopped.'
        : 'It cannot be read: perhaps it was moved or changed meanwhile.';
      setState({ kind: 'stopped', name, why });
    }
  };
  return {
    state,
    zip: (files: readonly File[]) => {
      const zip = files.find(({ name }) => /\.zip$/i.test(name)) ?? files[0];
      if (zip !== undefined) void prove(zip.name, (tell) => packagesWorker().zip(zip, files, tell));
    },
    folder: (files: readonly File[]) => {
      const placed = files.map((file) => ({ path: file.webkitRelativePath || file.name, file }));
      const name = placed[0]?.path.split('/')[0] ?? '';
      void prove(name, (tell) => packagesWorker().folder(placed, tell));
    },
    stop: () => {
      isStopped.current = true;
      void packagesWorker().stop();
    },
  };
}

export function CheckPackagePage() {
  usePageTitle('Check a package');
  const { state, zip, folder, stop } = useProof();
  const isReading = state.kind === 'reading';
  return (
    <Columns
      id="check-package"
      labels={['What is checked', 'How it is', 'What this tells']}
      given={
        <div className="flex flex-col items-start gap-4">
          <div>
            <h1 className="text-xl font-semibold">Check a package</h1>
            <p className="text-sm text-ink2">
              Whether one that lies on this computer is whole: a zip from here, any bag, or a folder with a list of
              checksums. It is read in the browser, and nothing of it is sent.
            </p>
          </div>
          <FileButton label="A zip, and its checksum if you have it" disabled={isReading} isMany onFiles={zip}>
            Choose a zip…
          </FileButton>
          <FileButton label="A bag, or a folder with a list" disabled={isReading} folder onFiles={folder}>
            Choose a folder…
          </FileButton>
          <Link to="/packages" className="text-sm text-bottle underline">
            All packages
          </Link>
        </div>
      }
      plan={<Middle state={state} />}
      consequence={
        <div className="flex flex-col gap-3 text-sm">
          <Heading>How it is told</Heading>
          <p className="text-ink2">
            Every file is read from end to end and held against the checksum that was written when it was packed. One
            bit that is another, anywhere, is found.
          </p>
          <p className="text-ink2">
            With the file that ends in <span className="font-mono">.sha256</span>, chosen together with the zip, the zip
            as a whole is held against it too.
          </p>
        </div>
      }
      ledger={
        <>
          <p className="min-w-0 flex-1" aria-live="polite">
            <strong className="font-semibold">{footWords(state)}</strong>
          </p>
          {isReading && <Button onClick={stop}>Stop</Button>}
        </>
      }
    />
  );
}

function footWords(state: State): string {
  switch (state.kind) {
    case 'idle':
      return 'Nothing is chosen yet. Nothing is written on this page.';
    case 'reading':
      return state.progress === null
        ? `Reading ${state.name}…`
        : `Read ${count(state.progress.files)} of ${many(state.progress.allFiles, 'file')}, ${size(state.progress.bytes)} of ${size(state.progress.allBytes)}.`;
    case 'stopped':
      return state.why;
    case 'done':
      return state.verdict.isWhole
        ? `${state.name} is whole.`
        : state.verdict.form === 'none'
          ? `${state.name} has no list to check it by.`
          : `${state.name} is not whole.`;
  }
}

function Middle({ state }: { state: State }) {
  if (state.kind === 'idle')
    return <Empty title="No package is chosen">Choose a zip or a folder of this computer at the left.</Empty>;
  if (state.kind === 'reading') return <p className="text-ink2">Reading {state.name}…</p>;
  if (state.kind === 'stopped') return <Empty title={state.name}>{state.why}</Empty>;
  const { verdict, name } = state;
  if (verdict.form === 'none')
    return (
      <Empty title="There is nothing to check it by">
        {name} holds neither a list of checksums nor the manifests of a bag
        {verdict.faults.length > 0 ? ', or is no zip that can be read' : ''}.
      </Empty>
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-4 overflow-auto">
      <div
        className={`rounded-tray border px-4 py-3 ${verdict.isWhole ? 'border-bottle bg-sheet' : 'border-brick bg-sheet'}`}
      >
        <p className="text-lg font-semibold">{verdict.isWhole ? 'Whole' : 'Not whole'}</p>
        <p className="text-sm text-ink2">
          {many(verdict.proved, 'file')} of {size(verdict.bytes)} {verdict.proved === 1 ? 'is' : 'are'} as{' '}
          {verdict.proved === 1 ? 'it was' : 'they were'} packed
          {verdict.isOuterRight === true && ', and so is the zip as a whole'}.
        </p>
      </div>
      <VerdictList verdict={verdict} />
    </div>
  );
}
