/** What is known of loose files, from one look to the next. */
import type { LooseFile } from '@nesting/core/planners';

/** A file of a heap, as long as its size, time and inode stay what they are. */
export interface LooseFound extends LooseFile {
  readonly inode: number;
  /** Where another file of that size asked for it. */
  readonly sha256?: string | undefined;
}
