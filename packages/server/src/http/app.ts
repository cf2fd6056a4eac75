/** The application: every route behind one decision by role, faults as plain refusals, the screens behind all else. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import type { Me, Refusal, Role } from '@nesting/contract';
import { DiskError } from '@nesting/disk';
import { type Context, Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { csrf } from 'hono/csrf';
import { secureHeaders } from 'hono/secure-headers';
import type { Logger } from 'pino';
import { isAway } from '../db/client';
import { personOfKey } from '../db/queries/people/access';
import { hashOf } from '../flows/people/access';
import { diskRefusal } from '../flows/place';
import { Refused, type World } from '../flows/world';
import type { Auth } from '../sign-in/auth';
import { withRequest } from './request-context';
import type { Asked, Route } from './route';
import { ROUTES } from './routes';

const NOBODY: Me = { id: '', name: '', initials: '', role: 'lead', demo: false };
/** The largest honest request is a start with long lists. */
const MOST_BYTES = 4 * 1024 * 1024;
/** Of nobody who is known: a name and a password, the secret of a link. */
const MOST_OF_NOBODY = 16 * 1024;

export function makeApp(world: World, auth: Auth, log: Logger): Hono {
  const app = new Hono();
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        fontSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        frameAncestors: ["'none'"],
        formAction: ["'self'"],
      },
      ...(world.config.publicUrl.startsWith('https:') ? {} : { strictTransportSecurity: false }),
    }),
  );
  app.use('/api/*', csrf({ origin: new URL(world.config.publicUrl).origin }));
  app.use('/api/*', async (c, next) => (isForeign(c, world) ? refuseForeign(c) : next()));
  app.use(compress());
  const fault = (error: unknown, c: Context) => answerFault(error, c, log);
  // Caught here and not by the framework alone: it knows errors of its own realm only, and hands others through.
  for (const route of ROUTES)
    app.on(route.method, route.path, (c) =>
      withRequest({ address: addressOf(c, world.config.behindProxy), signal: c.req.raw.signal }, () =>
        decide(route, c, world, auth),
      ).catch((error: unknown) => fault(error, c)),
    );
  app.all('/api/*', (c) => refuse(c, new Refused('not-found')));
  screens(app, world);
  app.onError(fault);
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

/** The one place that decides who may do what. */
async function decide(route: Route, c: Context, world: World, auth: Auth): Promise<Response> {
  if (route.roles === 'anyone')
    return upTo(MOST_OF_NOBODY, c, async () => route.handle({ c, world, auth, me: NOBODY, session: null }));
  const who = (await byKey(c, world)) ?? (await bySession(c, world, auth));
  if (who === null) return refuse(c, new Refused('not-signed-in'));
  if (!route.roles.includes(who.me.role)) return refuse(c, new Refused('role-not-allowed', { role: who.me.role }));
  return upTo(route.most ?? MOST_BYTES, c, async () => route.handle({ c, world, auth, ...who }));
}

/** Nothing of a body is read before it is known who sends it, and how much they may. */
async function upTo(maxSize: number, c: Context, handle: () => Promise<Response>): Promise<Response> {
  let handled: Response | undefined;
  const onError = () => refuse(c, new Refused('too-large'));
  const refused = await bodyLimit({ maxSize, onError })(c, async () => {
    handled = await handle();
  });
  return handled ?? refused ?? onError();
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
    if (!/^\/(?:welcome|yours)/.test(c.req.path))
      c.header('link', '</api/me>; rel=preload; as=fetch; crossorigin=anonymous');
    try {
      return c.html(readFileSync(join(root, 'index.html'), 'utf8'));
    } catch {
      return c.text('The screens are not built: run npm run build.', 503);
    }
  });
}
