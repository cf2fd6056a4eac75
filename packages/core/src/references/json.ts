import { type RefFormat, referencesBy } from './reference';

/** Cuts lists as OTIO: `target_url`, and the folder of image sequences. */
export const otio: RefFormat = {
  name: 'OTIO',
  extensions: ['otio'],
  find: (text) => referencesBy(text, /"target_url(?:_base)?"\s*:\s*"((?:[^"\\]|\\.)*)"/dg, 1, 'json-url'),
};

/** Scenes as glTF: buffers and pictures beside it; those held inside are no references. */
export const gltf: RefFormat = {
  name: 'glTF',
  extensions: ['gltf'],
  find: (text) => referencesBy(text, /"uri"\s*:\s*"((?!data:)(?:[^"\\]|\\.)*)"/dg, 1, 'json-url'),
};
