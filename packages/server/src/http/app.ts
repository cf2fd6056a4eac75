/** The application: every route behind one decision by role, faults as plain refusals, the screens behind all else. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import type { Me, Refusal, Role } from '@nesting/contract';
import { DiskError } from '@nesting/disk';
import { type Context, Hono } from 'hono';
import { compress } from 'hono/compress';
import { csrf } from 'hono/csrf';
import { secureHeaders } from 'hono/secure-headers';
import type { Logger } from 'pino';
import { isAway } from '../db/client';
import { personOfKey } from '../db/queries/people/access';
import { VitalSigns } from '../flows/house/vitals';
import { hashOf } from '../flows/people/access';
import { diskRefusal } from '../flows/place';
import { Refused, type World } from '../flows/world';
import { Metrics } from '../metrics';
import { withRequest } from '../request-context';
import type { Auth } from '../sign-in/auth';
import { Bodies } from './bodies';
import type { Asked, Route, Watch } from './route';
import { ROUTES } from './routes';

const NOBODY: Me = { id: '', name: '', initials: '', role: 'lead', demo: false };
/** The largest honest request is a start with long lists. */
const MOST_BYTES = 4 * 1024 * 1024;
/** Of nobody who is known: a name and a password, the secret of a link. */
const MOST_OF_NOBODY = 16 * 1024;

interface Tools extends Pick<Asked, 'world' | 'auth' | 'watch'> {
  readonly log: Logger;
  readonly bodies: Bodies;
}

function watchOf(world: World): Watch {
  const vitals = new VitalSigns(world);
  return { vitals, metrics: world.config.metrics ? new Metrics(() => vitals.read()) : null };
}

/** Scripts of the workers that read media: the only ones that may compile WebAssembly, the readers' own. */
const MEDIA_READERS = '/assets/facts-worker-';

const headersOf = (world: World, scripts: readonly string[]) =>
  secureHeaders({
    contentSecurityPolicy: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", ...scripts],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'", 'data:'],
      connectSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      frameAncestors: ["'none'"],
      formAction: ["'self'"],
    },
    ...(world.config.publicUrl.startsWith('https:') ? {} : { strictTransportSecurity: false }),
  });

export function makeApp(world: World, auth: Auth, log: Logger): Hono {
  const app = new Hono();
  const headers = { pages: headersOf(world, []), readers: headersOf(world, ["'wasm-unsafe-eval'"]) };
  app.use((c, next) => (c.req.path.startsWith(MEDIA_READERS) ? headers.readers : headers.pages)(c, next));
  app.use('/api/*', csrf({ origin: new URL(world.config.publicUrl).origin }));
  app.use('/api/*', async (c, next) => (isForeign(c, world) ? refuseForeign(c) : next()));
  app.use(compress());
  const tools: Tools = { world, auth, log, bodies: new Bodies(world.config.bodies), watch: watchOf(world) };
  // Faults are caught here and not by the framework alone: it knows errors of its own realm only, and hands others
  // through.
  for (const route of ROUTES) app.on(route.method, route.path, (c) => answer(route, c, tools));
  app.all('/api/*', (c) => refuse(c, new Refused('not-found')));
  screens(app, world);
  app.onError((error, c) => answerFault(error, c, log));
  return app;
}

function answerFault(thrown: unknown, c: Context, log: Logger): Response {
  const error = (thrown instanceof DiskError ? diskRefusal(thrown) : null) ?? thrown;
  if (error instanceof Refused) return refuse(c, error);
  if (typeof error === 'object' && error !== null && 'getResponse' in error) return refuseForeign(c);
  if (isAway(error)) {
    log.error({ error }, 'the database is away');
    return refuse(c, new Refused(c.req.method === 'GET' ? 'database-away' : 'database-lost'));
  }
  log.error({ error, path: c.req.path }, 'a request failed');
  return refuse(c, new Refused('failed'));
}

/** An id that who asks made up goes on; else it is made here. Both are answered. */
const ID = /^[\w-]{8,64}$/;

/** Under one id, from the request to whatever is done for it. */
function answer(route: Route, c: Context, tools: Tools): Promise<Response> {
  const given = c.req.header('x-request-id') ?? '';
  const id = ID.test(given) ? given : randomUUID();
  const request = { id, address: addressOf(c, tools.world.config.behindProxy), signal: c.req.raw.signal };
  c.header('x-request-id', id);
  return withRequest(request, async () => {
    const began = performance.now();
    const response = await decide(route, c, tools).catch((error: unknown) => answerFault(error, c, tools.log));
    const seconds = (performance.now() - began) / 1000;
    tools.watch.metrics?.answered(route.name, response.status, seconds);
    const line = { endpoint: route.name, status: response.status, ms: Math.round(seconds * 1000) };
    if (route.method === 'GET') tools.log.debug(line, 'looked');
    else tools.log.info(line, 'asked');
    return response;
  });
}

/** The one place that decides who may do what. Nothing of a body is read before. */
async function decide(route: Route, c: Context, { world, auth, bodies, watch }: Tools): Promise<Response> {
  const handle = (who: Who, most: number): Promise<Response> =>
    bodies.during(c.req.raw, most, async (whole) => {
      c.req.raw = whole;
      return route.handle({ c, world, auth, watch, ...who });
    });
  if (route.roles === 'anyone') return handle({ me: NOBODY, session: null }, MOST_OF_NOBODY);
  const who = (await byKey(c, world)) ?? (await bySession(c, world, auth));
  if (who === null) throw new Refused('not-signed-in');
  if (!route.roles.includes(who.me.role)) throw new Refused('role-not-allowed', { role: who.me.role });
  return handle(who, route.most ?? MOST_BYTES);
}

/** A browser says which page a request came from; a script says nothing of it. */
function isForeign(c: Context, { config }: World): boolean {
  const origin = c.req.header('origin');
  if (origin === undefined || c.req.method === 'GET') return false;
  const own = new URL(config.publicUrl);
  if (origin === own.origin) return false;
  // On this machine alone the port may be another than the one that was named, and the name another one of its own.
  const from = URL.canParse(origin) ? new URL(origin) : null;
  const isHere = from !== null && LOOPBACK.has(from.hostname) && LOOPBACK.has(own.hostname);
  return !isHere || from.host !== c.req.header('host');
}

const LOOPBACK: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]']);

const refuseForeign = (c: Context): Response => refuse(c, new Refused('foreign-origin'));

type Who = Pick<Asked, 'me' | 'session'>;

/** A personal access key in the header, for scripts; a wrong one is nobody, whatever cookie comes with it. */
async function byKey(c: Context, world: World): Promise<Who | null> {
  const key = /^Bearer (\S{1,200})$/.exec(c.req.header('authorization') ?? '')?.[1];
  if (key === undefined) return null;
  const person = await personOfKey(world.db, hashOf(key));
  if (person === null) throw new Refused('key-unknown');
  return {
    me: { id: person.id, name: person.name, initials: person.initials, role: person.role, demo: world.config.demo },
    session: null,
  };
}

async function bySession(c: Context, world: World, auth: Auth): Promise<Who | null> {
  const found = await sessionOf(c, world, auth);
  if (found === null || found.user.retired) return null;
  const { user, session } = found;
  return {
    me: { id: user.id, name: user.name, initials: user.initials, role: user.role as Role, demo: world.config.demo },
    session: { id: session.id, token: session.token },
  };
}

/**
 * Where a request came from: the proxy's last word where there is one, else the connection's own; nobody else is
 * believed.
 */
function addressOf(c: Context, behindProxy: boolean): string {
  const forwarded = behindProxy ? c.req.header('x-forwarded-for')?.split(',').at(-1)?.trim() : undefined;
  const socket = (c.env as { incoming?: { socket?: { remoteAddress?: string } } } | undefined)?.incoming?.socket;
  return forwarded ?? socket?.remoteAddress ?? '';
}

/**
 * The sign-in library hides why it failed: the database is asked itself, so that being away is told from being wrong.
 * Where it was away for a moment only, the library is asked once more.
 */
async function sessionOf(
  c: Context,
  world: World,
  auth: Auth,
): Promise<Awaited<ReturnType<Auth['api']['getSession']>>> {
  const { headers } = c.req.raw;
  try {
    return await auth.api.getSession({ headers });
  } catch {
    await world.db.query('select 1');
    return auth.api.getSession({ headers });
  }
}

function refuse(c: Context, { status, code, params, message }: Refused): Response {
  return c.json({ code, params: Object(params) as Refusal['params'], message } satisfies Refusal, status);
}

/** Built files by their name; every other address is one of the screens'. */
function screens(app: Hono, world: World): void {
  const root = world.config.webFolder;
  app.use('/assets/*', async (c, next) => {
    await next();
    if (c.res.ok) c.header('cache-control', 'public, max-age=31536000, immutable');
  });
  const files = serveStatic({ root: '', rewriteRequestPath: (path) => join(root, path) });
  app.use('*', (c, next) => (c.req.path === '/' ? next() : files(c, next)));
  app.get('*', (c) => {
    // Who is there is asked beside the scripts, and not after them; where somebody only comes in, the answer would be
    // out of date when it is wanted.
    if (!/^\/(?:welcome|yours|sent)/.test(c.req.path))
      c.header('link', '</api/me>; rel=preload; as=fetch; crossorigin=anonymous');
    try {
      return c.html(readFileSync(join(root, 'index.html'), 'utf8'));
    } catch {
      return c.text('The screens are not built: run npm run build.', 503);
    }
  });
}
