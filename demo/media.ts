/// <reference path="./piexifjs.d.ts" />
/** Tiny valid media with facts of their own, written by well-kept packages: the same bytes every time. */
import jpeg from 'jpeg-js';
import { ArrayBufferTarget, Muxer } from 'mp4-muxer';
import piexif from 'piexifjs';
import wavefile from 'wavefile';

interface Made {
  /** By the device's clock: `2026-03-02T21:14:03`. */
  readonly at: string;
  readonly device: string;
}

/** A photograph of a few pixels. */
export function photo({ at, device }: Made, seed: number): Buffer {
  const side = 8;
  const data = Buffer.alloc(side * side * 4, 255);
  for (let i = 0; i < side * side; i++) data.writeUInt8((seed * 37 + i * 11) & 255, i * 4);
  const plain = jpeg.encode({ data, width: side, height: side }, 60).data;
  const taken = at.replaceAll('-', ':').replace('T', ' ');
  const exif = piexif.dump({
    '0th': { [piexif.ImageIFD.Make]: 'Marrowby', [piexif.ImageIFD.Model]: device },
    Exif: { [piexif.ExifIFD.DateTimeOriginal]: taken },
  });
  return Buffer.from(piexif.insert(exif, Buffer.from(plain).toString('binary')), 'binary');
}

/** Samples a second of a recording that is tiny however long it is. */
const RATE = 400;

/** A broadcast WAV: it tells when it was begun. */
export function recording({ at, device }: Made, seconds: number, seed: number): Buffer {
  const wav = new wavefile.WaveFile();
  const samples = Uint8Array.from({ length: RATE * seconds }, (_, i) => 128 + ((i * (seed + 3)) % 17));
  wav.fromScratch(1, RATE, '8', samples);
  const [date = '', time = ''] = at.split('T');
  const [hours = 0, minutes = 0, rest = 0] = time.split(':').map(Number);
  Object.assign(wav.bext, {
    chunkId: 'bext',
    originator: device,
    originationDate: date,
    originationTime: time,
    timeReference: [(hours * 3600 + minutes * 60 + rest) * RATE, 0],
  });
  return Buffer.from(wav.toBuffer());
}

/** Seconds from 1904, where the clock of this container begins, to 1970. */
const FROM_1904 = 2_082_844_800;
/** A decoder's settings for a picture of 16 by 16: nothing is ever decoded. */
const SETTINGS = Uint8Array.from([
  ...[1, 66, 192, 10, 255, 225, 0, 9, 103, 66, 192, 10, 218, 0, 133, 164, 64, 1, 0, 4, 104, 206, 60, 128],
]);

/** Moving images of pictures that hold nothing. */
export function clip({ at }: Made, seconds: number, seed: number, frames = 25): Buffer {
  const target = new ArrayBufferTarget();
  const muxer = new Muxer({
    target,
    video: { codec: 'avc', width: 16, height: 16, frameRate: frames },
    fastStart: 'in-memory',
  });
  const picture = Uint8Array.from([0, 0, 0, 2, 101, seed & 255]);
  const meta = {
    decoderConfig: { codec: 'avc1.42c00a', codedWidth: 16, codedHeight: 16, description: SETTINGS },
  };
  const lasts = 1_000_000 / frames;
  for (let frame = 0; frame < seconds * frames; frame++)
    muxer.addVideoChunkRaw(picture, 'key', frame * lasts, lasts, meta);
  muxer.finalize();
  return dated(Buffer.from(target.buffer), Math.floor(Date.parse(`${at}Z`) / 1000) + FROM_1904);
}

/** The package writes the moment at which it runs: the device's clock comes instead. */
function dated(file: Buffer, time: number): Buffer {
  for (const box of ['mvhd', 'tkhd', 'mdhd'])
    for (let found = file.indexOf(box); found >= 0; found = file.indexOf(box, found + 4)) {
      const isLong = file[found + 4] === 1;
      for (const field of [0, 1]) {
        if (isLong) file.writeBigUInt64BE(BigInt(time), found + 8 + field * 8);
        else file.writeUInt32BE(time, found + 8 + field * 4);
      }
    }
  return file;
}
