/** A thread that reads what media tell. It may hang, or die: whoever asked stops it, and begins another. */
import { parentPort } from 'node:worker_threads';
import { factsOf } from '@nesting/media';
import MediaInfoFactory, { type MediaInfo } from 'mediainfo.js';
import { readAt } from '../roots/plain-file';

export interface AskedFacts {
  readonly id: number;
  readonly fd: number;
  readonly size: number;
}

let mediaInfo: Promise<MediaInfo> | null = null;

parentPort?.on('message', ({ id, fd, size }: AskedFacts) => {
  mediaInfo ??= MediaInfoFactory({ format: 'object' });
  void mediaInfo
    .then((reader) => factsOf({ size, read: (at, length) => readAt(fd, at, length) }, reader))
    .catch(() => ({ unread: 'failed' as const }))
    .then((facts) => parentPort?.postMessage({ id, facts }));
});
