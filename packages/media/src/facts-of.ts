/** What the content of a file tells, by well-kept readers: of each file only the bytes they ask for are read. */
import type { MediaFacts } from '@nesting/core/listing';
import exifr from 'exifr';
import { fileTypeFromBuffer } from 'file-type';
import { imageSize } from 'image-size';
import type { MediaInfo, MediaInfoResult } from 'mediainfo.js';
import { sceneFacts } from './scene-facts';

export interface Bytes {
  readonly size: number;
  /** As many as there are. */
  readonly read: (at: number, length: number) => Uint8Array;
}

/** Bytes at the beginning by which content is known, and those in which a photograph has its own facts. */
const HEAD = 4100;
const PHOTO_HEAD = 256 * 1024;

/** Never throws: what cannot be read tells nothing, and that is said. */
export async function factsOf(bytes: Bytes, mediaInfo: MediaInfo | null): Promise<MediaFacts> {
  if (bytes.size === 0) return {};
  const head = bytes.read(0, Math.min(HEAD, bytes.size));
  const scene = sceneFacts(new TextDecoder().decode(head));
  if (scene !== null) return scene;
  const type = (await fileTypeFromBuffer(head)) ?? framesOf(head);
  if (type === undefined) return {};
  const content = SHORT.get(type.ext) ?? type.ext;
  try {
    if (type.mime.startsWith('image/')) return { content, has: 'still', ...(await stillFacts(bytes, mediaInfo)) };
    const isMedia = /^(?:audio|video)\//.test(type.mime) || MEDIA.has(content);
    return isMedia && mediaInfo !== null ? { content, ...(await trackFacts(bytes, mediaInfo)) } : { content };
  } catch {
    return { content, unread: 'failed' };
  }
}

/** As extensions are written here. */
const SHORT: ReadonlyMap<string, string> = new Map([
  ['jpeg', 'jpg'],
  ['tiff', 'tif'],
]);
const MEDIA: ReadonlySet<string> = new Set(['mxf', 'mov', 'mp4', 'avi', 'mkv', 'wav', 'aif']);

/** Frames of moving images that the reader of kinds does not know. */
function framesOf(head: Uint8Array): { readonly ext: string; readonly mime: string } | undefined {
  const mark = String.fromCharCode(...head.subarray(0, 4));
  if (mark === '\x76\x2f\x31\x01') return { ext: 'exr', mime: 'image/x-exr' };
  return mark === 'SDPX' || mark === 'XPDS' ? { ext: 'dpx', mime: 'image/x-dpx' } : undefined;
}

/**
 * Its size is that of the picture itself: what stands beside it may be of an earlier state. The reader of tracks takes
 * twenty times as long: it is asked only for what the other one does not know.
 */
async function stillFacts(bytes: Bytes, mediaInfo: MediaInfo | null): Promise<MediaFacts> {
  const head = bytes.read(0, Math.min(PHOTO_HEAD, bytes.size));
  const [photo, size] = [await photoFacts(head), sizeIn(head) ?? (await trackSize(bytes, mediaInfo))];
  return { ...photo, ...optional('width', amount(size?.width)), ...optional('height', amount(size?.height)) };
}

interface Size {
  readonly width?: unknown;
  readonly height?: unknown;
}

function sizeIn(head: Uint8Array): Size | null {
  try {
    return imageSize(head);
  } catch {
    return null;
  }
}

async function trackSize(bytes: Bytes, mediaInfo: MediaInfo | null): Promise<Size | null> {
  if (mediaInfo === null) return null;
  const { Width: width, Height: height }: Track = await tracksOf(bytes, mediaInfo).then(
    (of) => of('Image'),
    () => ({}),
  );
  return width === undefined ? null : { width, height };
}

async function photoFacts(head: Uint8Array): Promise<MediaFacts> {
  const tags = await exifr
    .parse(head, {
      reviveValues: false,
      pick: ['DateTimeOriginal', 'CreateDate', 'Make', 'Model', 'ExifImageWidth', 'ExifImageHeight'],
    })
    // A picture without them, or with broken ones: its content is known all the same.
    .catch(() => undefined);
  if (tags === undefined || tags === null) return {};
  const { DateTimeOriginal, CreateDate, Make, Model, ExifImageWidth, ExifImageHeight } = tags as Record<
    string,
    unknown
  >;
  return {
    ...optional('taken', exifTime(DateTimeOriginal) ?? exifTime(CreateDate)),
    ...optional('width', amount(ExifImageWidth)),
    ...optional('height', amount(ExifImageHeight)),
    ...optional('device', words(Make, Model)),
  };
}

/** `2026:03:02 21:14:03`, as a camera's clock said it. */
function exifTime(value: unknown): string | undefined {
  const m = /^(\d{4}):(\d{2}):(\d{2}) (\d{2}:\d{2}:\d{2})/.exec(String(value ?? ''));
  return m === null ? undefined : `${m[1]}-${m[2]}-${m[3]}T${m[4]}`;
}

async function trackFacts(bytes: Bytes, mediaInfo: MediaInfo): Promise<MediaFacts> {
  const of = await tracksOf(bytes, mediaInfo);
  const [general, video, audio, other] = [of('General'), of('Video'), of('Audio'), of('Other')];
  const isPicture = video['@type'] !== undefined;
  const isSound = !isPicture && audio['@type'] !== undefined;
  const sampleRate = amount(audio.SamplingRate);
  return {
    ...(isPicture && { has: 'picture' as const }),
    ...(isSound && { has: 'sound' as const }),
    ...optional('taken', trackTime(general, video)),
    ...optional('seconds', decimal(general.Duration)),
    ...optional('timecode', timecode(other.TimeCode_FirstFrame ?? video.TimeCode_FirstFrame)),
    ...optional('frameRate', decimal(video.FrameRate)),
    ...optional('width', amount(video.Width)),
    ...optional('height', amount(video.Height)),
    ...optional('sampleRate', sampleRate),
    ...optional('channels', amount(audio.Channels)),
    ...optional(
      'device',
      words(general.Encoded_Hardware_CompanyName, general.Encoded_Hardware_Name ?? general.Producer),
    ),
  };
}

async function tracksOf(bytes: Bytes, mediaInfo: MediaInfo): Promise<(type: string) => Track> {
  const result = (await mediaInfo.analyzeData(bytes.size, (length, at) => bytes.read(at, length))) as MediaInfoResult;
  const tracks = (result.media?.track ?? []).map((track): Track => ({ ...track }));
  return (type) => tracks.find((track) => track['@type'] === type) ?? {};
}

type Track = Readonly<Record<string, unknown>>;

/** A device's clock, whatever zone it was thought to be in. */
function trackTime(general: Track, video: Track): string | undefined {
  for (const value of [general.Recorded_Date, general.Encoded_Date, video.Encoded_Date, general.Tagged_Date]) {
    const m = /(\d{4}-\d{2}-\d{2})[ T](\d{2}:\d{2}:\d{2})/.exec(String(value ?? ''));
    if (m !== null) return `${m[1]}T${m[2]}`;
  }
  return undefined;
}

function timecode(value: unknown): string | undefined {
  const text = String(value ?? '');
  return /^\d{2}:\d{2}:\d{2}[:;]\d{2,3}$/.test(text) ? text : undefined;
}

const decimal = (value: unknown): number | undefined => {
  const number = Number(value);
  return value === undefined || value === '' || !Number.isFinite(number) || number < 0 ? undefined : number;
};
const amount = (value: unknown): number | undefined => {
  const number = decimal(value);
  return number === undefined ? undefined : Math.round(number);
};

function words(...values: readonly unknown[]): string | undefined {
  const text = values
    .filter((value) => typeof value === 'string' && value.trim() !== '')
    .join(' ')
    .slice(0, MOST_WORDS);
  return text === '' ? undefined : text;
}

const MOST_WORDS = 80;
const optional = <K extends string, V>(key: K, value: V | undefined): { readonly [P in K]?: V } =>
  (value === undefined ? {} : { [key]: value }) as { readonly [P in K]?: V };
