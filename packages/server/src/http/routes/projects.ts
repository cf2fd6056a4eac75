/** Projects, their folders and names. */
import { PROJECT_ENDPOINTS } from '@nesting/contract';
import { readPrefixes } from '../../db/queries/house/volumes';
import { markProject } from '../../db/queries/projects/project-edits';
import { listProjects, readProject } from '../../db/queries/projects/projects';
import { listProjectFolder, projectListing } from '../../flows/checks/listings';
import { askName } from '../../flows/names/ask-name';
import { volumeRoot } from '../../flows/place';
import { dueInProject } from '../../flows/projects/due';
import { changeProject, signpostText, tick } from '../../flows/projects/project-life';
import { lookAtTarget, makingOf, pathsThere, startProject } from '../../flows/projects/start-project';
import { writeStart } from '../../flows/projects/write-start';
import { namesIn } from '../../flows/rules/conventions';
import { routesOf } from '../handlers';
import { found } from '../route';

/** Files of one folder that are shown. */
const MOST_FILES = 2000;

export const PROJECTS = routesOf(PROJECT_ENDPOINTS, {
  listProjects: ({ world, me, query }) => listProjects(world.db, me.id, query),
  writeStart: ({ world, me, query, body }) => writeStart(world, me.id, body, query.as),
  pathsThere: ({ world, body: { volume, folder, paths } }) => pathsThere(world, volume, folder, paths),
  signposts: ({ world, params, query }) => signpostText(world, params.project, query.as, query.system),
  startProject: ({ world, me, body, signal }) => startProject(world, me.id, body, signal),
  makingOf: async ({ params }) => found(makingOf(params.key)),
  lookAtTarget: ({ world, me, body: { number, volume, folder } }) => lookAtTarget(world, me.id, number, volume, folder),
  readProject: async ({ world, me, params }) => {
    const project = found(await readProject(world.db, params.id, me.id));
    const prefixes = (await readPrefixes(world.db)).get(project.volume) ?? { windows: '', macos: '', linux: '' };
    return {
      ...project,
      prefixes,
      root: `${volumeRoot(world, project.volume) ?? project.volume}/${project.folder}`,
    };
  },
  editProject: ({ world, me, params, body }) => changeProject(world, me.id, params.id, body),
  markProject: async ({ world, me, params, body }) => {
    found(await readProject(world.db, params.id));
    await markProject(world.db, me.id, params.id, body.pinned ?? null);
  },
  tickFirstDay: ({ world, me, params, body }) => tick(world, me.id, params.id, Number(params.place), body.done),
  filesInFolder: async ({ world, params, query: { path } }) => {
    const project = found(await readProject(world.db, params.id));
    const { files } = await listProjectFolder(world, project, path);
    const shown = files.slice(0, MOST_FILES).map(({ name, size, modified }) => ({
      name,
      size,
      modified: new Date(modified).toISOString(),
    }));
    return { path, files: shown };
  },
  dueInProject: ({ world, params }) => dueInProject(world, params.id),
  listingOfProject: ({ world, params }) => projectListing(world, params.id),
  namesOfConvention: ({ world, params, query }) => namesIn(world, params.id, query.convention),
  askName: ({ world, me, params, body }) => askName(world, me, params.id, body),
});
