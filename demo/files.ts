/** Tiny valid files of each kind, the same bytes every time. */

import { deflateSync } from 'node:zlib';
import { present } from '@nesting/core';

const u32 = (n: number) => {
  const b = Buffer.alloc(4);
  b.writeUInt32BE(n >>> 0);
  return b;
};

let table: Uint32Array | null = null;
function crc(bytes: Buffer): number {
  table ??= Uint32Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c >>> 0;
  });
  let c = 0xffffffff;
  for (const byte of bytes) c = present(table[(c ^ byte) & 255]) ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

function png(seed: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    return Buffer.concat([u32(data.length), body, u32(crc(body))]);
  };
  const header = Buffer.concat([u32(1), u32(1), Buffer.from([8, 2, 0, 0, 0])]);
  const pixel = Buffer.from([0, seed & 255, (seed >> 8) & 255, (seed >> 16) & 255]);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(pixel)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

function wav(seed: number): Buffer {
  const samples = Buffer.alloc(96, seed & 255);
  samples.writeUInt32LE(seed >>> 0);
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(48_000, 24);
  head.writeUInt32LE(48_000, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.length, 40);
  return Buffer.concat([head, samples]);
}

/** OpenEXR, one grey pixel: version 2, one half-float channel, no compression. */
function exr(seed: number): Buffer {
  const attribute = (name: string, type: string, value: Buffer) => {
    const size = Buffer.alloc(4);
    size.writeUInt32LE(value.length);
    return Buffer.concat([Buffer.from(`${name}\0${type}\0`), size, value]);
  };
  const ints = (...all: number[]) =>
    Buffer.concat(
      all.map((n) => {
        const b = Buffer.alloc(4);
        b.writeInt32LE(n);
        return b;
      }),
    );
  const floats = (...all: number[]) =>
    Buffer.concat(
      all.map((n) => {
        const b = Buffer.alloc(4);
        b.writeFloatLE(n);
        return b;
      }),
    );
  const channels = Buffer.concat([Buffer.from('Y\0'), ints(1, 0, 1, 1), Buffer.from([0])]);
  const header = Buffer.concat([
    Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]),
    attribute('channels', 'chlist', channels),
    attribute('compression', 'compression', Buffer.from([0])),
    attribute('dataWindow', 'box2i', ints(0, 0, 0, 0)),
    attribute('displayWindow', 'box2i', ints(0, 0, 0, 0)),
    attribute('lineOrder', 'lineOrder', Buffer.from([0])),
    attribute('pixelAspectRatio', 'float', floats(1)),
    attribute('screenWindowCenter', 'v2f', floats(0, 0)),
    attribute('screenWindowWidth', 'float', floats(1)),
    Buffer.from([0]),
  ]);
  const offset = Buffer.alloc(8);
  offset.writeBigUInt64LE(BigInt(header.length + 8));
  const half = Buffer.alloc(2);
  half.writeUInt16LE(0x3800 + (seed & 255));
  return Buffer.concat([header, offset, ints(0, 2), half]);
}

function pdf(text: string): Buffer {
  const safe = text.replace(/[^\x20-\x7e]/g, '?').replace(/[\\()]/g, '\\$&');
  const stream = `BT /F1 18 Tf 60 760 Td (${safe}) Tj ET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${stream.length} >>\nstream\n${stream}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ];
  let out = '%PDF-1.4\n';
  const offsets = objects.map((body, i) => {
    const at = out.length;
    out += `${i + 1} 0 obj\n${body}\nendobj\n`;
    return at;
  });
  const start = out.length;
  out += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${offsets.map((o) => `${String(o).padStart(10, '0')} 00000 n \n`).join('')}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(out);
}

/** Content for a name, by its extension; the name itself is the seed. */
export function contentFor(name: string): Buffer {
  const seed = [...name].reduce((n, ch) => (n * 31 + ch.charCodeAt(0)) >>> 0, 7);
  switch (name.slice(name.lastIndexOf('.') + 1).toLowerCase()) {
    case 'png':
    case 'jpg':
      return png(seed);
    case 'wav':
      return wav(seed);
    case 'exr':
      return exr(seed);
    case 'pdf':
      return pdf(name);
    case 'svg':
      return Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="8" height="8"><rect width="8" height="8" fill="hsl(${seed % 360} 40% 50%)"/><title>${seed}</title></svg>\n`,
      );
    case 'usda':
      return Buffer.from(
        `#usda 1.0\n(\n    defaultPrim = "Scene"\n)\n\ndef Xform "Scene"\n{\n    custom int seed = ${seed % 2_000_000_000}\n}\n`,
      );
    case 'otio':
      return Buffer.from(
        `${JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', name, metadata: {}, tracks: { OTIO_SCHEMA: 'Stack.1', name: 'tracks', children: [], effects: [], markers: [], metadata: {} } }, null, 2)}\n`,
      );
    default:
      return Buffer.from(`${name}\n`);
  }
}
