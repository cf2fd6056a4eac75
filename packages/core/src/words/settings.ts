/** What files are held to, in words. */
import { readSetting, type SettingFact } from '../template/settings';

export const SETTING_FACT_WORDS: Readonly<Record<SettingFact, string>> = {
  frameRate: 'frames a second',
  pictureSize: 'picture size',
  soundRate: 'sound rate',
  units: 'units of scenes',
};

const EXAMPLES: Readonly<Record<SettingFact, string>> = {
  frameRate: '25, 23.976 or 50i',
  pictureSize: '1920 × 1080',
  soundRate: '48 kHz',
  units: 'm, cm or in',
};

/** Why no file can be held to a setting; `null` where files can be. */
export const unheldWords = (fact: SettingFact, value: string): string | null =>
  readSetting(fact, value) === null ? `Files are not held to “${value}”: write it like ${EXAMPLES[fact]}.` : null;
