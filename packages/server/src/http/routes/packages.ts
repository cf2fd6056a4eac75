/** Packages: made, proved, sent. */
import { PACKAGE_ENDPOINTS } from '@nesting/contract';
import { findInPackages, listPackages, readVerdict } from '../../db/queries/projects/packages';
import { listWays } from '../../db/queries/rules/kept-ways';
import { bringBack, bringPart, freeOriginal, provePackage } from '../../flows/packages/archive';
import { openSent, revokeLink, sendPackage, sentFile } from '../../flows/packages/links';
import { applyPack, dropPackage, goOnWithPackage, planPack, stopPackage } from '../../flows/packages/pack-project';
import { compareReturned } from '../../flows/packages/returned';
import { dropWay, keepWay } from '../../flows/rules/kept-ways';
import { Refused } from '../../flows/world';
import { routesOf } from '../handlers';
import { rangeOf } from '../range';

/** Files that are found at once. */
const MOST_FOUND = 20;

export const PACKAGES = routesOf(PACKAGE_ENDPOINTS, {
  planPack: ({ world, params, body }) => planPack(world, params.id, body),
  applyPack: ({ world, me, params, body }) => applyPack(world, me, params.id, body),
  listPackWays: ({ world, params }) => listWays(world.db, 'pack', params.id),
  keepPackWay: ({ world, me, params: { id: template, name }, body }) =>
    keepWay(world, me, { what: 'pack', template, name }, body.way),
  dropPackWay: ({ world, params: { id: template, name } }) => dropWay(world, { what: 'pack', template, name }),
  listPackages: ({ world, query }) => listPackages(world.db, query),
  stopPackage: ({ world, params }) => stopPackage(world, params.id),
  goOnPackage: ({ world, params, body }) => goOnWithPackage(world, params.id, body.mayLeaveOut),
  dropPackage: ({ world, params }) => dropPackage(world, params.id),
  provePackage: ({ world, params }) => provePackage(world, params.id),
  freeOriginal: ({ world, me, params, body }) => freeOriginal(world, me, params.id, body.number),
  bringPart: ({ world, me, params, body }) => bringPart(world, me, params.id, body),
  bringBack: ({ world, me, params, body }) => bringBack(world, me, params.id, body.volume),
  compareReturned: ({ world, params, body }) => compareReturned(world, params.id, body),
  findInPackages: ({ world, query }) => findInPackages(world.db, query.find, MOST_FOUND),
  readVerdict: async ({ world, params }) => {
    const found = await readVerdict(world.db, params.id);
    if (found === null) throw new Refused('no-package');
    return found.verdict;
  },
  sendPackage: ({ world, me, params, body }) => sendPackage(world, me, params.id, body),
  revokeLink: ({ world, params }) => revokeLink(world, params.id, params.link),
  openSent: ({ world, body }) => openSent(world, body),
  downloadSent: async ({ world, params, raw }) => {
    const asked = raw.headers.get('range');
    const { name, size, bytes } = await sentFile(world, params.pass, asked === null || /^bytes=0-/.test(asked));
    const range = rangeOf(asked, size);
    const body = bytes(range?.from ?? 0, range?.to ?? size);
    return { name, type: 'application/octet-stream', body, whole: size, ...(range !== null && { range }) };
  },
});
