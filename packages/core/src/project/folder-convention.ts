import type { NameContext } from '../name/mend/costs';
import type { Reading } from '../name/pattern/field';
import type { CompiledConvention } from '../name/pattern/ops';
import type { Convention } from '../template/node';

/** A convention as it holds in one folder. */
export interface FolderConvention {
  readonly convention: Convention;
  readonly strict: CompiledConvention;
  /** The same with any project's number and client, to recognise a foreign name. */
  readonly foreign: CompiledConvention | null;
  /** Values a name must carry here: the project's number and client, the entries of the folder. */
  readonly bound: Reading;
  readonly context: NameContext;
  /** Extensions it is for; `null` for any. */
  readonly extensions: ReadonlySet<string> | null;
}
