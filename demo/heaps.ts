/**
 * Loose material of the demo studio, as it arrives: a camera's card, a recorder's card with the sound of the same takes
 * (its clock 37 seconds ahead), and a heap of downloads.
 */
import { ZipFile } from 'yazl';
import { contentFor } from './files';
import { clip, photo, recording } from './media';

export interface HeapFile {
  readonly path: string;
  readonly bytes: Buffer;
  /** ISO 8601. */
  readonly modified: string;
}

const CAMERA = 'Quernway 4';
const RECORDER = 'Brindlewick 2';
const PHONE = 'Tansyfold';

/** Takes of the night on the pier: when the camera was begun, and for how long. */
const TAKES = [
  ['2026-03-02T20:41:10', 24],
  ['2026-03-02T20:58:02', 41],
  ['2026-03-02T21:03:30', 18],
  ['2026-03-02T21:20:45', 33],
  ['2026-03-02T21:44:00', 27],
] as const;

/** Somebody had left the camera at its fast setting. */
const FAST_TAKE = 3;

/** By a clock that is so many seconds ahead. */
const shifted = (at: string, seconds: number): string =>
  new Date(Date.parse(`${at}Z`) + seconds * 1000).toISOString().slice(0, 19);

const AHEAD = 37;

export function cameraCard(): readonly HeapFile[] {
  const clips = TAKES.flatMap(([at, seconds], i): HeapFile[] => {
    const name = `C${String(i + 114).padStart(4, '0')}`;
    return [
      {
        path: `CLIPS/${name}.MP4`,
        bytes: clip({ at, device: CAMERA }, seconds, i, i === FAST_TAKE ? 50 : 25),
        modified: `${at}Z`,
      },
      { path: `CLIPS/${name}.IDX`, bytes: Buffer.from(`clip ${name}\n`), modified: `${at}Z` },
    ];
  });
  return [...clips, { path: 'INDEX/CARD.IDX', bytes: Buffer.from('card A003\n'), modified: '2026-03-02T22:00:00Z' }];
}

export const recorderCard = (): readonly HeapFile[] =>
  TAKES.map(([at, seconds], i) => {
    // It was begun by hand a little earlier, and ended a little later.
    const begun = shifted(at, AHEAD - 4 - (i % 3));
    const made = { at: begun, device: RECORDER };
    return {
      path: `pier T${String(i + 1).padStart(2, '0')}.wav`,
      bytes: recording(made, seconds + 9, i),
      modified: `${begun}Z`,
    };
  });

/** Everything somebody saved in three weeks. */
export async function downloads(): Promise<readonly HeapFile[]> {
  const photos = [
    ['pier/IMG_2207.JPG', '2026-03-02T21:14:03'],
    ['pier/IMG_2208.JPG', '2026-03-02T21:14:40'],
    ['pier/IMG_2209.JPG', '2026-03-02T21:15:02'],
    ['pier/IMG_2210.JPG', '2026-03-02T21:15:02'],
    ['pier/IMG_2211.JPG', '2026-03-02T21:15:03'],
    ['pire/IMG_2251.JPG', '2026-03-04T22:01:00'],
    ['mill roof/20260304_203155.jpg', '2026-03-04T20:31:55'],
    ['IMG_2301.JPG', '2026-03-04T23:10:00'],
  ] as const;
  const files: HeapFile[] = photos.map(([path, at], i) => ({
    ...{ path, modified: `${at}Z` },
    bytes: photo({ at, device: PHONE }, i),
  }));
  const plain = (path: string, like = path) =>
    files.push({ path, bytes: contentFor(`${files.length}-${like}`), modified: '2026-03-05T08:00:00Z' });
  plain('26014_SPK_nl_s04_v02.wav');
  plain('speech EN scene 5 v3.wav');
  plain('harbour music v04.wav', 'x.wav');
  plain('Quote Harbour Lights 2026-03-01.pdf');
  plain('11.02.2026 road closure permit.pdf');
  plain('clock tower s02 comp LV v7.usda');
  plain('26009_town-hall_s01_anim_LV_v002.usda');
  plain('Untitled.pdf');
  plain('portrait for programme', 'x.jpg');
  plain('board tide v3.jpg', 'board.png');
  const doubled = files.find(({ path }) => path === 'pier/IMG_2207.JPG');
  if (doubled !== undefined) files.push({ ...doubled, path: 'IMG_2207 (1).JPG' });
  files.push({ path: 'pier/IMG_2207.side', bytes: Buffer.from('<note/>\n'), modified: '2026-03-02T21:14:03Z' });
  files.push({ path: 'Thumbs.db', bytes: Buffer.from('thumbs'), modified: '2026-03-05T08:00:00Z' });
  files.push({ path: 'from Samir.zip', bytes: await zipped(), modified: '2026-03-05T09:00:00Z' });
  return files;
}

function zipped(): Promise<Buffer> {
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from('Projector plan of the pier\n'), 'plan.txt', { mtime: new Date('2026-03-05T09:00:00Z') });
  zip.end();
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk));
    zip.outputStream.on('end', () => resolve(Buffer.concat(chunks)));
    zip.outputStream.on('error', reject);
  });
}
