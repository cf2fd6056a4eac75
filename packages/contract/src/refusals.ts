/** What the server says when it does not do what was asked: a code, what its words are made from, the English sentence. */
import type { RefusalCode } from '@nesting/core/words';

export interface Refusal {
  readonly code: RefusalCode;
  /** What the sentence is made from, for whoever says it otherwise. */
  readonly params: Readonly<Record<string, unknown>>;
  /** What happened, what was not done, what to do. */
  readonly message: string;
}

export type RefusalStatus = 400 | 401 | 403 | 404 | 408 | 409 | 410 | 413 | 422 | 429 | 500 | 503 | 507;

/** Codes by the HTTP status they are told with; all others are told with 409: what is asked does not fit what is there. */
const BY_STATUS: Readonly<Partial<Record<RefusalStatus, readonly RefusalCode[]>>> = {
  400: ['not-json', 'not-as-expected', 'path-refused', 'starter-path', 'block-starter-path', 'ended-already'],
  401: ['not-signed-in', 'key-unknown', 'sign-in-wrong'],
  403: [
    'foreign-origin',
    'role-not-allowed',
    'by-key',
    'password-wrong',
    'not-yours',
    'not-yours-to-give',
    'not-your-change',
    'artist-not-allowed',
    'not-yours-to-repair',
    'asker-left',
    'word-wrong',
  ],
  404: [
    'not-found',
    'no-link',
    'no-key',
    'no-session',
    'no-person',
    'no-project',
    'project-gone',
    'no-line',
    'no-document',
    'no-package',
    'no-upload',
    'no-change',
    'no-proposal',
    'no-later-repair',
    'no-way',
    'file-gone',
    'no-template',
    'no-block',
    'convention-gone',
    'no-convention',
    'no-entry',
    'two-entries',
    'no-volume',
    'no-folder',
    'no-journal',
    'nobody',
    'never-checked',
    'not-readable',
    'not-reserved',
    'path-link',
    'path-missing',
    'root-unreadable',
  ],
  408: ['too-slow'],
  410: ['link-used', 'link-expired', 'link-over', 'first-there'],
  413: ['too-large'],
  422: [
    'zip-unusable',
    'first-missing',
    'cell-refused',
    'no-merge',
    'table-refused',
    'series-refused',
    'series-value-missing',
    'number-missing',
    'day-past',
    'nothing-to-pack',
    'no-inbox',
    'name-not-sent',
    'prefix-refused',
    'plan-refused',
    'starter-missing',
    'same-volume',
    'values-missing',
    'name-unreadable',
    'line-unknown',
    'number-other',
    'draft-unusable',
    'block-unusable',
    'file-unusable',
  ],
  429: ['too-many-sign-ins', 'too-many-tries'],
  500: ['failed'],
  503: [
    'too-busy',
    'database-away',
    'database-lost',
    'not-known',
    'root-missing',
    'disk-silent',
    'disk-ended',
    'cancelled',
    'volume-missing',
    'volume-lost',
    'volume-other',
    'gave-up',
  ],
  507: ['volume-full', 'no-room'],
};

const STATUSES: ReadonlyMap<RefusalCode, RefusalStatus> = new Map(
  Object.entries(BY_STATUS).flatMap(([status, codes]) =>
    codes.map((code) => [code, Number(status) as RefusalStatus] as const),
  ),
);

export const statusOf = (code: RefusalCode): RefusalStatus => STATUSES.get(code) ?? 409;

/** What any request may be answered, whatever its row in the table of endpoints says. */
export const ANY_REFUSAL: ReadonlySet<RefusalCode> = new Set([
  'not-found',
  'not-json',
  'not-as-expected',
  'too-large',
  'too-busy',
  'too-slow',
  'foreign-origin',
  'not-signed-in',
  'role-not-allowed',
  'key-unknown',
  'database-away',
  'database-lost',
  'failed',
  'cancelled',
]);
