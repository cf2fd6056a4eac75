/** Words that lines are found by, and how they are grouped. */
import { Choose, TextInput } from '../ui';

interface Props<G extends string> {
  readonly find: string;
  readonly onFind: (words: string) => void;
  /** What is grouped, for whoever hears it. */
  readonly label: string;
  readonly group: string;
  readonly groups: readonly { readonly value: G; readonly label: string }[];
  readonly onGroup: (group: G) => void;
}

export function FindAndGroup<G extends string>({ find, onFind, label, group, groups, onGroup }: Props<G>) {
  return (
    <div className="flex gap-2">
      <TextInput
        aria-label="Part of a name or a folder"
        placeholder="Name or folder"
        value={find}
        onChange={(e) => onFind(e.target.value)}
        className="min-w-0 flex-1"
      />
      <span className="w-28">
        <Choose label={label} value={group} options={groups} onChange={onGroup} />
      </span>
    </div>
  );
}
