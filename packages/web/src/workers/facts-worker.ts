/** Reads what media of this computer tell. It may hang, or die: whoever asked ends it, and begins another. */
import type { MediaFacts } from '@nesting/core/listing';
import { factsOf } from '@nesting/media';
import { expose } from 'comlink';
import MediaInfoFactory, { type MediaInfo } from 'mediainfo.js';
import program from 'mediainfo.js/MediaInfoModule.wasm?url';

let mediaInfo: Promise<MediaInfo | null> | null = null;

const work = {
  async facts(file: File): Promise<MediaFacts> {
    mediaInfo ??= MediaInfoFactory({ format: 'object', locateFile: () => program }).catch(() => null);
    const reader = new FileReaderSync();
    const read = (at: number, length: number) =>
      new Uint8Array(reader.readAsArrayBuffer(file.slice(at, Math.min(file.size, at + length))));
    return factsOf({ size: file.size, read }, await mediaInfo);
  },
};

export type FactsWork = typeof work;

expose(work);
