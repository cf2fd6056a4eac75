/**
 * Findings in people's hands: accepted, given to somebody, sent as a list, opened by a link, handed in from somebody's
 * own computer.
 */
import { randomBytes, randomUUID } from 'node:crypto';
import type { Me, PersonFindings, ReportForm, StoredFinding } from '@nesting/contract';
import { findingsCsv, findingsJson, findingsSarif } from '@nesting/core/report';
import type { Seen } from '@nesting/disk';
import { transaction } from '../../db/client';
import { acceptFindings, makeBaseline, unacceptFindings } from '../../db/queries/checks/accepted';
import { checksOfProject, lastCheck, openCheck, readMemory } from '../../db/queries/checks/checks';
import { insertFindingLink, personOfFindingLink } from '../../db/queries/checks/finding-links';
import { findingsOfPerson, giveFindings } from '../../db/queries/checks/finding-people';
import { openFindings, recount } from '../../db/queries/checks/findings';
import { insertHandedIn } from '../../db/queries/checks/handed-in';
import { recordActivity } from '../../db/queries/house/activity';
import { personByInitials } from '../../db/queries/people/access';
import { readProject } from '../../db/queries/projects/projects';
import { subjectOf } from '../house/lists';
import { hashOf, mailsGoOut } from '../people/access';
import { projectWhere } from '../place';
import { Refused, type World } from '../world';
import { checkProject, mountsOf } from './check-project';
import { unpacked } from './packed';

export async function accept(
  world: World,
  me: string,
  project: string,
  given: { readonly ids: readonly string[]; readonly reason: string; readonly until: string | null },
): Promise<number> {
  if (given.until !== null && given.until < new Date().toISOString().slice(0, 10)) throw new Refused('ended-already');
  return transaction(world.db, async (client) => {
    const count = await acceptFindings(client, project, given.ids, me, given.reason, given.until);
    if (count > 0)
      await recordActivity(client, 'findings-accepted', me, project, {
        count,
        reason: given.reason,
        until: given.until ?? '',
      });
    await recount(client, project);
    return count;
  });
}

export async function unaccept(world: World, me: string, project: string, ids: readonly string[]): Promise<number> {
  return transaction(world.db, async (client) => {
    const count = await unacceptFindings(client, project, ids);
    if (count > 0) await recordActivity(client, 'findings-unaccepted', me, project, { count });
    await recount(client, project);
    return count;
  });
}

/** All that stands today is accepted in one act: from then on only what is new or touched counts. */
export async function baseline(world: World, me: string, project: string, reason: string): Promise<number> {
  return transaction(world.db, async (client) => {
    const count = await makeBaseline(client, project, me, reason);
    await recordActivity(client, 'baseline-made', me, project, { count, reason });
    await recount(client, project);
    return count;
  });
}

/** Gives findings to somebody, and says something of them. An artist takes for himself, and gives back what is his. */
export async function give(
  world: World,
  me: Me,
  project: string,
  given: {
    readonly ids: readonly string[];
    readonly to?: string | null | undefined;
    readonly note?: string | undefined;
  },
): Promise<number> {
  if (me.role === 'artist' && given.to !== undefined && given.to !== null && given.to !== me.initials)
    throw new Refused('not-yours-to-give');
  const person =
    given.to === undefined ? undefined : given.to === null ? null : await personByInitials(world.db, given.to);
  if (given.to != null && person === null) throw new Refused('nobody', { initials: given.to });
  return transaction(world.db, async (client) => {
    const count = await giveFindings(client, project, given.ids, me.id, {
      ...(person !== undefined && { person: person?.id ?? null }),
      ...(given.note !== undefined && { note: given.note }),
      ...(me.role === 'artist' && { onlyOf: me.id }),
    });
    if (count > 0 && given.to !== undefined)
      await recordActivity(client, 'findings-given', me.id, project, { count, to: given.to ?? '' });
    return count;
  });
}

export async function listOf(world: World, initials: string): Promise<PersonFindings> {
  const person = await personByInitials(world.db, initials);
  return { initials, name: person?.name ?? initials, projects: await findingsOfPerson(world.db, initials) };
}

/** Days a link to one's own list can be opened. */
const LINK_DAYS = 14;

/**
 * A link that shows one person's findings and nothing else. The secret stands behind the hash sign: servers on the way
 * never see it.
 */
export async function linkTo(world: World, me: string, initials: string): Promise<string> {
  const person = await personByInitials(world.db, initials);
  if (person === null) throw new Refused('nobody', { initials });
  const secret = randomBytes(24).toString('base64url');
  await insertFindingLink(world.db, hashOf(secret), person.id, me, LINK_DAYS);
  return `${world.config.publicUrl}/yours#${secret}`;
}

export async function openLink(world: World, secret: string): Promise<PersonFindings> {
  const initials = await personOfFindingLink(world.db, hashOf(secret));
  if (initials === null) throw new Refused('link-over');
  return listOf(world, initials);
}

/** Sends somebody what is to be put right. `false` where no mail goes out of here. */
export async function sendList(world: World, me: Me, initials: string): Promise<boolean> {
  const person = await personByInitials(world.db, initials);
  if (person === null) throw new Refused('nobody', { initials });
  const list = await listOf(world, initials);
  if (list.projects.length === 0) throw new Refused('nothing', { name: person.name });
  if (!mailsGoOut(world)) return false;
  const link = await linkTo(world, me.id, initials);
  await transaction(world.db, async (client) => {
    await world.mails.write(client, {
      recipient: person.email,
      subject: `To put right: ${list.projects.reduce((n, p) => n + p.findings.length + p.more, 0)} findings in ${list.projects.length} projects`,
      body: mailText(list, me.name, link),
    });
    await recordActivity(client, 'list-sent', me.id, null, { to: initials }, subjectOf('people', initials));
  });
  world.mails.wake();
  return true;
}

/** Lines of one project in a mail: the list itself has all of them. */
const MAILED = 25;

function mailText(list: PersonFindings, from: string, link: string): string {
  const projects = list.projects.flatMap(({ number, title, findings, more }) => {
    const shown = findings.slice(0, MAILED);
    const rest = findings.length - shown.length + more;
    return [
      `${number} ${title}`,
      ...shown.map(
        (f) =>
          `  ${f.weight}: ${f.path}\n      ${f.message}${f.suggestion === null ? '' : `\n      Call it ${f.suggestion}`}`,
      ),
      ...(rest > 0 ? [`  … and ${rest} more`] : []),
      '',
    ];
  });
  return [
    `Dear ${list.name},`,
    '',
    `${from} asks you to put these right:`,
    '',
    ...projects,
    'The list as it stands now:',
    link,
    '',
    'Whoever has this link sees it for two weeks.',
  ].join('\n');
}

export async function handIn(
  world: World,
  me: string,
  project: string,
  given: {
    readonly source: string;
    readonly files: number;
    readonly folders: number;
    readonly findings: readonly StoredFinding[];
  },
): Promise<string> {
  const id = randomUUID();
  await transaction(world.db, async (client) => {
    await insertHandedIn(client, { id, project, person: me, ...given });
    await recordActivity(client, 'check-handed-in', me, project, {
      source: given.source,
      count: given.findings.length,
    });
  });
  return id;
}

const REPORTS = {
  csv: { print: findingsCsv, type: 'text/csv; charset=utf-8' },
  json: { print: findingsJson, type: 'application/json' },
  sarif: { print: findingsSarif, type: 'application/sarif+json' },
} as const satisfies Readonly<Record<ReportForm, object>>;

/** What stands, in a form for others: the same text as the command line prints, but for what is accepted. */
export async function report(
  world: World,
  projectId: string,
  form: ReportForm,
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const project = await readProject(world.db, projectId);
  const done = (await checksOfProject(world.db, projectId)).done;
  if (project === null || done === null) throw new Refused('never-checked');
  const findings = (await openFindings(world.db, projectId)).map((f) => ({ ...f, modified: 0, person: f.to }));
  const counts = { must: 0, should: 0, note: 0 };
  for (const { weight } of findings) counts[weight]++;
  const outcome = {
    summary: { ...counts, files: done.files, folders: done.folders },
    bytes: done.bytes,
    findings,
    rows: [],
  };
  return { name: `${project.number}_findings.${form}`, type: REPORTS[form].type, body: REPORTS[form].print(outcome) };
}

/**
 * While somebody looks at a project: has its folder changed since it was last looked at? Then a quick check is asked
 * for.
 */
export async function look(world: World, projectId: string): Promise<{ readonly check: string | null }> {
  const open = await openCheck(world.db, projectId);
  if (open !== null) return { check: open };
  const last = await lastCheck(world.db, projectId);
  const project = last === null ? null : await readProject(world.db, projectId);
  if (last === null || project === null) return { check: null };
  const where = await projectWhere(world, project);
  const mounts = await mountsOf(world, project);
  const changed = await world.changePoller.hasChanged(projectId, last, {
    remember: async () => unpacked<Seen>((await readMemory(world.db, projectId))?.part ?? null),
    look: (seen) => world.disks.run('hasChanged', { where, mounts, seen, now: Date.now() }),
  });
  return { check: changed ? await checkProject(world, projectId, null, 'quick') : null };
}
