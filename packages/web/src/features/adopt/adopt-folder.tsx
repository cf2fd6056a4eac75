import { useState } from 'react';
import { troubleOf } from '../../app/api';
import { Button, Choose, Heading } from '../../ui';
import { templatesApi } from '../templates/templates-api';
import type { AdoptInput } from './use-adoption';

export function AdoptFolder({
  volume,
  folder,
  volumes,
  onPlace,
}: Pick<AdoptInput, 'volume' | 'folder' | 'volumes' | 'onPlace'>) {
  const [at, setAt] = useState(folder.includes('/') ? folder.slice(0, folder.lastIndexOf('/')) : '');
  const { data, error } = templatesApi.useVolumeFoldersQuery({ volume, path: at }, { skip: volume === '' });
  const below = (name: string) => (at === '' ? name : `${at}/${name}`);
  return (
    <section aria-label="The folder" className="flex flex-col gap-2 text-sm">
      <Heading>The folder</Heading>
      <Choose
        label="Volume"
        value={volume}
        options={volumes.map((v) => ({ value: v, label: v }))}
        onChange={(v) => onPlace(v, '')}
      />
      {at !== '' && (
        <p className="flex items-center gap-2">
          <span className="min-w-0 flex-1 font-mono text-xs break-all">{at}</span>
          <Button variant="quiet" className="h-6!" onClick={() => setAt(at.split('/').slice(0, -1).join('/'))}>
            Up
          </Button>
        </p>
      )}
      {error && <p className="text-brick">{troubleOf(error)}</p>}
      <ul
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keyboard
        tabIndex={0}
        aria-label="Folders"
        className="max-h-40 overflow-auto rounded-tray border border-line bg-sheet p-1"
      >
        {data?.folders.map((name) => (
          <li key={name} className="flex items-center gap-1">
            <button
              type="button"
              aria-pressed={below(name) === folder}
              onClick={() => onPlace(volume, below(name))}
              className={`min-w-0 flex-1 rounded px-1.5 py-0.5 text-left font-mono text-xs break-all ${below(name) === folder ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
            >
              {name}
            </button>
            <Button
              variant="quiet"
              className="h-5! text-xs"
              aria-label={`Look into ${name}`}
              onClick={() => setAt(below(name))}
            >
              into it
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
