/** A zip that arrived: it is unpacked into a folder beside it, and stays. */
import type { HeapPlace } from '@nesting/contract';
import { troubleOf } from '../../app/api';
import { size } from '../../app/words';
import { Button, Refused } from '../../ui';
import { intakeApi } from './intake-api';

interface Props {
  readonly volume: string;
  /** From the volume's root. */
  readonly path: string;
  readonly bytes: number;
  readonly onThere: (place: HeapPlace) => void;
}

export function UnpackZip({ volume, path, bytes, onThere }: Props) {
  const [open, { isLoading, error }] = intakeApi.useOpenZipMutation();
  const unpack = async () => {
    const done = await open({ volume, path })
      .unwrap()
      .catch(() => null);
    if (done !== null) onThere({ volume, folder: done.folder });
  };
  return (
    <div className="border-b border-line py-1">
      <div className="flex min-h-8 items-center gap-3 px-3 text-sm">
        <span className="min-w-0 flex-1 truncate font-mono" title={path}>
          {path}
        </span>
        <span className="shrink-0 text-xs text-ink2">a zip of {size(bytes)}</span>
        <Button className="h-7!" disabled={isLoading} onClick={() => void unpack()}>
          {isLoading ? 'Unpacking…' : 'Unpack it'}
        </Button>
      </div>
      <div className="px-3">
        <Refused words={error && troubleOf(error)} />
      </div>
    </div>
  );
}
