/** What goes wrong on a disk, as an error and as data that goes from one process to another. */

/** An error as data. */
export interface FailureOnDisk {
  readonly code: string;
  readonly message: string;
  readonly path: string;
  readonly detail: string;
}

/** What went wrong on a disk, in whichever process: with the code of `Unreachable`, of the system, or of a batch. */
export class DiskError extends Error implements FailureOnDisk {
  readonly code: string;
  readonly path: string;
  readonly detail: string;

  constructor({ code, message, path, detail }: FailureOnDisk) {
    super(message);
    this.code = code;
    this.path = path;
    this.detail = detail;
  }
}

const textOf = (error: object, key: string): string => {
  const value: unknown = Reflect.get(error, key);
  return typeof value === 'string' ? value : '';
};

export function failureOf(error: unknown): FailureOnDisk {
  if (!(error instanceof Error)) return { code: 'unknown', message: String(error), path: '', detail: '' };
  const code = textOf(error, 'code') || 'unknown';
  return { code, message: error.message, path: textOf(error, 'path'), detail: textOf(error, 'detail') };
}
