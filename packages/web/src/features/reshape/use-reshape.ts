/**
 * The state of a change of a project while it is written: what is asked for, what that does on the disk, and the acts.
 */
import type { ProjectPage, ReshapePlan, TemplateRow } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { compileTemplate, type Template } from '@nesting/core/template';
import { useEffect, useMemo } from 'react';
import { useNavigate } from 'react-router';
import { troubleOf } from '../../app/api';
import { useRequestKey } from '../../app/request-key';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { useDebounced } from '../../app/use-debounced';
import { useDraft } from '../../app/use-draft';
import { changesApi } from '../batches/changes-api';
import { templatesApi } from '../templates/templates-api';
import { askedOf, entriesIn, isSameWish, reshapes, type Wish, wishOf, withEntries } from './reshape-slice';

export interface ReshapeInput {
  readonly project: ProjectPage;
  readonly registers: Registers;
  readonly templates: readonly TemplateRow[];
  readonly draft: Wish | null;
}

/** What is asked for, kept as it is written. */
function useWish({ project, draft }: ReshapeInput) {
  const { id } = project;
  const [params, put] = useAddress();
  const [keep] = changesApi.useKeepReshapeMutation();
  const start = useMemo(() => wishOf(project), [project]);
  const kept = useMemo((): Wish | null => (draft === null ? null : { ...start, ...draft }), [draft, start]);
  const { editing, change } = useDraft<Wish>({
    id,
    start: kept ?? start,
    version: kept === null ? 0 : 1,
    mayWrite: true,
    actions: reshapes,
    select: (s) => s.reshapes[id],
    save: async (wish) => {
      await keep({ id, asked: askedOf(wish, project.version) }).unwrap();
      return 1;
    },
    onSaved: () => undefined,
  });
  const wish = editing?.now ?? kept ?? start;
  useAdded(params.get('add'), params.get('to'), wish, () => put({ add: null, to: null }), change, editing !== null);
  return { wish, change, nothing: isSameWish(wish, start) };
}

/** What the wish does on the disk; asked for a moment after the last key. */
function useReshapePlan(id: string, asked: ReturnType<typeof askedOf>) {
  const late = useDebounced(asked, 250);
  const { currentData, data, error, isFetching } = changesApi.usePlanReshapeQuery(
    { id, asked: late },
    { refetchOnMountOrArgChange: true, pollingInterval: 20_000 },
  );
  const plan: ReshapePlan | undefined = error ? undefined : (currentData ?? data);
  return {
    plan,
    trouble: error ? troubleOf(error) : null,
    isReady: plan !== undefined && plan.refused.length === 0 && !isFetching && late === asked,
  };
}

export type Reshape = NonNullable<ReturnType<typeof useReshape>>;

/** `null` while the rules that are asked for are not here yet. */
export function useReshape(input: ReshapeInput) {
  const { project, registers, templates } = input;
  const { id } = project;
  const go = useNavigate();
  const dispatch = useAppDispatch();
  const { wish, change, nothing } = useWish(input);
  const { body, editions } = useTemplate(project, wish, templates);
  const asked = useMemo(() => askedOf(wish, project.version), [wish, project.version]);
  const { plan, trouble, isReady } = useReshapePlan(id, asked);
  const [keep] = changesApi.useKeepReshapeMutation();
  const keyFor = useRequestKey();
  const [apply, applying] = changesApi.useApplyReshapeMutation();
  const expander = useMemo(
    () => (body === null ? null : compileTemplate({ ...body, adjusted: wish.adjusted }, registers)),
    [body, wish.adjusted, registers],
  );
  const expansion = useMemo(() => expander?.expand(wish.values) ?? null, [expander, wish.values]);
  const close = async (to: string) => {
    dispatch(reshapes.closed(id));
    await keep({ id, asked: null });
    await go(to);
  };
  const carryOut = async () => {
    if (plan === undefined) return;
    const done = await apply({
      id,
      asked,
      fingerprint: plan.fingerprint,
      key: keyFor({ asked, fingerprint: plan.fingerprint }),
    })
      .unwrap()
      .catch(() => null);
    if (done === null) return;
    const page = `/projects/${id}/batches?batch=${done.batch}`;
    // What still goes on may be refused yet: what was asked for stays as it is written.
    await (done.isDone ? close(page) : go(page));
  };
  if (expansion === null || body === null) return null;
  return {
    id,
    wish,
    change,
    nothing,
    body,
    editions,
    expansion,
    asked,
    plan,
    trouble: applying.isError ? troubleOf(applying.error) : trouble,
    mayApply: isReady && !nothing && !applying.isLoading,
    isApplying: applying.isLoading,
    throwAway: () => close(`/projects/${id}`),
    carryOut,
  };
}

/** One click on a project's page adds an entry, or asks for an edition: it comes in the address, and is taken once. */
function useAdded(
  add: string | null,
  edition: string | null,
  wish: Wish,
  taken: () => void,
  change: (wish: Wish, what: null) => void,
  ready: boolean,
): void {
  useEffect(() => {
    if (edition !== null && ready && Number(edition) > 0) {
      if (wish.edition !== Number(edition)) change({ ...wish, edition: Number(edition) }, null);
      taken();
    }
    if (add === null || !ready) return;
    const [list = '', entry = '', outer] = add.split(':');
    const entries = entriesIn(wish.values[list], outer ?? null);
    if (!entries.includes(entry))
      change({ ...wish, values: withEntries(wish.values, list, outer ?? null, [...entries, entry]) }, null);
    taken();
  }, [add, edition, ready]);
}

/** The rules of the edition that is asked for; the project's own while it is the same. */
function useTemplate(
  project: ProjectPage,
  wish: Wish,
  templates: readonly TemplateRow[],
): { readonly body: Template | null; readonly editions: readonly number[] } {
  const { data } = templatesApi.useEditionsQuery(wish.template);
  const same = wish.template === project.template.id && wish.edition === project.template.edition;
  const body = same
    ? project.body
    : (data?.find((e) => e.edition === wish.edition)?.template ??
      templates.find((t) => t.id === wish.template && t.edition === wish.edition)?.template ??
      null);
  const editions = useMemo(
    () => [...new Set([wish.edition, ...(data ?? []).map((e) => e.edition)])].sort((a, b) => b - a),
    [data, wish.edition],
  );
  return { body, editions };
}
