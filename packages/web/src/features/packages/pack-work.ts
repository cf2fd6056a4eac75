/**
 * The state of a package that is planned: what was said of it, what goes by that, and its making. What was said is kept
 * in this browser until then; what is looked at stands in the address.
 */
import { type PackPlan, type PackRequest, type ProjectPage, selectionSchema } from '@nesting/contract';
import { PACKAGE_KINDS, type PackageKind } from '@nesting/core/package';
import { type Selection, WHOLE_PROJECT } from '@nesting/core/planners';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { troubleOf } from '../../app/api';
import { useKept } from '../../app/kept';
import { useRequestKey } from '../../app/request-key';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { packagesApi } from './packages-api';

export interface Said {
  readonly selection: Selection;
  readonly kind: PackageKind;
  readonly isSideBySide: boolean;
  readonly purpose: 'handover' | 'archive';
  /** `null` until somebody chooses one. */
  readonly volume: string | null;
  readonly folder: string;
  /** Empty for the name that is proposed. */
  readonly name: string;
  readonly recipient: string;
  readonly note: string;
}

const saidSchema: z.ZodType<Said> = z.object({
  selection: selectionSchema,
  kind: z.enum(PACKAGE_KINDS),
  isSideBySide: z.boolean(),
  purpose: z.enum(['handover', 'archive']),
  volume: z.string().nullable(),
  folder: z.string(),
  name: z.string(),
  recipient: z.string(),
  note: z.string(),
});

const UNSAID: Said = {
  selection: { ...WHOLE_PROJECT, comes: 'current' },
  kind: 'zip',
  isSideBySide: false,
  purpose: 'handover',
  volume: null,
  folder: 'packages',
  name: '',
  recipient: '',
  note: '',
};

/** On an archive everything is kept, for the house itself. */
export const FOR_THE_SHELF: Partial<Said> = {
  purpose: 'archive',
  kind: 'bag-zip',
  isSideBySide: false,
  selection: { ...WHOLE_PROJECT, isForOutsiders: false },
};
export const FOR_SOMEBODY: Partial<Said> = { purpose: 'handover', kind: 'zip', selection: UNSAID.selection };

export interface PackWork {
  readonly project: ProjectPage;
  readonly params: URLSearchParams;
  readonly put: ReturnType<typeof useAddress>[1];
  readonly said: Said;
  readonly say: (changes: Partial<Said>) => void;
  readonly select: (changes: Partial<Selection>) => void;
  /** Whether paths go; `undefined` takes back what was said. */
  readonly pick: (changes: Readonly<Record<string, boolean | undefined>>) => void;
  readonly plan: PackPlan | undefined;
  readonly isPlanning: boolean;
  readonly trouble: string | null;
  readonly isReady: boolean;
  readonly isAsking: boolean;
  readonly carryOut: () => Promise<void>;
}

/** @param volume - that it is written on */
export function usePackWork(
  project: ProjectPage,
  volume: string | null,
  [said, keep]: ReturnType<typeof usePackSaid>,
): PackWork {
  const { id } = project;
  const go = useNavigate();
  const [params, put] = useAddress();
  const wanted = bodyOf(said);
  const key = JSON.stringify(wanted);
  const asked = useDebounced(key, 250);
  const { data, error, isFetching } = packagesApi.usePlanPackQuery(
    { id, asked: JSON.parse(asked) as PackRequest },
    { refetchOnMountOrArgChange: true },
  );
  const [apply, applying] = packagesApi.useApplyPackMutation();
  const keyFor = useRequestKey();
  const plan = error ? undefined : data;
  const isPlanning = isFetching || asked !== key;
  const carryOut = async () => {
    if (plan === undefined || volume === null) return;
    const { isSideBySide, purpose, folder, recipient, note, name } = said;
    const request = {
      ...{ id, ...wanted, isSideBySide, purpose, recipient, note, volume, fingerprint: plan.fingerprint },
      ...{ folder: folder.replace(/^\/+|\/+$/g, ''), name: name.trim() || plan.name },
    };
    const made = await apply({ ...request, key: keyFor(request) })
      .unwrap()
      .catch(() => null);
    if (made === null) return;
    keep(UNSAID);
    await go(`/packages?package=${made.id}`);
  };
  const failed = applying.error ?? error;
  const say = (changes: Partial<Said>) => keep({ ...said, ...changes });
  const select = (changes: Partial<Selection>) => say({ selection: { ...said.selection, ...changes } });
  return {
    ...{ project, params, put, said, say, select, plan, isPlanning, carryOut },
    pick: (changes) => {
      const all: [string, boolean | undefined][] = Object.entries({ ...said.selection.picked, ...changes });
      select({ picked: Object.fromEntries(all.flatMap(([path, goes]) => (goes === undefined ? [] : [[path, goes]]))) });
    },
    trouble: failed === undefined ? null : troubleOf(failed),
    isReady: plan !== undefined && plan.files > 0 && volume !== null && !isPlanning && !applying.isLoading,
    isAsking: applying.isLoading,
  };
}

const bodyOf = ({ selection, kind }: Said) => ({
  selection: { ...selection, take: [...selection.take], leave: [...selection.leave] },
  kind,
});

/** What of it any project of its template can be packed by. */
export function wayOfSaid({ selection, kind, isSideBySide, purpose }: Said) {
  const { picked: _picked, document: _document, ...rest } = selection;
  return { selection: { ...rest, take: [...rest.take], leave: [...rest.leave] }, kind, isSideBySide, purpose };
}

export const usePackSaid = (project: string) => useKept(`nesting-pack-${project}`, saidSchema, UNSAID);
