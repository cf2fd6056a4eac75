/** What a project agreed for its files, as people write it on a setup sheet, held against what files tell. */
import { describe, expect, test } from '@jest/globals';
import type { MediaFacts } from '../src/listing';
import { readSetting, type SettingFact, settingTold } from '../src/template';

const isRight = (fact: SettingFact, agreed: string, facts: MediaFacts): boolean | null =>
  settingTold(fact, agreed, facts)?.isRight ?? null;

describe('frames a second', () => {
  test.each([
    ['25', 25],
    ['25 fps', 25],
    ['25p', 25],
    ['1080p25', 25],
    ['50i', 25],
    ['1080i50', 25],
    ['25,0', 25],
    ['23.976', 23.976],
    ['23,976', 23.976],
    ['23.98 fps', 23.976],
    ['24000/1001', 23.976],
    ['24', 24],
    ['29.97 DF', 29.97],
    ['59.94i', 29.97],
    ['30 frames a second', 30],
    ['59.94', 59.94],
    ['120', 120],
  ])('“%s” is %d', (agreed, rate) => {
    expect(isRight('frameRate', agreed, { has: 'picture', frameRate: rate })).toBe(true);
    for (const other of [23.976, 24, 25, 29.97, 30, 48, 50, 59.94, 60, 119.88])
      if (other !== rate) expect(isRight('frameRate', agreed, { has: 'picture', frameRate: other })).toBe(false);
  });

  test('a rate that drifts, as telephones record it, is none', () => {
    expect(isRight('frameRate', '30', { has: 'picture', frameRate: 29.94 })).toBe(false);
    expect(isRight('frameRate', '25', { has: 'picture', frameRate: 25.0001 })).toBe(true);
  });

  test.each(['', 'as delivered', 'film', '0', '-25', '25000', 'p'])('“%s” is no rate', (agreed) => {
    expect(readSetting('frameRate', agreed)).toBeNull();
  });
});

describe('picture size', () => {
  test.each([
    '1920×1080',
    '1920x1080',
    '1920 X 1080',
    '1920 * 1080',
    '1920 by 1080',
    '1920 × 1080 px',
    'HD, 1920×1080',
  ])('“%s”', (agreed) => {
    const at = (width: number, height: number) => isRight('pictureSize', agreed, { has: 'picture', width, height });
    expect(at(1920, 1080)).toBe(true);
    expect(at(1080, 1920)).toBe(false);
    expect(at(1920, 1088)).toBe(false);
    expect(at(3840, 2160)).toBe(false);
  });

  test.each(['UHD', '4K', '16:9', '1080', '1920', ''])('“%s” is no size', (agreed) => {
    expect(readSetting('pictureSize', agreed)).toBeNull();
  });
});

describe('sound rate', () => {
  test.each([
    '48 kHz',
    '48kHz',
    '48 KHZ',
    '48000',
    '48000 Hz',
    '48 000 Hz',
    '48',
    '48k',
    '24 bit, 48 kHz',
    '48 kHz / 24 bit',
    '48.000 Hz',
    '48,0 kHz',
  ])('“%s”', (agreed) => {
    expect(isRight('soundRate', agreed, { has: 'sound', sampleRate: 48_000 })).toBe(true);
    expect(isRight('soundRate', agreed, { has: 'sound', sampleRate: 44_100 })).toBe(false);
    expect(isRight('soundRate', agreed, { has: 'sound', sampleRate: 96_000 })).toBe(false);
  });

  test('the sound of a picture counts too', () => {
    expect(isRight('soundRate', '48 kHz', { has: 'picture', sampleRate: 44_100 })).toBe(false);
    expect(isRight('soundRate', '44,1 kHz', { has: 'picture', sampleRate: 44_100 })).toBe(true);
  });

  test.each(['', '24 bit', 'stereo', '0 kHz'])('“%s” is no rate', (agreed) => {
    expect(readSetting('soundRate', agreed)).toBeNull();
  });
});

describe('units of scenes', () => {
  test.each([
    ['m', 1],
    ['metres', 1],
    ['Meters', 1],
    ['cm', 0.01],
    ['Centimetre', 0.01],
    ['1 unit = 1 cm', 0.01],
    ['1 unit = 10 cm', 0.1],
    ['mm', 0.001],
    ['millimeters', 0.001],
    ['inches', 0.0254],
    ['in', 0.0254],
    ['ft', 0.3048],
    ['feet', 0.3048],
    ['0.01 m', 0.01],
    ['0,01 m', 0.01],
    ['km', 1000],
  ])('“%s” is %d metres', (agreed, metres) => {
    expect(isRight('units', agreed, { metresPerUnit: metres })).toBe(true);
    expect(isRight('units', agreed, { metresPerUnit: metres * 10 })).toBe(false);
  });

  test.each(['', 'units', 'real size', '1:50'])('“%s” is none', (agreed) => {
    expect(readSetting('units', agreed)).toBeNull();
  });
});

test('what a file does not tell is neither right nor wrong', () => {
  expect(settingTold('frameRate', '25', { has: 'sound', sampleRate: 48_000 })).toBeNull();
  expect(settingTold('pictureSize', '1920×1080', { has: 'picture', width: 1920 })).toBeNull();
  expect(settingTold('soundRate', '48 kHz', { has: 'picture' })).toBeNull();
  expect(settingTold('units', 'cm', {})).toBeNull();
  expect(settingTold('frameRate', 'as delivered', { has: 'picture', frameRate: 25 })).toBeNull();
});

test('what was found is said as people write it', () => {
  const found = (fact: SettingFact, agreed: string, facts: MediaFacts) => settingTold(fact, agreed, facts)?.found;
  expect(found('frameRate', '25', { frameRate: 23.976 })).toBe('23.976');
  expect(found('frameRate', '25', { frameRate: 50 })).toBe('50');
  expect(found('pictureSize', '1920×1080', { width: 3840, height: 2160 })).toBe('3840 × 2160');
  expect(found('soundRate', '48 kHz', { sampleRate: 44_100 })).toBe('44.1 kHz');
  expect(found('units', 'm', { metresPerUnit: 0.01 })).toBe('cm');
  expect(found('units', 'm', { metresPerUnit: 0.5 })).toBe('0.5 m');
});
