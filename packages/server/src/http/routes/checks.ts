/**
 * Checks: asked for, stopped, gone on with; their findings, what people do with them, and what they come to over all
 * projects.
 */
import { CHECK_ENDPOINTS } from '@nesting/contract';
import { listExceptions } from '../../db/queries/checks/accepted';
import { checksOfProject, readCheck, readFolders, setSchedule } from '../../db/queries/checks/checks';
import { whoHasWhat } from '../../db/queries/checks/finding-people';
import { findingsByFolder, listFindings } from '../../db/queries/checks/findings';
import { listHandedIn, readHandedIn } from '../../db/queries/checks/handed-in';
import { referencesOf } from '../../db/queries/checks/kept';
import { readOverview } from '../../db/queries/checks/overview';
import { readProject } from '../../db/queries/projects/projects';
import { cancelCheck, checkProject, goOnWithCheck } from '../../flows/checks/check-project';
import {
  accept,
  baseline,
  give,
  handIn,
  linkTo,
  listOf,
  look,
  openLink,
  report,
  sendList,
  unaccept,
} from '../../flows/checks/findings';
import { Refused } from '../../flows/world';
import { routesOf } from '../handlers';
import { found } from '../route';

export const CHECKS = routesOf(CHECK_ENDPOINTS, {
  askCheck: async ({ world, me, params, body }) => {
    const project = found(await readProject(world.db, params.id));
    if (project.state === 'starting' || project.state === 'failed' || project.state === 'packed')
      throw new Refused('not-running');
    return found(await readCheck(world.db, await checkProject(world, project.id, me.id, body.what)));
  },
  checksOfProject: ({ world, params }) => checksOfProject(world.db, params.id),
  stopCheck: ({ world, params }) => cancelCheck(world, params.id),
  goOnWithCheck: ({ world, params }) => goOnWithCheck(world, params.id),
  lookAtProject: ({ world, params }) => look(world, params.id),
  setSchedule: async ({ world, params, body }) => {
    if (!(await setSchedule(world.db, params.id, body.every))) found(null);
  },
  referencesOf: ({ world, params, query }) => referencesOf(world.db, params.id, query.of),
  foldersOfProject: ({ world, params }) => readFolders(world.db, params.id),
  listFindings: ({ world, params, query }) => listFindings(world.db, params.id, query),
  findingsByFolder: ({ world, params }) => findingsByFolder(world.db, params.id),
  reportFindings: ({ world, params, query }) => report(world, params.id, query.as),
  acceptFindings: async ({ world, me, params, body }) => ({ count: await accept(world, me.id, params.id, body) }),
  countAgain: async ({ world, me, params, body }) => ({ count: await unaccept(world, me.id, params.id, body.ids) }),
  giveFindings: async ({ world, me, params, body }) => ({ count: await give(world, me, params.id, body) }),
  makeBaseline: async ({ world, me, params, body }) => ({
    count: await baseline(world, me.id, params.id, body.reason),
  }),
  listExceptions: ({ world, query }) => listExceptions(world.db, query.project ?? null),
  handIn: async ({ world, me, params, body }) => {
    const project = found(await readProject(world.db, params.id));
    return { id: await handIn(world, me.id, project.id, body) };
  },
  listHandedIn: ({ world, params }) => listHandedIn(world.db, params.id),
  readHandedIn: async ({ world, params }) => found(await readHandedIn(world.db, params.id)),
  whoHasWhat: ({ world }) => whoHasWhat(world.db),
  listOfPerson: ({ world, params }) => listOf(world, params.id),
  myFindings: ({ world, me }) => listOf(world, me.initials),
  sendList: async ({ world, me, params }) => ({ sent: await sendList(world, me, params.id) }),
  linkToList: async ({ world, me, params }) => ({ link: await linkTo(world, me.id, params.id) }),
  openList: ({ world, body }) => openLink(world, body.secret),
  overview: ({ world }) => readOverview(world.db),
});
