/** Packages, in words. */
import type { PackageFault, PackageFaultCode, PackageKind } from '../package';
import type { Stays } from '../planners';

export const STAYS_WORDS: Readonly<Record<Stays, string>> = {
  elsewhere: 'Outside of the folder that is packed',
  'not-needed': 'Not needed by the document',
  outsiders: 'Not for outsiders',
  superseded: 'Superseded by newer versions',
  generated: 'Made by programs along the way',
  left: 'Left out by choice',
};

/** Within a sentence. */
export const staysWords = (stays: Stays): string => {
  const words = STAYS_WORDS[stays];
  return `${words.charAt(0).toLowerCase()}${words.slice(1)}`;
};

/** Why something cannot go into a package. */
export function cannotGoWords(code: string): string {
  switch (code) {
    case 'ELOOP':
      return 'a link, or no file';
    case 'NOT-UTF-8':
      return 'its name is no text';
    case 'ECHANGED':
      return 'somebody writes to it';
    case 'EACCES':
    case 'EPERM':
      return 'it may not be read';
    case 'ENOENT':
      return 'it is gone';
    default:
      return `it cannot be read (${code})`;
  }
}

export const PACKAGE_KIND_WORDS: Readonly<Record<PackageKind, string>> = {
  zip: 'Zip',
  bag: 'Bag, as a folder',
  'bag-zip': 'Bag, in a zip',
};

const FAULT_WORDS: Readonly<Record<PackageFaultCode, string>> = {
  'not-a-zip': 'this is no zip, or its end is missing',
  'entries-overlap': 'one entry begins within another',
  'entry-twice': 'two entries have one path',
  'path-unsafe': 'its path leads out of the package',
  encrypted: 'it is encrypted, and cannot be read',
  'method-unknown': 'it is compressed in a way that cannot be read here',
  'header-differs': 'its own header contradicts the list of entries',
  'form-differs': 'bytes between the files are not as they were written',
  'whole-differs': 'the file as a whole is not the one whose checksum stands beside it',
  'bag-declaration': 'bagit.txt is not as it must be',
  'no-manifest': 'the bag has no manifest',
  'algorithm-unknown': 'no manifest of the bag is of a kind that can be read here',
  'line-unreadable': 'a line of this list cannot be read',
  'listed-twice': 'it is listed twice',
  'not-in-every-manifest': 'one manifest lists it, and another does not',
  'bytes-differ': 'the bag says another number of files or bytes than it holds',
  'to-be-fetched': 'files would have to be fetched from elsewhere, which is never done',
  'list-unreadable': 'this list cannot be read',
  unseen: 'it cannot be looked at',
};

/** One line. */
export const packageFaultWords = ({ code, path }: PackageFault): string =>
  path === '' ? FAULT_WORDS[code] : `${path}: ${FAULT_WORDS[code]}`;
