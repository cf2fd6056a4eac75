/** What is to be checked on this computer: a folder, a zip, or a listing. */
import { type ChangeEvent, useRef, useState } from 'react';
import { Button, FileButton, Labelled, Lines, ZIPS } from '../../ui';
import { checksWorker } from '../../workers/checks';
import type { HereCheck } from './use-here-check';

const NAMES_ONLY = 'Names and sizes alone: nothing was looked into.';

interface Props {
  readonly check: HereCheck;
}

export function HereSources({ check }: Props) {
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-2">
        <FolderSource check={check} />
        <ZipSource check={check} />
      </div>
      <ListingSource check={check} />
    </div>
  );
}

/** The browser's own choice of a folder, where it has one; else files are chosen by their folder. */
function FolderSource({ check: { running, run, look, setDone, input, roots } }: Props) {
  const files = useRef<HTMLInputElement>(null);
  const choose = async () => {
    if (globalThis.showDirectoryPicker === undefined) return files.current?.click();
    const handle = await globalThis.showDirectoryPicker({ mode: 'read' }).catch(() => null);
    if (handle === null) return;
    setDone(null);
    await look(handle);
  };
  const fromFiles = (event: ChangeEvent<HTMLInputElement>) => {
    const chosen = [...(event.target.files ?? [])].map((file) => ({ path: file.webkitRelativePath, file }));
    event.target.value = '';
    if (chosen.length > 0)
      void run(
        chosen[0]?.path.split('/', 1)[0] ?? 'the folder',
        'Folders without files are not told by this browser, so none is missed.',
        (say) => checksWorker().files(chosen, input(), roots, say),
      );
  };
  return (
    <>
      <Button disabled={running !== null} onClick={() => void choose()}>
        A folder here…
      </Button>
      <input
        ref={files}
        type="file"
        aria-label="A folder on this computer"
        className="sr-only"
        tabIndex={-1}
        onChange={fromFiles}
        {...{ webkitdirectory: '' }}
      />
    </>
  );
}

function ZipSource({ check: { running, run, input, setTrouble } }: Props) {
  const fromZip = async (file: File) => {
    const { entriesOfZip } = await import('../templates/zip-names');
    const entries = await entriesOfZip(file);
    if (entries === null) return setTrouble(`${file.name} is no zip that can be read. Nothing was checked.`);
    await run(file.name, NAMES_ONLY, () => checksWorker().entries(entries, input()));
  };
  return (
    <FileButton
      disabled={running !== null}
      label="A zip on this computer"
      accept={ZIPS}
      onFiles={([file]) => void fromZip(file)}
    >
      A zip…
    </FileButton>
  );
}

function ListingSource({ check: { running, run, input } }: Props) {
  const [listing, setListing] = useState('');
  return (
    <>
      <Labelled
        id="listing"
        label="Or a listing"
        help="Paths one under another, an indented list, a drawn tree, CSV or JSON."
      >
        <Lines
          id="listing"
          rows={6}
          value={listing}
          onChange={(e) => setListing(e.target.value)}
          className="font-mono text-xs"
          spellCheck={false}
        />
      </Labelled>
      <Button
        className="self-start"
        disabled={running !== null || listing.trim() === ''}
        onClick={() => void run('The listing', NAMES_ONLY, () => checksWorker().text(listing, input()))}
      >
        Check the listing
      </Button>
    </>
  );
}
