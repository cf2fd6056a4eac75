/** A batch that was planned again by whoever does it: what it makes of the project, and the changes on the disk. */
import type { Me, ProjectShape } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import type { Contents, Where } from '@nesting/disk';
import type { BatchRoot } from '../../db/queries/batches/batches';
import type { readProject } from '../../db/queries/projects/projects';

export type Project = NonNullable<Awaited<ReturnType<typeof readProject>>>;

/** Who asked for it. */
export type Asker = Pick<Me, 'id' | 'name' | 'role' | 'initials'>;

export interface Prepared {
  readonly project: Project;
  readonly where: Where;
  readonly what: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly changes: readonly Change[];
  /** Other projects' folders that it works in. */
  readonly neighbours?: readonly BatchRoot[];
  /** New contents by their key. */
  readonly contents: Contents;
}

export interface ToRun extends Prepared {
  readonly id: string;
  readonly person: Asker;
  readonly undoes: string | null;
}
