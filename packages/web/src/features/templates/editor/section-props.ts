/** What each section of the selected folder's form is given. */
import type { FolderNode, Template } from '@nesting/core/template';

export type SetFolder = (change: Partial<FolderNode>, what?: string | null) => void;

export interface SectionProps {
  readonly template: Template;
  readonly node: FolderNode;
  readonly readOnly: boolean;
  /** `what` names what is being typed, so that one undo takes all of it back. */
  readonly set: SetFolder;
}
