/** Every route of the server, with the roles that may use it. */

import type { Route } from './route';
import { ADOPTING } from './routes/adopting';
import { BATCHES } from './routes/batches';
import { BLOCKS } from './routes/blocks';
import { CARRY } from './routes/carry-over';
import { CHECKS } from './routes/checks';
import { COMPARE } from './routes/compare';
import { CONVENTIONS } from './routes/conventions';
import { ENTRANCE } from './routes/entrance';
import { INTAKE } from './routes/intake';
import { LISTS } from './routes/lists';
import { NUMBERS } from './routes/numbers';
import { OUTSIDE } from './routes/outside';
import { PACKAGES } from './routes/packages';
import { PEOPLE } from './routes/people';
import { PROJECTS } from './routes/projects';
import { RULE_SET } from './routes/rule-set';
import { TEMPLATES } from './routes/templates';
import { UPLOADS } from './routes/uploads';
import { VOLUMES } from './routes/volumes';

export const ROUTES: readonly Route[] = [
  ...OUTSIDE,
  ...ENTRANCE,
  ...TEMPLATES,
  ...BLOCKS,
  ...CARRY,
  ...RULE_SET,
  ...CONVENTIONS,
  ...INTAKE,
  ...UPLOADS,
  ...LISTS,
  ...NUMBERS,
  ...VOLUMES,
  ...PEOPLE,
  ...PROJECTS,
  ...ADOPTING,
  ...BATCHES,
  ...CHECKS,
  ...COMPARE,
  ...PACKAGES,
];
