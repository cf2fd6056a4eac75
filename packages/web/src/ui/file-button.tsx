/** A button that asks for files of this computer, or for a folder with all that is in it. */
import { type ComponentProps, useRef } from 'react';
import { Button } from './button';

/** What a zip is called, for `accept`. */
export const ZIPS = '.zip,application/zip';

type Props = Omit<ComponentProps<typeof Button>, 'onClick' | 'ref'> & {
  /** What is asked for, for those who hear the page. */
  readonly label: string;
  readonly accept?: string;
  readonly folder?: boolean;
  /** Several at once. */
  readonly isMany?: boolean;
  /** Called with at least one file. */
  readonly onFiles: (files: readonly [File, ...File[]]) => void;
};

export function FileButton({ label, accept, folder = false, isMany = false, onFiles, ...button }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        aria-label={label}
        accept={accept}
        multiple={isMany}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const [first, ...others] = e.target.files ?? [];
          // The same file can be chosen once more.
          e.target.value = '';
          if (first !== undefined) onFiles([first, ...others]);
        }}
        {...(folder && { webkitdirectory: '' })}
      />
    </>
  );
}
