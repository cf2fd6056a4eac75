/** A loose file, to be looked at or listened to before it is filed. */

import { nameOf } from '@nesting/core/listing';
import { useEffect, useState } from 'react';
import { Button } from '../../ui';
import type { Item } from './intake-rows';
import type { IntakeWork } from './intake-work';

/** What browsers show, by its content. */
const TYPES: Readonly<Record<string, string>> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  gif: 'image/gif',
  webp: 'image/webp',
  wav: 'audio/wav',
  mp3: 'audio/mpeg',
  flac: 'audio/flac',
  mp4: 'video/mp4',
};
/** Bytes that are fetched without being asked for. */
const AT_ONCE = 4 * 2 ** 20;
const MOST = 64 * 2 ** 20;

export function LoosePreview({ work: { bytesOf }, item }: { work: IntakeWork; item: Item }) {
  const type = TYPES[item.facts.content ?? ''];
  const [isWanted, setWanted] = useState(item.size <= AT_ONCE);
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    if (type === undefined || !isWanted) return;
    let made: string | null = null;
    let isGone = false;
    void bytesOf(item.from, 'whole').then((bytes) => {
      if (bytes === null || isGone) return;
      made = URL.createObjectURL(new Blob([bytes], { type }));
      setAddress(made);
    });
    return () => {
      isGone = true;
      if (made !== null) URL.revokeObjectURL(made);
    };
  }, [type, isWanted, bytesOf, item.from]);
  if (type === undefined || item.size > MOST) return null;
  if (!isWanted)
    return (
      <Button className="self-start" onClick={() => setWanted(true)}>
        {type.startsWith('image/') ? 'Show it' : 'Play it'}
      </Button>
    );
  if (address === null) return null;
  const label = nameOf(item.from);
  if (type.startsWith('image/'))
    return (
      <img
        src={address}
        alt={label}
        className="max-h-48 min-h-16 self-start rounded-tray border border-line object-contain"
      />
    );
  if (type.startsWith('video/'))
    // biome-ignore lint/a11y/useMediaCaption: raw material has none
    return <video src={address} controls aria-label={label} className="max-h-48 w-full" />;
  // biome-ignore lint/a11y/useMediaCaption: raw material has none
  return <audio src={address} controls aria-label={label} className="w-full" />;
}
