/** What the server says, cached by RTK Query. Types come from the contract alone. */
import type {
  ActivityPage,
  ActivityQuery,
  ActivityRow,
  AdoptRequest,
  AskName,
  BatchPage,
  BatchRow,
  BlockBody,
  BlockEditionRow,
  BlockInForce,
  BlockRow,
  CheckRow,
  ChecksOfProject,
  ConventionImpact,
  ConventionRow,
  CopyPlace,
  EditionRow,
  EditProject,
  Entrance,
  ExceptionRow,
  FindingList,
  FindingRow,
  Fits,
  FolderChoice,
  FolderCount,
  FolderFiles,
  FolderSign,
  FoundProject,
  HandedIn,
  HeldName,
  Hold,
  HoldRequest,
  Imported,
  Invite,
  Invited,
  KeyRow,
  LinkFound,
  ListEntryRow,
  ListingText,
  Look,
  MailRow,
  Making,
  Me,
  NumberPage,
  Overview,
  PersonFindings,
  PersonRow,
  Prefixes,
  ProjectList,
  ProjectNames,
  ProjectOrder,
  ProjectPage,
  ProjectRow,
  PutBlockInForce,
  Refusal,
  ReshapePlan,
  ReshapeRequest,
  RuleChoices,
  RuleSetRow,
  RulesTaken,
  SessionRow,
  StarterRow,
  StartRequest,
  TemplateImpactRow,
  TemplateRow,
  VolumeRow,
  WhoRow,
} from '@nesting/contract';
import type { Cells, ListName } from '@nesting/core/lists';
import type { Registers } from '@nesting/core/name';
import type { NumberSeries } from '@nesting/core/numbers';
import type { Convention, FolderNode, Template } from '@nesting/core/template';
import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** Lists that are edited entry by entry; people have ways of their own. */
export type EditableList = Exclude<ListName, 'people'>;

/** A query's part of an address; what has no value is left out. */
export const addressOf = (query: Readonly<Record<string, string | number | null | undefined>>): string =>
  new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) =>
      value === undefined || value === null || value === '' ? [] : [[key, String(value)]],
    ),
  ).toString();

function formOf(parts: Readonly<Record<string, Blob | string>>): FormData {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts)) form.append(name, part);
  return form;
}

const fetchJson = fetchBaseQuery({ baseUrl: '/api' });

/** Where a session has ended meanwhile, who is there is asked again: the sign-in page comes, and what was typed stays. */
const fetchOrSignOut: typeof fetchJson = async (request, context, extra) => {
  const result = await fetchJson(request, context, extra);
  if (result.error?.status === 401 && context.endpoint !== 'me' && context.endpoint !== 'signIn')
    context.dispatch({ type: SESSION_ENDED });
  return result;
};
export const SESSION_ENDED = 'session/ended';

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchOrSignOut,
  tagTypes: [
    'me',
    'projects',
    'checks',
    'templates',
    'conventions',
    'blocks',
    'registers',
    'starters',
    'volumes',
    'numbers',
    'people',
    'keys',
    'sessions',
    'activity',
    'outbox',
    'batches',
    'findings',
  ],
  endpoints: (build) => ({
    entrance: build.query<Entrance, void>({ query: () => 'entrance' }),
    me: build.query<Me, void>({ query: () => 'me', providesTags: ['me'] }),
    demoSignIn: build.mutation<unknown, string>({
      query: (initials) => ({ url: 'demo/sign-in', method: 'POST', body: { initials } }),
      invalidatesTags: (_, error) => (error === undefined ? ['me'] : []),
    }),
    signIn: build.mutation<unknown, { email: string; password: string }>({
      query: (body) => ({ url: 'auth/sign-in/email', method: 'POST', body }),
      invalidatesTags: (_, error) => (error === undefined ? ['me'] : []),
    }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'auth/sign-out', method: 'POST', body: {} }) }),
    templates: build.query<TemplateRow[], void>({ query: () => 'templates', providesTags: ['templates'] }),
    newTemplate: build.mutation<
      { id: string },
      {
        template: unknown;
        from?: { template: string; edition: number };
        starters?: readonly { path: string; base64: string }[];
      }
    >({ query: (body) => ({ url: 'templates', method: 'POST', body }), invalidatesTags: ['templates'] }),
    lookAtRules: build.mutation<RuleSetRow[], File>({
      query: (file) => ({
        url: 'rules/look',
        method: 'POST',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    }),
    takeRules: build.mutation<RulesTaken, { file: File; choices: RuleChoices }>({
      query: ({ file, choices }) => ({
        url: 'rules/take',
        method: 'POST',
        body: formOf({ file, choices: JSON.stringify(choices) }),
      }),
      invalidatesTags: [
        'templates',
        'conventions',
        'blocks',
        'registers',
        'starters',
        'volumes',
        'numbers',
        'people',
        'keys',
        'sessions',
        'activity',
        'outbox',
      ],
    }),
    blocks: build.query<BlockRow[], void>({ query: () => 'blocks', providesTags: ['blocks'] }),
    blockEditions: build.query<BlockEditionRow[], string>({
      query: (id) => `blocks/${encodeURIComponent(id)}/editions`,
      providesTags: ['blocks'],
    }),
    shareBlock: build.mutation<
      { id: string; edition: number; folders: readonly FolderNode[] },
      { template: string; body: BlockBody }
    >({ query: (body) => ({ url: 'blocks', method: 'POST', body }), invalidatesTags: ['blocks'] }),
    keepBlock: build.mutation<{ version: number }, { id: string; body: BlockBody; version: number }>({
      query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'PUT', body }),
    }),
    discardBlock: build.mutation<void, string>({
      query: (id) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['blocks'],
    }),
    putBlockInForce: build.mutation<BlockInForce, PutBlockInForce & { id: string }>({
      query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/editions`, method: 'POST', body }),
      invalidatesTags: ['blocks', 'templates'],
    }),
    putBlockStarter: build.mutation<void, { id: string; path: string; file: File }>({
      query: ({ id, path, file }) => ({
        url: `blocks/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'PUT',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
    }),
    keepTemplate: build.mutation<{ version: number }, { template: Template; version: number }>({
      query: (body) => ({ url: `templates/${encodeURIComponent(body.template.id)}/draft`, method: 'PUT', body }),
    }),
    discardTemplate: build.mutation<void, string>({
      query: (id) => ({ url: `templates/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['templates'],
    }),
    putTemplateInForce: build.mutation<{ edition: number }, { id: string; version: number; said: string }>({
      query: ({ id, ...body }) => ({ url: `templates/${encodeURIComponent(id)}/editions`, method: 'POST', body }),
      invalidatesTags: ['templates', 'conventions'],
    }),
    editions: build.query<EditionRow[], string>({
      query: (id) => `templates/${encodeURIComponent(id)}/editions`,
      providesTags: ['templates'],
    }),
    templateImpact: build.query<TemplateImpactRow[], Template>({
      query: (template) => ({
        url: `templates/${encodeURIComponent(template.id)}/impact`,
        method: 'POST',
        body: { template },
      }),
      keepUnusedDataFor: 10,
    }),
    archiveTemplate: build.mutation<void, { id: string; archived: boolean }>({
      query: ({ id, archived }) => ({
        url: `templates/${encodeURIComponent(id)}/archive`,
        method: 'POST',
        body: { archived },
      }),
      invalidatesTags: ['templates'],
    }),
    starters: build.query<StarterRow[], string>({
      query: (id) => `templates/${encodeURIComponent(id)}/starters`,
      providesTags: ['starters'],
    }),
    dropStarter: build.mutation<void, { id: string; path: string }>({
      query: ({ id, path }) => ({
        url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'DELETE',
      }),
      invalidatesTags: ['starters'],
    }),
    putStarter: build.mutation<void, { id: string; path: string; file: File }>({
      query: ({ id, path, file }) => ({
        url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`,
        method: 'PUT',
        body: file,
        headers: { 'content-type': 'application/octet-stream' },
      }),
      invalidatesTags: ['starters'],
    }),
    conventions: build.query<ConventionRow[], void>({ query: () => 'conventions', providesTags: ['conventions'] }),
    newConvention: build.mutation<{ id: string }, Omit<Convention, 'id'>>({
      query: (convention) => ({ url: 'conventions', method: 'POST', body: { convention } }),
      invalidatesTags: ['conventions'],
    }),
    keepDraft: build.mutation<{ version: number }, { convention: Convention; version: number }>({
      query: (body) => ({ url: `conventions/${encodeURIComponent(body.convention.id)}/draft`, method: 'PUT', body }),
    }),
    discardDraft: build.mutation<void, string>({
      query: (id) => ({ url: `conventions/${encodeURIComponent(id)}/draft`, method: 'DELETE' }),
      invalidatesTags: ['conventions'],
    }),
    putInForce: build.mutation<{ edition: number }, { id: string; version: number }>({
      query: ({ id, version }) => ({
        url: `conventions/${encodeURIComponent(id)}/editions`,
        method: 'POST',
        body: { version },
      }),
      invalidatesTags: ['conventions', 'templates'],
    }),
    conventionImpact: build.query<ConventionImpact, Convention>({
      query: (convention) => ({
        url: `conventions/${encodeURIComponent(convention.id)}/impact`,
        method: 'POST',
        body: { convention },
      }),
      keepUnusedDataFor: 10,
    }),
    projectNames: build.query<ProjectNames, { project: string; convention: string }>({
      query: ({ project, convention }) => `projects/${project}/names?convention=${encodeURIComponent(convention)}`,
      keepUnusedDataFor: 5,
    }),
    volumeFolders: build.query<FolderChoice, { volume: string; path: string }>({
      query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/folders?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
    volumeListing: build.query<ListingText, { volume: string; path: string }>({
      query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/listing?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
    projectListing: build.query<ListingText, string>({ query: (id) => `projects/${id}/listing`, keepUnusedDataFor: 5 }),
    askName: build.mutation<HeldName, AskName & { project: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/names`, method: 'POST', body }),
    }),
    planReshape: build.query<ReshapePlan, { id: string; asked: ReshapeRequest }>({
      query: ({ id, asked }) => ({ url: `projects/${id}/plan`, method: 'POST', body: asked }),
      keepUnusedDataFor: 5,
    }),
    applyReshape: build.mutation<{ batch: string }, { id: string; asked: ReshapeRequest; print: string }>({
      query: ({ id, asked, print }) => ({ url: `projects/${id}/batches`, method: 'POST', body: { ...asked, print } }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
    }),
    reshapeDraft: build.query<Omit<Required<ReshapeRequest>, never> | null, string>({
      query: (id) => `projects/${id}/reshape`,
      keepUnusedDataFor: 0,
    }),
    keepReshape: build.mutation<void, { id: string; asked: ReshapeRequest | null }>({
      query: ({ id, asked }) => ({
        url: `projects/${id}/reshape`,
        method: 'PUT',
        body: JSON.stringify(asked),
        headers: { 'content-type': 'application/json' },
      }),
    }),
    batches: build.query<BatchRow[], string>({ query: (id) => `projects/${id}/batches`, providesTags: ['batches'] }),
    batch: build.query<BatchPage, { project: string; batch: string }>({
      query: ({ project, batch }) => `projects/${project}/batches/${batch}`,
      keepUnusedDataFor: 5,
      providesTags: ['batches'],
    }),
    undoBatch: build.mutation<{ batch: string }, { project: string; batch: string; keys: readonly string[] | null }>({
      query: ({ project, batch, keys }) => ({
        url: `projects/${project}/batches/${batch}/undo`,
        method: 'POST',
        body: { keys },
      }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
    }),
    settleBatch: build.mutation<void, { project: string; batch: string; way: 'finish' | 'take-back' }>({
      query: ({ project, batch, way }) => ({
        url: `projects/${project}/batches/${batch}/settle`,
        method: 'POST',
        body: { way },
      }),
      invalidatesTags: ['projects', 'checks', 'activity', 'batches', 'numbers'],
    }),
    stopBatch: build.mutation<void, { project: string; batch: string }>({
      query: ({ project, batch }) => ({ url: `projects/${project}/batches/${batch}/stop`, method: 'POST', body: {} }),
    }),
    fits: build.query<Fits, { volume: string; folder: string }>({
      query: (body) => ({ url: 'adopt/fits', method: 'POST', body }),
      keepUnusedDataFor: 30,
    }),
    adopt: build.mutation<ProjectRow, AdoptRequest>({
      query: (body) => ({ url: 'adopt', method: 'POST', body }),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
    copies: build.query<CopyPlace[], string>({ query: (id) => `projects/${id}/copies`, keepUnusedDataFor: 0 }),
    ownCopy: build.mutation<ProjectRow, { project: string; volume: string; folder: string; number: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/copies/own`, method: 'POST', body }),
      invalidatesTags: ['projects', 'activity', 'numbers'],
    }),
    leaveCopy: build.mutation<void, { project: string; volume: string; folder: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/copies/leave`, method: 'POST', body }),
      invalidatesTags: ['activity'],
    }),
    registers: build.query<Registers, void>({ query: () => 'registers', providesTags: ['registers'] }),
    volumes: build.query<VolumeRow[], void>({ query: () => 'volumes', providesTags: ['volumes'] }),
    list: build.query<ListEntryRow[], EditableList>({ query: (list) => `lists/${list}`, providesTags: ['registers'] }),
    /** The beginning of a list: shown while all of it is on its way. */
    listHead: build.query<ListEntryRow[], EditableList>({
      query: (list) => `lists/${list}?head`,
      providesTags: ['registers'],
    }),
    addEntry: build.mutation<ListEntryRow, { list: EditableList; cells: Cells }>({
      query: ({ list, cells }) => ({ url: `lists/${list}`, method: 'POST', body: { cells } }),
      invalidatesTags: ['registers', 'activity'],
    }),
    saveEntry: build.mutation<ListEntryRow, { list: EditableList; key: string; cells: Cells; version: number }>({
      query: ({ list, key, ...body }) => ({ url: `lists/${list}/${encodeURIComponent(key)}`, method: 'PUT', body }),
      invalidatesTags: ['registers', 'activity'],
    }),
    removeEntry: build.mutation<void, { list: EditableList; key: string }>({
      query: ({ list, key }) => ({ url: `lists/${list}/${encodeURIComponent(key)}`, method: 'DELETE' }),
      invalidatesTags: ['registers', 'activity'],
    }),
    mergeEntries: build.mutation<void, { list: EditableList; from: string; into: string }>({
      query: ({ list, ...body }) => ({ url: `lists/${list}/merge`, method: 'POST', body }),
      invalidatesTags: ['registers', 'projects', 'activity'],
    }),
    importEntries: build.mutation<
      Imported,
      { list: EditableList; table: readonly (readonly string[])[]; lines: readonly number[] }
    >({
      query: ({ list, ...body }) => ({ url: `lists/${list}/import`, method: 'POST', body }),
      invalidatesTags: ['registers', 'activity'],
    }),
    entryHistory: build.query<ActivityRow[], { list: ListName; key: string }>({
      query: ({ list, key }) => `lists/${list}/${encodeURIComponent(key)}/history`,
      providesTags: ['activity'],
    }),
    numbers: build.query<NumberPage, string | null>({
      query: (scope) => `numbers${scope === null ? '' : `?scope=${encodeURIComponent(scope)}`}`,
      providesTags: ['numbers'],
    }),
    saveSeries: build.mutation<void, { series: NumberSeries; version: number }>({
      query: (body) => ({ url: 'numbers/series', method: 'PUT', body }),
      invalidatesTags: ['numbers'],
    }),
    reserveNumber: build.mutation<void, { number: string; why: string }>({
      query: (body) => ({ url: 'numbers/reserved', method: 'POST', body }),
      invalidatesTags: ['numbers'],
    }),
    releaseNumber: build.mutation<void, string>({
      query: (number) => ({ url: `numbers/reserved/${encodeURIComponent(number)}`, method: 'DELETE' }),
      invalidatesTags: ['numbers'],
    }),
    giveBackNumber: build.mutation<void, string>({
      query: (number) => ({ url: `numbers/hold/${encodeURIComponent(number)}`, method: 'DELETE' }),
    }),
    people: build.query<PersonRow[], void>({ query: () => 'people', providesTags: ['people'] }),
    invite: build.mutation<Invited, Invite>({
      query: (body) => ({ url: 'people', method: 'POST', body }),
      invalidatesTags: ['people', 'registers', 'outbox'],
    }),
    savePerson: build.mutation<void, Invite & { id: string; version: number }>({
      query: ({ id, ...body }) => ({ url: `people/${id}`, method: 'PUT', body }),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    linkPerson: build.mutation<Invited, string>({
      query: (id) => ({ url: `people/${id}/link`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'outbox'],
    }),
    leavePerson: build.mutation<void, string>({
      query: (id) => ({ url: `people/${id}/leave`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'registers', 'activity'],
    }),
    returnPerson: build.mutation<Invited, string>({
      query: (id) => ({ url: `people/${id}/return`, method: 'POST', body: {} }),
      invalidatesTags: ['people', 'registers', 'outbox', 'activity'],
    }),
    link: build.query<LinkFound, string>({
      query: (token) => ({ url: 'access/link', method: 'POST', body: { token } }),
    }),
    acceptLink: build.mutation<
      { email: string },
      { token: string; password: string; first?: { name: string; email: string; initials: string } }
    >({ query: (body) => ({ url: 'access/accept', method: 'POST', body }) }),
    forgot: build.mutation<void, string>({
      query: (email) => ({ url: 'access/forgot', method: 'POST', body: { email } }),
    }),
    changePassword: build.mutation<void, { old: string; password: string }>({
      query: (body) => ({ url: 'me/password', method: 'POST', body }),
      invalidatesTags: ['sessions'],
    }),
    keys: build.query<KeyRow[], void>({ query: () => 'me/keys', providesTags: ['keys'] }),
    makeKey: build.mutation<{ key: string }, { name: string; days: number | null }>({
      query: (body) => ({ url: 'me/keys', method: 'POST', body }),
      invalidatesTags: ['keys'],
    }),
    dropKey: build.mutation<void, string>({
      query: (id) => ({ url: `me/keys/${id}`, method: 'DELETE' }),
      invalidatesTags: ['keys'],
    }),
    sessions: build.query<SessionRow[], void>({ query: () => 'me/sessions', providesTags: ['sessions'] }),
    endSession: build.mutation<void, string>({
      query: (id) => ({ url: `me/sessions/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['sessions'],
    }),
    savePrefixes: build.mutation<void, Prefixes & { volume: string }>({
      query: ({ volume, ...body }) => ({ url: `volumes/${encodeURIComponent(volume)}/prefixes`, method: 'PUT', body }),
      invalidatesTags: ['volumes'],
    }),
    foundProjects: build.query<FoundProject[], void>({ query: () => 'volumes/projects', keepUnusedDataFor: 0 }),
    relink: build.mutation<void, { project: string; volume: string; folder: string }>({
      query: (body) => ({ url: 'volumes/relink', method: 'POST', body }),
      invalidatesTags: ['projects', 'volumes'],
    }),
    activity: build.infiniteQuery<ActivityPage, ActivityQuery, number | null>({
      infiniteQueryOptions: {
        initialPageParam: null,
        getNextPageParam: (last) => (last.more ? (last.rows.at(-1)?.id ?? null) : undefined),
      },
      query: ({ queryArg, pageParam }) =>
        `activity?${addressOf({ ...queryArg, before: pageParam ?? undefined, short: pageParam === null ? 'yes' : undefined })}`,
      providesTags: ['activity'],
    }),
    outbox: build.query<MailRow[], void>({ query: () => 'outbox', providesTags: ['outbox'] }),
    holdNumber: build.mutation<Hold, HoldRequest>({ query: (body) => ({ url: 'numbers/hold', method: 'POST', body }) }),
    /** A page of projects, and how many there are in each state; pages follow as one scrolls. */
    projects: build.infiniteQuery<ProjectList, ProjectsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, _all, from) => (last.more ? from + last.rows.length : undefined),
      },
      query: ({ queryArg, pageParam }) => `projects?${addressOf({ ...queryArg, from: pageParam, limit: 80 })}`,
      providesTags: ['projects'],
    }),
    /** A few projects by words, to choose one of them. */
    someProjects: build.query<readonly ProjectRow[], string>({
      query: (find) => `projects?${addressOf({ find, limit: 100 })}`,
      transformResponse: (list: ProjectList) => list.rows,
      providesTags: ['projects'],
    }),
    editProject: build.mutation<void, EditProject & { id: string }>({
      query: ({ id, ...body }) => ({ url: `projects/${id}`, method: 'PUT', body }),
      invalidatesTags: ['projects', 'activity'],
    }),
    pinProject: build.mutation<void, { id: string; pinned?: boolean }>({
      query: ({ id, ...body }) => ({ url: `me/projects/${id}`, method: 'POST', body }),
      invalidatesTags: (_r, _e, { pinned }) => (pinned === undefined ? [] : ['projects']),
    }),
    tickFirstDay: build.mutation<void, { id: string; place: number; done: boolean }>({
      query: ({ id, place, done }) => ({ url: `projects/${id}/first-day/${place}`, method: 'POST', body: { done } }),
      invalidatesTags: ['projects'],
    }),
    givePicture: build.mutation<void, { id: string; file: File | null }>({
      query: ({ id, file }) => ({
        url: `projects/${id}/picture`,
        method: 'PUT',
        body: file ?? new Blob(),
        headers: { 'content-type': 'application/octet-stream' },
      }),
      invalidatesTags: ['projects'],
    }),
    making: build.query<Making, string>({ query: (watch) => `projects/making/${watch}`, keepUnusedDataFor: 0 }),
    pathsThere: build.query<readonly string[], { volume: string; folder: string; paths: readonly string[] }>({
      query: (body) => ({ url: 'projects/there', method: 'POST', body }),
      keepUnusedDataFor: 5,
    }),
    project: build.query<ProjectPage, string>({ query: (id) => `projects/${id}`, providesTags: ['projects'] }),
    startProject: build.mutation<ProjectRow, StartRequest>({
      query: (body) => ({ url: 'projects', method: 'POST', body }),
      invalidatesTags: ['projects', 'templates'],
    }),
    look: build.query<Look, { number: string; volume: string; folder: string }>({
      query: (body) => ({ url: 'projects/look', method: 'POST', body }),
      keepUnusedDataFor: 5,
    }),
    checks: build.query<ChecksOfProject, string>({
      query: (project) => `projects/${project}/checks`,
      providesTags: ['checks'],
    }),
    startCheck: build.mutation<CheckRow, string>({
      query: (project) => ({ url: `projects/${project}/checks`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    stopCheck: build.mutation<void, string>({
      query: (check) => ({ url: `checks/${check}/stop`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    goOnCheck: build.mutation<void, string>({
      query: (check) => ({ url: `checks/${check}/go-on`, method: 'POST', body: {} }),
      invalidatesTags: ['checks'],
    }),
    setSchedule: build.mutation<void, { project: string; every: number | null }>({
      query: ({ project, every }) => ({ url: `projects/${project}/schedule`, method: 'PUT', body: { every } }),
      invalidatesTags: ['checks'],
    }),
    /** Tells the server that somebody has this project before their eyes; it looks whether the folder has changed. */
    lookAt: build.mutation<{ check: string | null }, string>({
      query: (project) => ({ url: `me/projects/${project}/look`, method: 'POST', body: {} }),
    }),
    /** Pages of findings follow as one scrolls. */
    findings: build.infiniteQuery<FindingList, FindingsAsked, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: (last, all, from) =>
          last.rows.length > 0 && from + last.rows.length < (all[0]?.total ?? 0) ? from + last.rows.length : undefined,
      },
      query: ({ queryArg: { project, ...asked }, pageParam }) =>
        `projects/${project}/findings?${addressOf({ ...asked, from: pageParam, limit: 200 })}`,
      providesTags: ['findings'],
    }),
    findingsByFolder: build.query<FolderSign[], string>({
      query: (project) => `projects/${project}/findings/by-folder`,
      providesTags: ['findings'],
    }),
    acceptFindings: build.mutation<
      { count: number },
      { project: string; ids: readonly string[]; reason: string; until: string | null }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/accept`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    countAgain: build.mutation<{ count: number }, { project: string; ids: readonly string[] }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/count-again`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    giveFindings: build.mutation<
      { count: number },
      { project: string; ids: readonly string[]; to?: string | null; note?: string }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/findings/give`, method: 'POST', body }),
      invalidatesTags: ['findings', 'activity'],
    }),
    makeBaseline: build.mutation<{ count: number }, { project: string; reason: string }>({
      query: ({ project, ...body }) => ({ url: `projects/${project}/baseline`, method: 'POST', body }),
      invalidatesTags: ['findings', 'checks', 'projects', 'activity'],
    }),
    exceptions: build.query<ExceptionRow[], string | null>({
      query: (project) => `exceptions${project === null ? '' : `?project=${project}`}`,
      providesTags: ['findings'],
    }),
    who: build.query<WhoRow[], void>({ query: () => 'who', providesTags: ['findings'] }),
    listOf: build.query<PersonFindings, string>({
      query: (initials) => `who/${encodeURIComponent(initials)}`,
      providesTags: ['findings'],
    }),
    myFindings: build.query<PersonFindings, void>({ query: () => 'me/findings', providesTags: ['findings'] }),
    sendList: build.mutation<{ sent: boolean }, string>({
      query: (initials) => ({ url: `who/${encodeURIComponent(initials)}/send`, method: 'POST', body: {} }),
      invalidatesTags: ['outbox', 'activity'],
    }),
    linkToList: build.mutation<{ link: string }, string>({
      query: (initials) => ({ url: `who/${encodeURIComponent(initials)}/link`, method: 'POST', body: {} }),
    }),
    yours: build.query<PersonFindings, string>({
      query: (secret) => ({ url: 'yours', method: 'POST', body: { secret } }),
      keepUnusedDataFor: 0,
    }),
    overview: build.query<Overview, void>({ query: () => 'overview', providesTags: ['findings'] }),
    handIn: build.mutation<
      { id: string },
      { project: string; source: string; files: number; folders: number; findings: readonly FindingRow[] }
    >({
      query: ({ project, ...body }) => ({ url: `projects/${project}/handed-in`, method: 'POST', body }),
      invalidatesTags: ['findings', 'activity'],
    }),
    handedIn: build.query<HandedIn[], string>({
      query: (project) => `projects/${project}/handed-in`,
      providesTags: ['findings'],
    }),
    handedInFindings: build.query<FindingRow[], string>({ query: (id) => `handed-in/${id}` }),
    folders: build.query<FolderCount[], string>({
      query: (project) => `projects/${project}/folders`,
      providesTags: ['findings'],
    }),
    folderFiles: build.query<FolderFiles, { project: string; path: string }>({
      query: ({ project, path }) => `projects/${project}/folder?path=${encodeURIComponent(path)}`,
      keepUnusedDataFor: 5,
    }),
  }),
});

/** What findings are asked for by: the address's own words. */
export type FindingsAsked = { readonly project: string } & Readonly<
  Partial<Record<'view' | 'rule' | 'weight' | 'folder' | 'person' | 'find' | 'group', string>>
>;

/** What a page of projects is asked for by. */
export interface ProjectsAsked {
  readonly find: string;
  readonly state: string | null;
  readonly by: ProjectOrder;
  readonly down: 'true' | 'false';
}

/** The sentence to show for a failed request. */
export function troubleOf(error: unknown): string {
  const fault = error as Partial<FetchBaseQueryError> | undefined;
  const refusal = fault?.data as Partial<Refusal> | undefined;
  if (refusal?.message) return refusal.message;
  if (fault?.status === 'FETCH_ERROR')
    return 'The server cannot be reached. Nothing was changed; try again in a moment.';
  return 'The server gave no answer that can be understood. Nothing was changed here; try again in a moment.';
}

export const isSignedOut = (error: unknown): boolean =>
  (error as Partial<FetchBaseQueryError> | undefined)?.status === 401;
