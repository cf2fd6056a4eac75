/** Which findings are looked at stands in the address; they come in pages as one scrolls. */

import {
  FINDING_GROUPS,
  FINDING_VIEWS,
  type FindingGroup,
  type FindingList,
  type FindingView,
  type KeptFinding,
} from '@nesting/contract';
import { present } from '@nesting/core';
import { useMemo } from 'react';
import { findingsApi } from './findings-api';

export interface FindingsShown {
  readonly view: FindingView;
  readonly group: FindingGroup;
  readonly rows: readonly KeptFinding[];
  /** Counts of the first page: the same for all. */
  readonly counted: FindingList | null;
  readonly more: () => void;
  readonly loading: boolean;
  /** Some filter beyond the view is set. */
  readonly filtered: boolean;
}

const FILTERS = ['rule', 'weight', 'folder', 'person', 'find'] as const;

const known = <T extends string>(all: readonly T[], word: string | null, usual: T): T =>
  all.find((w) => w === word) ?? usual;

export function useFindings(project: string, params: URLSearchParams): FindingsShown {
  const view = known(FINDING_VIEWS, params.get('findings'), 'open');
  const group = known(FINDING_GROUPS, params.get('group'), 'cause');
  const asked = useMemo(
    () => ({
      project,
      view,
      group,
      ...Object.fromEntries(FILTERS.flatMap((key) => (params.get(key) ? [[key, present(params.get(key))]] : []))),
    }),
    [project, view, group, params],
  );
  const { data, hasNextPage, fetchNextPage, isFetching } = findingsApi.useFindingsInfiniteQuery(asked);
  const rows = useMemo(() => data?.pages.flatMap((p) => p.rows) ?? [], [data]);
  return {
    view,
    group,
    rows,
    counted: data?.pages[0] ?? null,
    loading: isFetching,
    more: () => {
      if (hasNextPage && !isFetching) void fetchNextPage();
    },
    filtered: FILTERS.some((key) => params.get(key)),
  };
}
