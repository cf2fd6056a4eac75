/** What a disk or a volume does not do. */
import { hindranceWords } from '../batches';

interface Volume {
  readonly volume: string;
}
interface At {
  readonly path: string;
}
/** What failed half way: where, and what stayed behind. */
interface Failed extends Volume {
  readonly at: string;
  readonly stayed: readonly string[];
}

const where = ({ at }: Pick<Failed, 'at'>): string => (at === '' ? '' : ` at ${at}`);
const left = ({ stayed }: Pick<Failed, 'stayed'>): string =>
  stayed.length === 0 ? 'Nothing was left behind.' : `These could not be taken back: ${stayed.slice(0, 5).join(', ')}.`;
const megabytes = (bytes: number): string => `${Math.ceil(bytes / 1_000_000).toLocaleString('en')} MB`;

export const DISK_REFUSALS = {
  'root-missing': (p: Volume) =>
    p.volume === ''
      ? 'The volume cannot be reached. Nothing was changed.'
      : `The volume ${p.volume} cannot be reached. Nothing was changed.`,
  'path-link': (p: At) => `${p.path} is a link, and links are not followed. Nothing was changed.`,
  'path-missing': (p: At) => `${p.path} is not there any more: it was moved, renamed or removed. Nothing was changed.`,
  'path-refused': () => 'This path leads out of its folder. Nothing was changed.',
  'not-readable': (p: At) => `${p.path === '' ? 'This folder' : p.path} cannot be read.`,
  'disk-silent': () =>
    'The disk did not answer in time, and the look at it was ended. Try again, or ask whoever keeps the volume.',
  'disk-refused': (p: At & { readonly system: string }) => hindranceWords(p.system, p.path),
  'disk-ended': () => 'Writing was cut short, and what was made is taken back. Try again.',
  cancelled: () => 'Nobody waits for this answer any more.',
  'start-cancelled': (p: Pick<Failed, 'stayed'>) => `Stopped before it was made. ${left(p)}`,
  'write-failed': (p: Omit<Failed, 'volume'> & { readonly system: string }) =>
    `Writing failed${where(p)} (${p.system}). ${left(p)}`,
  'marker-failed': () => 'The copy’s own marker could not be written. Nothing was changed.',
  'no-volume': (p: Volume) => `No volume is called ${p.volume}. Nothing was changed.`,
  'volume-missing': (p: Volume) =>
    `The volume ${p.volume} cannot be reached: it is not mounted, or its folder is gone. Nothing was changed.`,
  'volume-lost': (p: Failed) => `The volume ${p.volume} went away${where(p)}. ${left(p)}`,
  'volume-new': (p: Volume) =>
    `Nobody has taken the volume ${p.volume} up yet: a coordinator does that in the list of volumes. Nothing was changed.`,
  'volume-other': (p: Volume) =>
    `What is found as ${p.volume} is not that volume: it is not mounted, or another one is. Nothing was changed.`,
  'volume-changed': (p: Volume) => `What is mounted as ${p.volume} is not the volume it was. Nothing was changed.`,
  'volume-twice': (p: Volume) =>
    `What is mounted as ${p.volume} is known as another volume already. Nothing was changed.`,
  'double-itself': (p: Volume) =>
    `A second copy on ${p.volume} itself would be lost with the first. Nothing was changed.`,
  'volume-read-only': (p: Volume) =>
    `The volume ${p.volume} is read-only. Nothing was changed; give the server the right to write there, or take another volume.`,
  'volume-closed': (p: Failed) => `The volume ${p.volume} may not be written to${where(p)}. ${left(p)}`,
  'volume-full': (p: Failed) =>
    `The volume ${p.volume} is full${where(p)}. ${left(p)} Make room, or take another volume.`,
  'no-room': (p: Volume & { readonly bytes: number; readonly free: number }) =>
    `This takes ${megabytes(p.bytes)} on ${p.volume}, and ${megabytes(p.free)} are free there beside what others are writing. Nothing was changed. Make room first.`,
  'prefix-refused': (p: { readonly prefix: string; readonly form: string }) =>
    `“${p.prefix}” is no place as that system writes it: ${p.form}. Nothing was changed.`,
  'prefix-missing': (p: Volume & { readonly system: string }) =>
    `Nobody has said how ${p.system} sees the volume ${p.volume}: a coordinator does, among the volumes.`,
} as const;
