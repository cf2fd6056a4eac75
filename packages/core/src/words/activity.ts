/** What was done, in words; who and when stand beside it. */
import { batchWords } from './batches';

type Given = Readonly<Record<string, unknown>>;

const text = (value: unknown): string =>
  value === undefined || value === null
    ? ''
    : Array.isArray(value)
      ? value.map(text).join(', ')
      : typeof value === 'object'
        ? Object.entries(value)
            .map(([k, v]) => `${k} ${text(v)}`)
            .join(', ')
        : String(value);
const LIST_WORDS: Readonly<Record<string, string>> = {
  clients: 'client',
  people: 'person',
  families: 'family of files',
  abbreviations: 'abbreviation',
  banned: 'banned word',
};
const entry = (p: Given): string => `${LIST_WORDS[text(p.list)] ?? ''} ${text(p.key)}`.trim();

/** `name: A → B, code: X → Y`. */
function changeWords(p: Given): string {
  const [was, now] = [p.was, p.now] as [Given | undefined, Given | undefined];
  if (typeof was !== 'object' || typeof now !== 'object') return '';
  return Object.keys(now)
    .map((k) => `${k}: ${text(was?.[k]) || 'nothing'} → ${text(now?.[k]) || 'nothing'}`)
    .join('; ');
}

const filesOf = (p: Given): string => `${text(p.files)} ${Number(p.files) === 1 ? 'file' : 'files'}`;

const WORDS: Readonly<Record<string, (p: Given) => string>> = {
  'project-started': (p) =>
    `started the project ${text(p.folder)} on ${text(p.volume)}: ${text(p.folders)} folders and ${text(p.files)} files`,
  'start-failed': (p) => `the start of ${text(p.folder)} failed (${text(p.code)}) and was taken back`,
  'start-taken-back': (p) => `a start of ${text(p.folder)} that was cut short was taken back`,
  'space-freed': (p) =>
    `freed ${text(p.bytes)} bytes: ${text(p.files)} ${Number(p.files) === 1 ? 'file' : 'files'} that a change had set aside`,
  'repair-proposed': (p) =>
    `proposed how ${text(p.count)} ${Number(p.count) === 1 ? 'finding is' : 'findings are'} put right${p.note ? `: ${text(p.note)}` : ''}`,
  'proposal-taken': (p) => `carried out what ${text(p.by)} had proposed`,
  'proposal-refused': (p) => `refused what ${text(p.by)} had proposed: ${text(p.word)}`,
  'project-repaired': (p) => `put ${p.changes} ${Number(p.changes) === 1 ? 'thing' : 'things'} right`,
  'files-carried': (p) =>
    p.revision
      ? `made ${text(p.revision)} from what was there: ${filesOf(p)}`
      : `carried ${filesOf(p)} over from ${text(p.number)}`,
  'checksums-laid': (p) => `${text(p.changes)} lists of checksums were laid beside what was brought in`,
  'files-brought': (p) => `brought ${filesOf(p)} in from ${text(p.from)}`,
  'project-packed': (p) =>
    `packed ${filesOf(p)} as ${text(p.name)} on ${text(p.volume)}${p.recipient ? ` for ${text(p.recipient)}` : ''}`,
  'original-freed': (p) => `freed ${text(p.bytes)} bytes: ${text(p.folder)} lies in ${text(p.name)} alone`,
  'project-back': (p) => `brought ${text(p.folder)} back to ${text(p.volume)} from ${text(p.name)}`,
  'part-back': (p) => `took ${text(p.within)} out of ${text(p.name)}, to ${text(p.folder)} on ${text(p.volume)}`,
  'inbox-changed': (p) =>
    p.isInbox
      ? `said that loose material arrives on ${text(p.volume)}`
      : `said that nothing arrives on ${text(p.volume)} any more`,
  'double-changed': (p) =>
    p.double
      ? `said that what is brought in on ${text(p.volume)} is copied to ${text(p.double)} as well`
      : `said that what is brought in on ${text(p.volume)} is copied nowhere else any more`,
  'files-arrived': (p) => `moved ${filesOf(p)} here from ${text(p.number)}`,
  'files-went-back': (p) => `moved ${filesOf(p)} back to ${text(p.number)}`,
  'project-reshaped': (p) =>
    `${batchWords(text(p.what)).toLowerCase()}: ${text(p.changes)} changes on the disk${p.folder ? `, its folder ${text(p.folder)}` : ''}`,
  'batch-undone': (p) =>
    `undid a change: ${text(p.changes)} changes${p.folder ? `, its folder ${text(p.folder)}` : ''}`,
  'batch-closed': (p) =>
    `closed a change that could neither be finished nor taken back whole: ${text(p.left)} ${Number(p.left) === 1 ? 'line' : 'lines'} stayed`,
  'batch-taken-back': () => 'took back a change that had stopped half way',
  'findings-accepted': (p) =>
    `accepted ${text(p.count)} ${Number(p.count) === 1 ? 'finding' : 'findings'}${p.until ? ` until ${text(p.until)}` : ''}: ${text(p.reason)}`,
  'findings-unaccepted': (p) =>
    `let ${text(p.count)} accepted ${Number(p.count) === 1 ? 'finding' : 'findings'} count again`,
  'baseline-made': (p) => `accepted all that is there as it is today, ${text(p.count)} findings: ${text(p.reason)}`,
  'findings-given': (p) =>
    p.to
      ? `gave ${text(p.count)} ${Number(p.count) === 1 ? 'finding' : 'findings'} to ${text(p.to)}`
      : `took ${text(p.count)} ${Number(p.count) === 1 ? 'finding' : 'findings'} back`,
  'check-handed-in': (p) => `handed in a check of ${text(p.source)}: ${text(p.count)} findings`,
  'list-sent': (p) => `sent ${text(p.to)} what is to be put right`,
  'project-adopted': (p) =>
    `took in the folder ${text(p.folder)} on ${text(p.volume)} as a project by ${text(p.template)}`,
  'copy-made-own': (p) =>
    `made the copy ${text(p.folder)} on ${text(p.volume)} a project of its own, ${text(p.number)}`,
  'copy-left': (p) => `left the copy ${text(p.folder)} on ${text(p.volume)} alone`,
  'convention-drafted': (p) => `began the convention ${text(p.convention)}`,
  'convention-in-force': (p) => `put edition ${text(p.edition)} of the convention ${text(p.convention)} in force`,
  'convention-draft-discarded': (p) => `put the draft of the convention ${text(p.convention)} aside`,
  'template-drafted': (p) => `began the template ${text(p.template)}`,
  'template-in-force': (p) =>
    `put edition ${text(p.edition)} of the template ${text(p.template)} in force${p.said ? `: ${text(p.said)}` : ''}`,
  'template-draft-discarded': (p) => `put the draft of the template ${text(p.template)} aside`,
  'template-archived': (p) =>
    `${p.archived ? 'put the template away' : 'brought the template back'}: ${text(p.template)}`,
  'rules-taken-in': (p) => `took rules in: ${text(p.taken)}`,
  'block-shared': (p) => `made ${text(p.block)} of ${text(p.template)} a shared part`,
  'block-in-force': (p) =>
    `put edition ${text(p.edition)} of the shared part ${text(p.block)} in force${p.templates ? `, taken up by ${text(p.templates)}` : ''}`,
  'block-draft-discarded': (p) => `put the draft of the shared part ${text(p.block)} aside`,
  'entry-added': (p) => `added the ${entry(p)}`,
  'entry-changed': (p) => `changed the ${entry(p)}: ${changeWords(p)}`,
  'entry-deleted': (p) => `deleted the ${entry(p)}`,
  'entries-merged': (p) =>
    `merged the ${LIST_WORDS[text(p.list)] ?? 'entry'} ${text(p.from)} into ${text(p.into)}${Number(p.projects) > 0 ? `; ${text(p.projects)} projects are listed with it` : ''}`,
  'list-imported': (p) => `took in a table of ${text(p.list)}: ${text(p.added)} new, ${text(p.changed)} changed`,
  'meaning-changed': (p) => {
    if (text(p.now) === '') return `freed the mark “${text(p.was)}”`;
    return text(p.was) === ''
      ? `gave a free mark the meaning “${text(p.now)}”`
      : `changed what a mark means: “${text(p.was)}” → “${text(p.now)}”`;
  },
  'series-changed': (p) => `changed how projects are numbered: ${text(p.was)} → ${text(p.now)}`,
  'number-reserved': (p) => `reserved the number ${text(p.number)}: ${text(p.why)}`,
  'number-released': (p) => `released the number ${text(p.number)}`,
  'person-invited': (p) => `invited ${text(p.name)} as ${text(p.role)}`,
  'person-changed': (p) => `changed ${text(p.key)}: ${changeWords(p)}`,
  'person-left': (p) => `ended the access of ${text(p.name)}`,
  'person-returned': (p) => `let ${text(p.name)} return`,
  'link-accepted': (p) =>
    p.purpose === 'first'
      ? 'became the first coordinator'
      : p.purpose === 'invite'
        ? 'accepted the invitation'
        : 'chose a new password by link',
  'reset-asked': (p) => `a new password was asked for, for ${text(p.name)}`,
  'password-changed': () => 'changed their password',
  'key-made': (p) => `made the access key ${text(p.name)}`,
  'key-revoked': () => 'ended an access key',
  'session-ended': () => 'ended a session of their own',
  'sign-in-refused': (p) => `too many tries to sign in as ${text(p.account)} (by ${text(p.why)})`,
  'volume-taken-up': (p) => `took up the volume ${text(p.volume)}`,
  'prefixes-changed': (p) => `said how systems see the volume ${text(p.volume)}`,
  'project-relinked': (p) => `a project that moved was found again: ${text(p.was)} → ${text(p.now)}`,
  'project-changed': (p) => `changed the project: ${text(p)}`,
  'start-written': (p) =>
    `wrote ${text(p.folder)} as ${text(p.as)}: ${text(p.folders)} folders and ${text(p.files)} files`,
  'carried-here': (p) =>
    `carried ${text(p.number)} over to ${text(p.folder)} on their own computer: ${text(p.files)} files`,
  'backup-restored': (p) => `this installation was restored from the backup of ${text(p.of)}`,
};

export const activityWords = (what: string, params: Given): string => WORDS[what]?.(params) ?? what;
export const ACTIVITY_WORDS: readonly string[] = Object.keys(WORDS);
