/** Families of what a plan brings, with their bytes; choosing one shows its files alone. */
import type { FamilyTotal } from '@nesting/core/planners';
import { size } from '../app/words';
import { FilterList, FilterRow } from './filter-list';

interface Props {
  readonly label: string;
  readonly families: readonly FamilyTotal[];
  /** Empty for files of no family; `null` for all. */
  readonly chosen: string | null;
  /** As it stands in the address. */
  readonly onChoose: (family: string | null) => void;
}

export function FamilyFilter({ label, families, chosen, onChoose }: Props) {
  if (families.length < 2) return null;
  return (
    <FilterList label={label}>
      {families.map(({ family, files, bytes }) => (
        <FilterRow
          key={family ?? '-'}
          words={family ?? 'Other files'}
          note={size(bytes)}
          of={files}
          chosen={chosen === (family ?? '')}
          onChoose={() => onChoose(chosen === (family ?? '') ? null : (family ?? '-'))}
        />
      ))}
    </FilterList>
  );
}
