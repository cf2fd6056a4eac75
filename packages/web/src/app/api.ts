/** What the server says, cached by RTK Query. Types come from the contract alone. */
import type { AskName, BlockBody, BlockEditionRow, BlockInForce, BlockRow, CheckRow, ChecksOfProject, ConventionEffect, ConventionRow, EditionRow, Entrance, FindingRow, FolderChoice, FolderCount, FolderFiles, HeldName, Hold, ListingText, Look, Me, ProjectNames, ProjectPage, ProjectRow, PutBlockInForce, Refusal, RuleChoices, RuleSetRow, RulesTaken, StarterRow, StartRequest, TemplateEffectRow, TemplateRow, VolumeRow } from '@nesting/contract';
import type { Convention, FolderNode, Registers, Template } from '@nesting/core';
import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

function formOf(parts: Readonly<Record<string, Blob | string>>): FormData {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts)) form.append(name, part);
  return form;
}

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api' }),
  tagTypes: ['me', 'projects', 'checks', 'templates', 'conventions', 'blocks', 'registers', 'starters'],
  endpoints: (build) => ({
    entrance: build.query<Entrance, void>({ query: () => 'entrance' }),
    me: build.query<Me, void>({ query: () => 'me', providesTags: ['me'] }),
    demoSignIn: build.mutation<unknown, string>({ query: (initials) => ({ url: 'demo/sign-in', method: 'POST', body: { initials } }), invalidatesTags: ['me'] }),
    signIn: build.mutation<unknown, { email: string; password: string }>({ query: (body) => ({ url: 'auth/sign-in/email', method: 'POST', body }), invalidatesTags: ['me'] }),
    signOut: build.mutation<unknown, void>({ query: () => ({ url: 'auth/sign-out', method: 'POST', body: {} }) }),
    templates: build.query<TemplateRow[], void>({ query: () => 'templates', providesTags: ['templates'] }),
    newTemplate: build.mutation<{ id: string }, { template: unknown; from?: { template: string; edition: number }; starters?: readonly { path: string; base64: string }[] }>({ query: (body) => ({ url: 'templates', method: 'POST', body }), invalidatesTags: ['templates'] }),
    lookAtRules: build.mutation<RuleSetRow[], File>({ query: (file) => ({ url: 'rules/look', method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream' } }) }),
    takeRules: build.mutation<RulesTaken, { file: File; choices: RuleChoices }>({ query: ({ file, choices }) => ({ url: 'rules/take', method: 'POST', body: formOf({ file, choices: JSON.stringify(choices) }) }), invalidatesTags: ['templates', 'conventions', 'blocks', 'registers', 'starters'] }),
    blocks: build.query<BlockRow[], void>({ query: () => 'blocks', providesTags: ['blocks'] }),
    blockEditions: build.query<BlockEditionRow[], string>({ query: (id) => `blocks/${encodeURIComponent(id)}/editions`, providesTags: ['blocks'] }),
    shareBlock: build.mutation<{ id: string; edition: number; folders: readonly FolderNode[] }, { template: string; body: BlockBody }>({ query: (body) => ({ url: 'blocks', method: 'POST', body }), invalidatesTags: ['blocks'] }),
    keepBlock: build.mutation<{ version: number }, { id: string; body: BlockBody; version: number }>({ query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'PUT', body }) }),
    discardBlock: build.mutation<void, string>({ query: (id) => ({ url: `blocks/${encodeURIComponent(id)}/draft`, method: 'DELETE' }), invalidatesTags: ['blocks'] }),
    putBlockInForce: build.mutation<BlockInForce, PutBlockInForce & { id: string }>({ query: ({ id, ...body }) => ({ url: `blocks/${encodeURIComponent(id)}/editions`, method: 'POST', body }), invalidatesTags: ['blocks', 'templates'] }),
    putBlockStarter: build.mutation<void, { id: string; path: string; file: File }>({ query: ({ id, path, file }) => ({ url: `blocks/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`, method: 'PUT', body: file, headers: { 'content-type': 'application/octet-stream' } }) }),
    keepTemplate: build.mutation<{ version: number }, { template: Template; version: number }>({ query: (body) => ({ url: `templates/${encodeURIComponent(body.template.id)}/draft`, method: 'PUT', body }) }),
    discardTemplate: build.mutation<void, string>({ query: (id) => ({ url: `templates/${encodeURIComponent(id)}/draft`, method: 'DELETE' }), invalidatesTags: ['templates'] }),
    putTemplateInForce: build.mutation<{ edition: number }, { id: string; version: number; said: string }>({ query: ({ id, ...body }) => ({ url: `templates/${encodeURIComponent(id)}/editions`, method: 'POST', body }), invalidatesTags: ['templates', 'conventions'] }),
    editions: build.query<EditionRow[], string>({ query: (id) => `templates/${encodeURIComponent(id)}/editions`, providesTags: ['templates'] }),
    templateEffect: build.query<TemplateEffectRow[], Template>({ query: (template) => ({ url: `templates/${encodeURIComponent(template.id)}/effect`, method: 'POST', body: { template } }), keepUnusedDataFor: 10 }),
    archiveTemplate: build.mutation<void, { id: string; archived: boolean }>({ query: ({ id, archived }) => ({ url: `templates/${encodeURIComponent(id)}/archive`, method: 'POST', body: { archived } }), invalidatesTags: ['templates'] }),
    starters: build.query<StarterRow[], string>({ query: (id) => `templates/${encodeURIComponent(id)}/starters`, providesTags: ['starters'] }),
    dropStarter: build.mutation<void, { id: string; path: string }>({ query: ({ id, path }) => ({ url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`, method: 'DELETE' }), invalidatesTags: ['starters'] }),
    putStarter: build.mutation<void, { id: string; path: string; file: File }>({ query: ({ id, path, file }) => ({ url: `templates/${encodeURIComponent(id)}/starter?path=${encodeURIComponent(path)}`, method: 'PUT', body: file, headers: { 'content-type': 'application/octet-stream' } }), invalidatesTags: ['starters'] }),
    conventions: build.query<ConventionRow[], void>({ query: () => 'conventions', providesTags: ['conventions'] }),
    newConvention: build.mutation<{ id: string }, Omit<Convention, 'id'>>({ query: (convention) => ({ url: 'conventions', method: 'POST', body: { convention } }), invalidatesTags: ['conventions'] }),
    keepDraft: build.mutation<{ version: number }, { convention: Convention; version: number }>({ query: (body) => ({ url: `conventions/${encodeURIComponent(body.convention.id)}/draft`, method: 'PUT', body }) }),
    discardDraft: build.mutation<void, string>({ query: (id) => ({ url: `conventions/${encodeURIComponent(id)}/draft`, method: 'DELETE' }), invalidatesTags: ['conventions'] }),
    putInForce: build.mutation<{ edition: number }, { id: string; version: number }>({ query: ({ id, version }) => ({ url: `conventions/${encodeURIComponent(id)}/editions`, method: 'POST', body: { version } }), invalidatesTags: ['conventions', 'templates'] }),
    effect: build.query<ConventionEffect, Convention>({ query: (convention) => ({ url: `conventions/${encodeURIComponent(convention.id)}/effect`, method: 'POST', body: { convention } }), keepUnusedDataFor: 10 }),
    projectNames: build.query<ProjectNames, { project: string; convention: string }>({ query: ({ project, convention }) => `projects/${project}/names?convention=${encodeURIComponent(convention)}`, keepUnusedDataFor: 5 }),
    volumeFolders: build.query<FolderChoice, { volume: string; path: string }>({ query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/folders?path=${encodeURIComponent(path)}`, keepUnusedDataFor: 5 }),
    volumeListing: build.query<ListingText, { volume: string; path: string }>({ query: ({ volume, path }) => `volumes/${encodeURIComponent(volume)}/listing?path=${encodeURIComponent(path)}`, keepUnusedDataFor: 5 }),
    projectListing: build.query<ListingText, string>({ query: (id) => `projects/${id}/listing`, keepUnusedDataFor: 5 }),
    askName: build.mutation<HeldName, AskName & { project: string }>({ query: ({ project, ...body }) => ({ url: `projects/${project}/names`, method: 'POST', body }) }),
    registers: build.query<Registers, void>({ query: () => 'registers', providesTags: ['registers'] }),
    volumes: build.query<VolumeRow[], void>({ query: () => 'volumes' }),
    holdNumber: build.mutation<Hold, number>({ query: (year) => ({ url: 'numbers/hold', method: 'POST', body: { year } }) }),
    projects: build.query<ProjectRow[], void>({ query: () => 'projects', providesTags: ['projects'] }),
    project: build.query<ProjectPage, string>({ query: (id) => `projects/${id}`, providesTags: ['projects'] }),
    startProject: build.mutation<ProjectRow, StartRequest>({ query: (body) => ({ url: 'projects', method: 'POST', body }), invalidatesTags: ['projects', 'templates'] }),
    look: build.query<Look, { number: string; volume: string; folder: string }>({ query: (body) => ({ url: 'projects/look', method: 'POST', body }), keepUnusedDataFor: 5 }),
    checks: build.query<ChecksOfProject, string>({ query: (project) => `projects/${project}/checks`, providesTags: ['checks'] }),
    startCheck: build.mutation<CheckRow, string>({ query: (project) => ({ url: `projects/${project}/checks`, method: 'POST', body: {} }), invalidatesTags: ['checks'] }),
    findings: build.query<FindingRow[], string>({ query: (check) => `checks/${check}/findings?limit=5000` }),
    folders: build.query<FolderCount[], string>({ query: (check) => `checks/${check}/folders` }),
    folderFiles: build.query<FolderFiles, { project: string; path: string }>({ query: ({ project, path }) => `projects/${project}/folder?path=${encodeURIComponent(path)}`, keepUnusedDataFor: 5 }),
  }),
});

/** The sentence to show for a failed request. */
export function troubleOf(error: unknown): string {
  const fault = error as Partial<FetchBaseQueryError> | undefined;
  const refusal = fault?.data as Partial<Refusal> | undefined;
  if (refusal?.message) return refusal.message;
  if (fault?.status === 'FETCH_ERROR') return 'The server cannot be reached. Nothing was changed; try again in a moment.';
  return 'The server gave no answer that can be understood. Nothing was changed here; try again in a moment.';
}

export const isSignedOut = (error: unknown): boolean => (error as Partial<FetchBaseQueryError> | undefined)?.status === 401;
