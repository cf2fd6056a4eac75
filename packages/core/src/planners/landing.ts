/** Whether a file can come to lie at a place of a project, and whether something is there. */
import { join, nameOf, parentOf } from '../listing/entry';
import { clashKey, nameFaults } from '../portable/name';
import type { ProjectRules } from '../project/rules';
import type { Coded } from '../result';
import { isElsewhere } from './elsewhere';

export class Landing {
  private readonly folderFaults = new Map<string, Coded | null>();
  private readonly taken = new Map<string, ReadonlySet<string>>();

  /** @param there - names in a folder of the project, as it is now; none where there is no such folder */
  constructor(
    private readonly rules: ProjectRules,
    private readonly there: (folder: string) => readonly string[],
  ) {}

  /** A name that cannot be, in it or in a folder above; a path that is too long; a folder on another volume. */
  faultOf(folder: string, name: string): Coded | null {
    const fault = this.faultOfName(name) ?? this.faultOfFolder(folder);
    if (fault !== null) return fault;
    const length = this.rules.before + join(folder, name).length;
    return length > this.rules.budget
      ? { code: 'path-over-budget', params: { found: length, limit: this.rules.budget } }
      : null;
  }

  isTaken(to: string): boolean {
    const folder = parentOf(to);
    const known = this.taken.get(folder);
    const names = known ?? new Set(this.there(folder).map(clashKey));
    if (known === undefined) this.taken.set(folder, names);
    return names.size > 0 && names.has(clashKey(nameOf(to)));
  }

  private faultOfName(name: string): Coded | null {
    const fault = nameFaults(name, this.rules.profiles).find((f) => f.weight === 'refused');
    return fault === undefined ? null : { code: fault.code, params: fault.params };
  }

  private faultOfFolder(folder: string): Coded | null {
    if (folder === '') return null;
    const known = this.folderFaults.get(folder);
    if (known !== undefined) return known;
    const away = isElsewhere(this.rules, folder) ? { code: 'folder-elsewhere', params: { folder } } : null;
    const fault = this.faultOfName(nameOf(folder)) ?? away ?? this.faultOfFolder(parentOf(folder));
    this.folderFaults.set(folder, fault);
    return fault;
  }
}
