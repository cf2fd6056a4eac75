/** What proving a package comes to. */
import type { Algorithm } from './sums';

/** What is looked at: a folder with all that is in it, or the entries of a zip. */
export interface PackedFiles {
  /** Bytes of each file, by its path. */
  readonly sizes: ReadonlyMap<string, number>;
  /** What is wrong with the form it has as a whole: of a zip. */
  readonly faults: readonly PackageFault[];
  /** Whether each byte outside its files is as this program writes it; `null` where that means nothing: of a folder. */
  readonly isExact: boolean | null;
  /** @throws where it cannot be read, or is longer than `most` bytes */
  text(path: string, most: number): Promise<string>;
  /** Hexadecimal digits, in the order of the algorithms. @throws where it cannot be read */
  hash(path: string, algorithms: readonly Algorithm[]): Promise<readonly string[]>;
}

export const PACKAGE_FAULTS = [
  /** It is no zip, or its list of entries is cut off. */
  'not-a-zip',
  /** An entry begins within another. */
  'entries-overlap',
  'entry-twice',
  /** A path that would lead out of the folder, or to no file. */
  'path-unsafe',
  'encrypted',
  /** Compressed in a way that is not read here. */
  'method-unknown',
  /** An entry's own header says otherwise than the list of entries. */
  'header-differs',
  /** Something outside the files is not as it was written. */
  'form-differs',
  /** The file as a whole has another hash than stands beside it. */
  'whole-differs',
  /** `bagit.txt` is not as RFC 8493 wants it. */
  'bag-declaration',
  'no-manifest',
  /** None of its manifests is of a kind that is read here. */
  'algorithm-unknown',
  'line-unreadable',
  /** One path in two lines. */
  'listed-twice',
  /** A file that another manifest of the bag lists. */
  'not-in-every-manifest',
  /** `Payload-Oxum` says another number of bytes or files. */
  'bytes-differ',
  /** Files that would have to be fetched from elsewhere: they never are. */
  'to-be-fetched',
  'list-unreadable',
  /** A folder or file of which nothing is known. */
  'unseen',
] as const;
export type PackageFaultCode = (typeof PACKAGE_FAULTS)[number];

export interface PackageFault {
  readonly code: PackageFaultCode;
  /** Where; empty for the whole. */
  readonly path: string;
}

export const PACKAGE_FORMS = ['bag', 'sums', 'none'] as const;
/** By what it is proved: the manifests of a bag, a list of checksums, or nothing. */
export type PackageForm = (typeof PACKAGE_FORMS)[number];

/** A file that cannot be what it was; `unreadable` where it is there and cannot be read. */
export interface Changed {
  readonly path: string;
  readonly isUnreadable: boolean;
}

export interface Verdict {
  readonly form: PackageForm;
  /** Nothing is missing, changed, extra or wrong, and there is something to prove it by. */
  readonly isWhole: boolean;
  /** The folder that the list lies in, from where it was looked for. */
  readonly root: string;
  /** Files that are as they were, and their bytes. */
  readonly proved: number;
  readonly bytes: number;
  readonly missing: readonly string[];
  readonly changed: readonly Changed[];
  readonly extra: readonly string[];
  readonly faults: readonly PackageFault[];
  /** Files that no list covers, where none has to: what describes a bag. */
  readonly beside: readonly string[];
}
