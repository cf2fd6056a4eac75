/** Whole paths in documents that only their programs read, as programs of several systems write them. */
import { describe, expect, test } from '@jest/globals';
import { mayMention, pathsMentioned } from '../src/mentions';

const ROOTS = ['/srv/studio/26014_x', 'P:\\26014_x', '//files/studio/26014_x'];
const found = (bytes: Buffer | string) => [...pathsMentioned(Buffer.from(bytes as string), ROOTS)].sort();

describe('paths of a project in a document', () => {
  test.each([
    ['between noughts', 'a\0/srv/studio/26014_x/a/b c.wav\0b', ['/srv/studio/26014_x/a/b c.wav']],
    ['between quotes', '{"p":"/srv/studio/26014_x/a.mov","q":1}', ['/srv/studio/26014_x/a.mov']],
    ['of another system', 'file=P:\\26014_x\\a\\ü.mov\r\n', ['P:\\26014_x\\a\\ü.mov']],
    ['of a drive, with slashes', 'P:/26014_x/a.mov|', ['P:/26014_x/a.mov']],
    ['on a share', '<src>//files/studio/26014_x/a.png</src>', ['//files/studio/26014_x/a.png']],
    ['in brackets', "load('/srv/studio/26014_x/a.nk');", ['/srv/studio/26014_x/a.nk']],
    ['of a project whose name goes on', '/srv/studio/26014_xy/a.mov', []],
    ['the root alone', '/srv/studio/26014_x', []],
    ['nothing', '', []],
  ])('%s', (_, text, paths) => expect(found(text)).toEqual(paths));

  test('in text of two bytes a letter, wherever it begins', () => {
    const text = Buffer.from('\0P:\\26014_x\\b\\clip.mov\0', 'utf16le');
    expect(found(text)).toEqual(['P:\\26014_x\\b\\clip.mov']);
    expect(found(Buffer.concat([Buffer.from([7]), text]))).toEqual(['P:\\26014_x\\b\\clip.mov']);
  });

  test('each once, and no more than one looks through', () => {
    expect(found('"/srv/studio/26014_x/a"'.repeat(9))).toEqual(['/srv/studio/26014_x/a']);
    // Behind ten thousand places nobody looks on.
    const behind = `${'/srv/studio/26014_x\0'.repeat(10_000)}/srv/studio/26014_x/late.mov\0`;
    expect([found(behind), found(behind.slice(20))]).toEqual([[], ['/srv/studio/26014_x/late.mov']]);
    expect(found(Array.from({ length: 900 }, (_, i) => `"/srv/studio/26014_x/${i}"`).join()).length).toBe(200);
  });

  test('pictures, sound and what is too large are not read for it', () => {
    const file = (name: string, size: number) => mayMention({ name, size, modified: 0 });
    expect([file('a.edit', 10), file('a.PNG', 10), file('a.edit', 2 ** 30), file('a', 10), file('a.edit', 0)]).toEqual([
      true,
      false,
      false,
      true,
      false,
    ]);
  });
});
