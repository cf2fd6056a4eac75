/**
 * A small picture of a photograph in a list. Of a large one only its beginning is fetched, in which cameras put a small
 * picture of it.
 */
import { useEffect, useState } from 'react';
import type { Item } from './intake-rows';
import type { IntakeWork } from './intake-work';

const TYPES: Readonly<Record<string, string>> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  gif: 'image/gif',
  webp: 'image/webp',
};
/** Bytes that a beginning has; smaller files are fetched whole. */
const HEAD = 256 * 1024;
/** Milliseconds that a line stands still before its picture is fetched: lines that fly past are not looked at. */
const STILL = 120;
const MOST_KEPT = 400;

/** Addresses of pictures that were made, and `null` where there is none. */
const kept = new Map<string, string | null>();

export function Thumbnail({ work: { project, place, bytesOf }, item }: { work: IntakeWork; item: Item }) {
  const { from, size, modified, facts } = item;
  const type = TYPES[facts.content ?? ''];
  const where = place === null ? '' : `${place.volume}/${place.folder}`;
  const key = `${project.id} ${where}/${from} ${size} ${modified}`;
  const [, redraw] = useState(0);
  const known = kept.get(key);
  useEffect(() => {
    if (type === undefined || kept.has(key)) return;
    let isGone = false;
    const later = setTimeout(async () => {
      const bytes = await bytesOf(from, 'head');
      if (bytes === null) return;
      keep(key, await pictureIn(bytes, size, type));
      if (!isGone) redraw((n) => n + 1);
    }, STILL);
    return () => {
      isGone = true;
      clearTimeout(later);
    };
  }, [key, type, bytesOf, from, size]);
  return known == null ? null : <img src={known} alt="" className="h-6 w-9 shrink-0 rounded-sm object-cover" />;
}

function keep(key: string, picture: Blob | null): void {
  if (kept.size >= MOST_KEPT) {
    for (const address of kept.values()) if (address !== null) URL.revokeObjectURL(address);
    kept.clear();
  }
  kept.set(key, picture === null ? null : URL.createObjectURL(picture));
}

/** The file itself where it is small, else what it carries of itself. */
async function pictureIn(bytes: ArrayBuffer, size: number, type: string): Promise<Blob | null> {
  if (size <= HEAD) return new Blob([bytes], { type });
  if (type !== 'image/jpeg') return null;
  const { default: exifr } = await import('exifr');
  const small = await exifr.thumbnail(bytes).catch(() => undefined);
  return small === undefined ? null : new Blob([new Uint8Array(small)], { type });
}
