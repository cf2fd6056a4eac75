/**
 * What is in a starter file: the names in a zip, or its text, filled in with the sample's values where that is asked
 * for.
 */
import type { Registers, Values } from '@nesting/core/name';
import { fillText, type Template } from '@nesting/core/template';
import { useEffect, useState } from 'react';
import { count, many, size } from '../../../app/words';
import { Heading } from '../../../ui';
import { entriesOfZip, type ZipEntry } from '../zip-names';

type Content =
  | { readonly kind: 'zip'; readonly entries: readonly ZipEntry[] }
  | { readonly kind: 'text'; readonly text: string; readonly whole: boolean }
  | { readonly kind: 'other' }
  | { readonly kind: 'absent' };

/** Characters of a text that are looked at. */
const MOST_TEXT = 100_000;
const MOST_ENTRIES = 500;

async function contentOf(bytes: Uint8Array): Promise<Content> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    // Nothing is unpacked: only the directory is read.
    const entries = await entriesOfZip(new Blob([Uint8Array.from(bytes)]));
    return entries === null ? { kind: 'other' } : { kind: 'zip', entries };
  }
  if (bytes.subarray(0, 64_000).includes(0)) return { kind: 'other' };
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return { kind: 'text', text: text.slice(0, MOST_TEXT), whole: text.length <= MOST_TEXT };
  } catch {
    return { kind: 'other' };
  }
}

interface Props {
  readonly address: string;
  readonly fill: boolean;
  readonly template: Template;
  readonly registers: Registers;
  readonly values: Values;
}

export function StarterContent({ address, fill, template, registers, values }: Props) {
  const [found, setFound] = useState<{ content: Content; bytes: number } | null>(null);
  useEffect(() => {
    let gone = false;
    void fetch(address).then(async (response) => {
      const bytes = response.ok ? new Uint8Array(await response.arrayBuffer()) : new Uint8Array();
      const content: Content = response.ok ? await contentOf(bytes) : { kind: 'absent' };
      if (!gone) setFound({ content, bytes: bytes.length });
    });
    return () => {
      gone = true;
    };
  }, [address]);
  if (found === null) return <p className="text-xs text-ink2">Reading it…</p>;
  const { content, bytes } = found;
  return (
    <section aria-label="What is in it" className="flex flex-col gap-1">
      <Heading>{content.kind === 'text' && fill ? 'As it would be written for the sample' : 'What is in it'}</Heading>
      {content.kind === 'absent' && (
        <p className="text-sm text-brick">The file is not there. Give it anew, or take it out.</p>
      )}
      {content.kind === 'other' && (
        <p className="text-sm text-ink2">
          {size(bytes)}, in a form that is copied as it is and cannot be looked into here.
        </p>
      )}
      {content.kind === 'text' && (
        <pre className="max-h-56 overflow-auto rounded-tray border border-line bg-sheet p-2 font-mono text-xs whitespace-pre-wrap">
          {fill ? fillText(content.text, values, template.fields, registers) : content.text}
          {content.whole ? '' : '\n…'}
        </pre>
      )}
      {content.kind === 'zip' && (
        <>
          <p className="text-xs text-ink2">
            A zip with {many(content.entries.length, 'entry', 'entries')},{' '}
            {size(content.entries.reduce((n, e) => n + e.bytes, 0))} unpacked.
          </p>
          <ul className="max-h-56 overflow-auto rounded-tray border border-line bg-sheet p-2 font-mono text-xs">
            {content.entries.slice(0, MOST_ENTRIES).map((e) => (
              <li key={e.name} className="flex justify-between gap-3">
                <span className="break-all">{e.name}</span>
                <span className="shrink-0 text-note">{e.name.endsWith('/') ? '' : size(e.bytes)}</span>
              </li>
            ))}
            {content.entries.length > MOST_ENTRIES && <li>and {count(content.entries.length - MOST_ENTRIES)} more</li>}
          </ul>
        </>
      )}
    </section>
  );
}
