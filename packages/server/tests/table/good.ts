/** For every row of the table of endpoints a request that is done, with what it needs made before it. */
import { createHash, randomUUID } from 'node:crypto';
import { cpSync, lstatSync, mkdirSync, readFileSync, renameSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ENDPOINTS, type EndpointName, type Role, type Spec } from '@nesting/contract';
import { insertCheck } from '../../src/db/queries/checks/checks';
import { PASSWORD, startOf, type TestWorld } from '../world';

export interface Sent {
  readonly as: Role | null;
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string>>;
  readonly body?: unknown;
}

export interface Ground {
  readonly t: TestWorld;
  /** A project that runs, its folder, and what it was changed by. */
  readonly project: string;
  readonly root: string;
  readonly batch: string;
  next(): number;
}

type Reply = Readonly<Record<string, unknown>> & { readonly id: string };

export function addressOf(row: Spec, { params = {}, query }: Sent): string {
  const address = row.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
  return query === undefined ? address : `${address}?${new URLSearchParams(query)}`;
}

/** @throws where it is not done */
export async function done(ground: Ground, name: EndpointName, sent: Sent): Promise<unknown> {
  const response = await ask(ground.t, name, sent);
  if (!response.ok) throw new Error(`${name}: ${response.status} ${await response.text()}`);
  await settled(ground.t);
  return response.status === 204 ? null : response.json().catch(() => null);
}

const passwords = new WeakMap<TestWorld, readonly { readonly id: string; readonly password: string }[]>();

/** A request that was broken here and there may all the same have changed one. */
async function passwordsAsTheyWere(t: TestWorld): Promise<void> {
  const known =
    passwords.get(t) ??
    (await t.world.db.query<{ id: string; password: string }>('select id, password from credential')).rows;
  passwords.set(t, known);
  for (const { id, password } of known)
    await t.world.db.query('update credential set password = $2 where id = $1', [id, password]);
}

/** What a request has set going has ended. */
export async function settled({ world }: TestWorld): Promise<void> {
  await world.batches.idle();
  await world.packages.idle();
  // One that is tried again in a moment is no open job of the queue meanwhile.
  do await world.checks.idle();
  while (await isTriedAgain(world));
  await world.mails.idle();
}

async function isTriedAgain({ db }: TestWorld['world']): Promise<boolean> {
  const { rows } = await db.query(
    "select 1 from jobs.job where state = 'retry' and start_after <= now() + interval '10 seconds' limit 1",
  );
  return rows.length > 0;
}

export function ask(t: TestWorld, name: EndpointName, sent: Sent): Promise<Response> {
  const row: Spec = ENDPOINTS[name];
  const address = addressOf(row, sent);
  if (row.sentAs === 'file') return t.send(sent.as ?? 'lead', row.method, address, sent.body as Uint8Array);
  if (row.sentAs === 'form')
    return t.send(sent.as ?? 'lead', row.method, address, formOf(sent.body as Record<string, string | Uint8Array>));
  return t.ask(sent.as, row.method, address, row.method === 'GET' ? undefined : (sent.body ?? {}));
}

function formOf(parts: Readonly<Record<string, string | Uint8Array>>): FormData {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts))
    form.append(name, typeof part === 'string' ? part : new Blob([Buffer.from(part)]));
  return form;
}

const C = 'coordinator' as const;
const A = 'artist' as const;

const startIt = async (g: Ground, number = String(50_000 + g.next())) =>
  (await done(g, 'startProject', { as: C, body: startOf(number) })) as Reply & { folder: string };

export async function openGround(t: TestWorld): Promise<Ground> {
  let n = 0;
  const bare: Ground = { t, project: '', root: '', batch: '', next: () => ++n };
  const { id, folder } = await startIt(bare, '50000');
  const with_ = { ...bare, project: id, root: path.join(t.studio, folder) };
  return { ...with_, batch: await grown(with_) };
}

const projectOf = async (g: Ground) =>
  (await done(g, 'readProject', { as: C, params: { id: g.project } })) as Reply & {
    version: number;
    number: string;
    values: Record<string, unknown>;
    template: { id: string; edition: number };
    adjusted: object;
    body: unknown;
  };

/** A change of the project, as somebody thinks it over: one window more, or one less. */
async function growth(g: Ground) {
  const { version, values, template, adjusted } = await projectOf(g);
  const windows = values.windows as readonly string[];
  const more = windows.includes('C') ? ['A', 'B'] : ['A', 'B', 'C'];
  return { version, template: template.id, edition: template.edition, values: { ...values, windows: more }, adjusted };
}

async function planned(g: Ground) {
  const body = await growth(g);
  const plan = (await done(g, 'planReshape', { as: C, params: { id: g.project }, body })) as { fingerprint: string };
  return { ...body, fingerprint: plan.fingerprint };
}

const grown = async (g: Ground): Promise<string> =>
  ((await done(g, 'applyReshape', { as: C, params: { id: g.project }, body: await planned(g) })) as { batch: string })
    .batch;

/** A finding that nobody has. */
async function found(g: Ground): Promise<string> {
  const name = `loose-${g.next()}.txt`;
  writeFileSync(path.join(g.root, name), name);
  await done(g, 'askCheck', { as: A, params: { id: g.project }, body: { what: 'whole' } });
  const list = (await done(g, 'listFindings', {
    as: A,
    params: { id: g.project },
    query: { group: 'none', find: name },
  })) as { rows: { id: string }[] };
  return list.rows[0]?.id ?? '';
}

/** What a system left behind, as it is to be put right. */
async function littered(g: Ground) {
  const name = `._litter-${g.next()}`;
  writeFileSync(path.join(g.root, name), name);
  // What was written a moment ago waits.
  utimesSync(path.join(g.root, name), 1_700_000_000, 1_700_000_000);
  await done(g, 'askCheck', { as: A, params: { id: g.project }, body: { what: 'whole' } });
  const list = (await done(g, 'listFindings', {
    as: A,
    params: { id: g.project },
    query: { group: 'none', find: name },
  })) as { rows: { id: string }[] };
  return { ids: list.rows.map((row) => row.id) };
}

async function repairPlanned(g: Ground) {
  const body = await littered(g);
  const plan = (await done(g, 'planRepair', { as: C, params: { id: g.project }, body })) as {
    fingerprint: string;
    now: number;
  };
  return { ...body, fingerprint: plan.fingerprint, now: plan.now };
}

/** What the next project would be, with a file that comes along. */
async function toCarry(g: Ground) {
  const number = String(50_000 + g.next());
  writeFileSync(path.join(g.root, `note-${number}.txt`), number);
  return { target: { kind: 'new', start: { ...startOf(number), key: randomUUID() } }, way: {} };
}

/** The same, into a folder of somebody's computer. */
async function hereToCarry(g: Ground) {
  const { target, way } = await toCarry(g);
  return { target: { kind: 'here', start: target.start, path: '/home/ines/work' }, way };
}

async function carryPlanned(g: Ground) {
  const body = await toCarry(g);
  const plan = (await done(g, 'planCarry', { as: C, params: { id: g.project }, body })) as { fingerprint: string };
  return { ...body, fingerprint: plan.fingerprint };
}

/** A heap with one file that finds its place, looked through. */
async function heapRead(g: Ground) {
  const folder = `heap-${g.next()}`;
  mkdirSync(path.join(g.t.studio, folder), { recursive: true });
  writeFileSync(path.join(g.t.studio, folder, `permit ${folder}.pdf`), `%PDF-1.4 ${folder}`);
  const body = { volume: 'studio', folder };
  await done(g, 'readIntake', { as: C, params: { id: g.project }, body });
  return body;
}

async function intakePlanned(g: Ground) {
  const body = { ...(await heapRead(g)), placed: { '': { folder: '10_paperwork', comes: true } } };
  const plan = (await done(g, 'planIntake', { as: C, params: { id: g.project }, body })) as { fingerprint: string };
  return { ...body, fingerprint: plan.fingerprint };
}

/** The end of a list of no entries. */
const EMPTY_ZIP = Buffer.from(`504b0506${'00'.repeat(18)}`, 'hex');

const SENT = Buffer.from('a letter');
const SENT_HASH = createHash('sha256').update(SENT).digest('hex');

function toSend(g: Ground) {
  const files = [{ path: 'in/letter.txt', size: SENT.length, modified: 1_700_000_000_000 }];
  return { volume: 'studio', name: `from a laptop ${g.next()}`, files };
}

async function uploadBegun(g: Ground): Promise<string> {
  await done(g, 'saveInbox', { as: C, params: { name: 'studio' }, body: { isInbox: true } });
  return ((await done(g, 'beginUpload', { as: A, body: toSend(g) })) as { id: string }).id;
}

async function pieceSent(g: Ground): Promise<string> {
  const id = await uploadBegun(g);
  await done(g, 'sendPiece', { as: A, params: { id }, query: { file: '0', at: '0' }, body: SENT });
  return id;
}

async function packPlanned(g: Ground) {
  const body = { selection: { comes: 'everything' }, kind: 'zip' };
  const plan = (await done(g, 'planPack', { as: C, params: { id: g.project }, body })) as { fingerprint: string };
  return { ...body, fingerprint: plan.fingerprint, volume: 'studio', folder: 'packages', name: `package ${g.next()}` };
}

/** A package that is done, or that somebody has stopped. */
async function packed(g: Ground, state = 'done') {
  const body = { ...(await packPlanned(g)), key: randomUUID() };
  await done(g, 'applyPack', { as: C, params: { id: g.project }, body });
  await g.t.world.db.query('update package set state = $2 where id = $1', [body.key, state]);
  return { id: body.key };
}

/** A project of its own in the archive: what is done with it touches no other. */
async function shelved(g: Ground) {
  const number = String(60_000 + g.next());
  const { id } = (await done(g, 'startProject', { as: C, body: startOf(number) })) as { id: string };
  const body = { selection: { isForOutsiders: false }, kind: 'zip' };
  const { fingerprint } = (await done(g, 'planPack', { as: C, params: { id }, body })) as { fingerprint: string };
  const key = randomUUID();
  const asked = { ...body, fingerprint, key, volume: 'studio', folder: 'packages', name: number, purpose: 'archive' };
  await done(g, 'applyPack', { as: C, params: { id }, body: asked });
  return { id: key, number };
}

const NEXT_MONTH = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);

async function sent(g: Ground) {
  const params = await packed(g);
  const { link } = (await done(g, 'sendPackage', { as: C, params, body: { until: NEXT_MONTH } })) as { link: string };
  return { params, secret: link.split('#')[1] ?? '' };
}

async function keptWay(g: Ground) {
  const params = { id: 'window-piece', name: `as always ${g.next()}` };
  await done(g, 'keepCarryWay', { as: C, params, body: { way: { version: 'keep' } } });
  return params;
}

const PACK_WAY = { kind: 'zip', isSideBySide: false, purpose: 'handover' };

/** Nobody waits for it. */
const IN_A_YEAR = new Date(Date.now() + 365 * 86_400_000).toISOString();

const laterRepair = async (g: Ground): Promise<string> =>
  (
    (await done(g, 'repairLater', {
      as: C,
      params: { id: g.project },
      body: { ...(await repairPlanned(g)), beginsAt: IN_A_YEAR },
    })) as { id: string }
  ).id;

const proposed = async (g: Ground): Promise<string> =>
  (
    (await done(g, 'propose', { as: A, params: { id: g.project }, body: { asked: await littered(g) } })) as {
      id: string;
    }
  ).id;

const repaired = async (g: Ground): Promise<string> =>
  (
    (await done(g, 'applyRepair', { as: C, params: { id: g.project }, body: await repairPlanned(g) })) as {
      batch: string;
    }
  ).batch;

const withFinding =
  (body: object, as: Role = C) =>
  async (g: Ground): Promise<Sent> => ({
    as,
    params: { id: g.project },
    body: { ids: [await found(g)], ...body },
  });

const templateOf = async (g: Ground, id = 'window-piece') =>
  (
    (await done(g, 'listTemplates', { as: A })) as { id: string; template: object; draft: { version: number } | null }[]
  ).find((row) => row.id === id);

async function templateDraft(g: Ground) {
  const row = await templateOf(g);
  return { template: row?.template, version: row?.draft?.version ?? 0 };
}

async function fresh(g: Ground): Promise<string> {
  const template = { ...(await templateOf(g))?.template, name: `Piece ${g.next()}`, id: undefined };
  const made = await done(g, 'newTemplate', {
    as: C,
    body: { template, starters: [], from: { template: 'window-piece', edition: 1 } },
  });
  return (made as Reply).id;
}

const CONVENTION = { name: 'Notes', pattern: '{number}_note_v{version:000}.{ext}' };

async function convention(g: Ground): Promise<string> {
  const body = { convention: { ...CONVENTION, name: `Notes ${g.next()}` } };
  return ((await done(g, 'newConvention', { as: C, body })) as Reply).id;
}

const conventionDraft = async (g: Ground, id: string) =>
  ((await done(g, 'listConventions', { as: A })) as { id: string; draft: { version: number } | null }[]).find(
    (row) => row.id === id,
  )?.draft?.version ?? 0;

const folders = [{ id: 'inside', name: 'inside' }];

async function block(g: Ground): Promise<string> {
  const body = { template: 'window-piece', body: { name: `Part ${g.next()}`, folders } };
  return ((await done(g, 'shareBlock', { as: C, body })) as Reply).id;
}

async function blockDraft(g: Ground) {
  const id = await block(g);
  const body = { body: { name: id, folders: [...folders, { id: 'more', name: 'more' }] }, version: 0 };
  const { version } = (await done(g, 'keepBlock', { as: C, params: { id }, body })) as { version: number };
  return { id, version };
}

async function client(g: Ground): Promise<string> {
  const code = `C${g.next()}`;
  await done(g, 'addEntry', { as: C, params: { list: 'clients' }, body: { cells: { code, name: `Client ${code}` } } });
  return code;
}

const letters = (n: number) =>
  `${String.fromCharCode(65 + (Math.floor(n / 26) % 26))}${String.fromCharCode(65 + (n % 26))}`;

const someone = (g: Ground) => {
  const n = g.next();
  return { name: `Somebody ${n}`, email: `s${n}@x.example`, initials: `Z${letters(n)}`, role: 'artist', does: '' };
};

async function invited(g: Ground) {
  const person = someone(g);
  const { id } = (await done(g, 'invite', { as: C, body: person })) as Reply;
  return { id, person };
}

async function token(g: Ground): Promise<string> {
  const { id } = await invited(g);
  await done(g, 'linkPerson', { as: C, params: { id } });
  const { rows } = await g.t.world.db.query<{ body: string }>('select body from mail order by id desc limit 1');
  return /#(\S+)/.exec(rows[0]?.body ?? '')?.[1] ?? '';
}

/** A folder of one's own that looks like the project's, as a copy has it. */
async function copied(g: Ground) {
  const folder = `copy-${g.next()}`;
  cpSync(g.root, path.join(g.t.studio, folder), { recursive: true });
  return { volume: 'studio', folder };
}

const LISTING = '20_pieces\n90_delivery\n';

function loose(g: Ground): string {
  const folder = `found-${g.next()}`;
  for (const inside of LISTING.trim().split('\n'))
    mkdirSync(path.join(g.t.studio, folder, inside), { recursive: true });
  return folder;
}

const nothing = (as: Role) => (): Sent => ({ as });
const ofProject =
  (as: Role, more: Partial<Sent> = {}) =>
  (g: Ground): Sent => ({ as, params: { id: g.project }, ...more });
const ofTwo =
  (more: Readonly<Record<string, string>>) =>
  (g: Ground): Sent => ({ as: A, query: { left: g.project, right: g.project, ...more } });
const bytes = () => new TextEncoder().encode('# A note\n');
const rules = () => new Uint8Array(readFileSync('demo/templates/facade-show.nest.json'));

export const GOOD: { readonly [Name in EndpointName]: (ground: Ground) => Sent | Promise<Sent> } = {
  health: () => ({ as: null }),
  metrics: () => ({ as: null }),
  describe: () => ({ as: null }),
  entrance: () => ({ as: null }),
  demoSignIn: () => ({ as: null, body: { initials: 'DE' } }),
  signIn: () => ({ as: null, body: { email: 'lead@tallow-street.example', password: 'a long enough password' } }),
  // Nobody's session: whoever is signed in asks on.
  signOut: () => ({ as: null }),
  me: nothing('lead'),

  listPeople: nothing(C),
  invite: (g) => ({ as: C, body: someone(g) }),
  savePerson: async (g) => {
    const { id, person } = await invited(g);
    return { as: C, params: { id }, body: { ...person, does: 'grading', version: 1 } };
  },
  linkPerson: async (g) => ({ as: C, params: { id: (await invited(g)).id } }),
  leavePerson: async (g) => ({ as: C, params: { id: (await invited(g)).id } }),
  returnPerson: async (g) => {
    const { id } = await invited(g);
    await done(g, 'leavePerson', { as: C, params: { id } });
    return { as: C, params: { id } };
  },
  lookAtLink: async (g) => ({ as: null, body: { token: await token(g) } }),
  acceptLink: async (g) => ({ as: null, body: { token: await token(g), password: 'another long password' } }),
  forgot: () => ({ as: null, body: { email: 'nobody@x.example' } }),
  changePassword: async ({ t }) => {
    await passwordsAsTheyWere(t);
    return { as: A, body: { old: PASSWORD, password: PASSWORD, keepKeys: true } };
  },
  listKeys: nothing(A),
  makeKey: (g) => ({ as: A, body: { name: `script ${g.next()}`, days: 5 } }),
  dropKey: async (g) => {
    await done(g, 'makeKey', { as: A, body: { name: `script ${g.next()}`, days: 5 } });
    const [key] = (await done(g, 'listKeys', { as: A })) as Reply[];
    return { as: A, params: { id: key?.id ?? '' } };
  },
  listSessions: nothing(A),
  endSession: async (g) => {
    await done(g, 'signIn', {
      as: null,
      body: { email: 'artist@tallow-street.example', password: PASSWORD },
    });
    const rows = (await done(g, 'listSessions', { as: A })) as { id: string; here: boolean }[];
    return { as: A, params: { id: rows.find((row) => !row.here)?.id ?? '' } };
  },

  listProjects: () => ({ as: A, query: { find: '50', by: 'number', limit: '5' } }),
  writeStart: (g) => ({ as: C, query: { as: 'sh' }, body: startOf(String(60_000 + g.next())) }),
  pathsThere: () => ({ as: C, body: { volume: 'studio', folder: 'anywhere', paths: ['a', 'b/c'] } }),
  signposts: (g) => ({ as: A, params: { project: g.project }, query: { as: 'json', system: 'linux' } }),
  startProject: (g) => ({ as: C, body: { ...startOf(String(50_000 + g.next())), key: randomUUID() } }),
  // Told only while a start is being written: `projects.test.ts` asks just then.
  makingOf: () => ({ as: C, params: { key: randomUUID() } }),
  lookAtTarget: () => ({ as: C, body: { number: '50000', volume: 'studio', folder: 'anywhere' } }),
  readProject: ofProject(A),
  editProject: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { version: (await projectOf(g)).version, teamNote: 'x' },
  }),
  markProject: ofProject(A, { body: { pinned: true } }),
  tickFirstDay: async (g) => {
    const sql = 'insert into first_day (project_id, place, words) values ($1, 0, $2) on conflict do nothing';
    await g.t.world.db.query(sql, [g.project, 'Say hello']);
    return { as: A, params: { id: g.project, place: '0' }, body: { done: true } };
  },
  filesInFolder: ofProject(A, { query: { path: '20_pieces' } }),
  dueInProject: (g) => ({ as: A, params: { id: g.project } }),
  listingOfProject: ofProject(C),
  namesOfConvention: ofProject(A, { query: { convention: 'working-file' } }),
  askName: ofProject(A, {
    body: {
      convention: 'working-file',
      folder: '20_pieces/window-A',
      values: { window: 'A', task: 'anim', ext: 'png' },
    },
  }),

  fitFolder: (g) => ({ as: C, body: { volume: 'studio', folder: loose(g), values: {} } }),
  adoptFolder: (g) => {
    const number = String(50_000 + g.next());
    const { values } = startOf(number);
    return { as: C, body: { volume: 'studio', folder: loose(g), template: 'window-piece', edition: 1, values } };
  },
  compareCopies: ofProject(C),
  ownCopy: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { ...(await copied(g)), number: String(50_000 + g.next()) },
  }),
  leaveCopy: async (g) => ({ as: C, params: { id: g.project }, body: await copied(g) }),

  planReshape: async (g) => ({ as: C, params: { id: g.project }, body: await growth(g) }),
  writePlan: async (g) => ({ as: C, params: { id: g.project }, query: { as: 'csv' }, body: await growth(g) }),
  applyReshape: async (g) => ({ as: C, params: { id: g.project }, body: { ...(await planned(g)), key: randomUUID() } }),
  planRepair: async (g) => ({ as: C, params: { id: g.project }, body: await littered(g) }),
  lookForMentions: async (g) => ({ as: C, params: { id: g.project }, body: await littered(g) }),
  writeRepair: async (g) => ({
    as: C,
    params: { id: g.project },
    query: { as: 'csv' },
    body: await littered(g),
  }),
  applyRepair: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { ...(await repairPlanned(g)), key: randomUUID() },
  }),
  planCarry: async (g) => ({ as: C, params: { id: g.project }, body: await toCarry(g) }),
  writeCarry: async (g) => ({ as: C, params: { id: g.project }, query: { as: 'csv' }, body: await toCarry(g) }),
  carryHere: async (g) => {
    const body = await hereToCarry(g);
    const { fingerprint } = (await done(g, 'planCarry', { as: C, params: { id: g.project }, body })) as {
      fingerprint: string;
    };
    return { as: C, params: { id: g.project }, body: { ...body, fingerprint } };
  },
  filePiece: (g) => {
    const name = `piece-${g.next()}.txt`;
    writeFileSync(path.join(g.root, name), name);
    const { size, mtimeMs } = lstatSync(path.join(g.root, name));
    const query = { path: name, at: '0', size: `${size}`, modified: `${mtimeMs}` };
    return { as: C, params: { id: g.project }, query };
  },
  applyCarry: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { ...(await carryPlanned(g)), key: randomUUID() },
  }),
  listInboxes: () => ({ as: C }),
  beginUpload: async (g) => {
    await uploadBegun(g);
    return { as: A, body: toSend(g) };
  },
  readUpload: async (g) => ({ as: A, params: { id: await uploadBegun(g) } }),
  sendPiece: async (g) => ({
    ...{ as: A, params: { id: await uploadBegun(g) }, body: SENT },
    query: { file: '0', at: '0' },
  }),
  endFile: async (g) => ({ as: A, params: { id: await pieceSent(g) }, body: { file: 0, pieces: [SENT_HASH] } }),
  endUpload: async (g) => ({ as: A, params: { id: await pieceSent(g) } }),
  saveInbox: () => ({ as: C, params: { name: 'studio' }, body: { isInbox: false } }),
  openZip: async (g) => {
    await done(g, 'saveInbox', { as: C, params: { name: 'studio' }, body: { isInbox: true } });
    const path = `from a client ${g.next()}.zip`;
    writeFileSync(`${g.t.studio}/${path}`, EMPTY_ZIP);
    return { as: C, params: { name: 'studio' }, body: { path } };
  },
  saveDouble: () => ({ as: C, params: { name: 'studio' }, body: { double: null } }),
  heapCopies: async (g) => ({ as: C, params: { id: g.project }, query: await heapRead(g) }),
  readingOfIntake: (g) => ({ as: C, params: { id: g.project }, query: { volume: 'studio', folder: 'heap' } }),
  readIntake: async (g) => ({ as: C, params: { id: g.project }, body: await heapRead(g) }),
  planIntake: async (g) => ({ as: C, params: { id: g.project }, body: await heapRead(g) }),
  writeIntake: async (g) => ({ as: C, params: { id: g.project }, query: { as: 'pairs' }, body: await heapRead(g) }),
  looseFile: async (g) => {
    const heap = await heapRead(g);
    return { as: C, params: { id: g.project }, query: { ...heap, path: `permit ${heap.folder}.pdf` } };
  },
  applyIntake: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { ...(await intakePlanned(g)), key: randomUUID() },
  }),
  planPack: (g) => ({ as: C, params: { id: g.project }, body: { selection: { within: '10_paperwork' } } }),
  applyPack: async (g) => ({
    as: C,
    params: { id: g.project },
    body: { ...(await packPlanned(g)), key: randomUUID() },
  }),
  listPackages: (g) => ({ as: A, query: { project: g.project } }),
  stopPackage: async (g) => ({ as: C, params: await packed(g, 'queued') }),
  goOnPackage: async (g) => ({ as: C, params: await packed(g, 'waits'), body: { mayLeaveOut: true } }),
  dropPackage: async (g) => ({ as: C, params: await packed(g, 'stopped') }),
  provePackage: async (g) => ({ as: A, params: await packed(g) }),
  freeOriginal: async (g) => {
    const { id, number } = await shelved(g);
    return { as: C, params: { id }, body: { number } };
  },
  bringPart: async (g) => ({
    ...{ as: C, params: { id: (await shelved(g)).id }, body: { volume: 'studio', within: '10_paperwork' } },
  }),
  bringBack: async (g) => ({ as: C, params: { id: (await shelved(g)).id }, body: { volume: 'studio' } }),
  compareReturned: async (g) => ({
    as: C,
    params: await packed(g),
    body: { volume: 'studio', folder: (await heapRead(g)).folder },
  }),
  findInPackages: () => ({ as: A, query: { find: 'notes' } }),
  readVerdict: async (g) => ({ as: A, params: await packed(g) }),
  sendPackage: async (g) => ({ as: C, params: await packed(g), body: { until: NEXT_MONTH, word: 'pier' } }),
  revokeLink: async (g) => {
    const { params } = await sent(g);
    const { rows } = await g.t.world.db.query<{ id: string }>('select id from package_link where package_id = $1', [
      params.id,
    ]);
    return { as: C, params: { ...params, link: rows[0]?.id ?? '' } };
  },
  openSent: async (g) => ({ as: null, body: { secret: (await sent(g)).secret } }),
  downloadSent: async (g) => {
    const { download } = (await done(g, 'openSent', { as: null, body: { secret: (await sent(g)).secret } })) as {
      download: string;
    };
    return { as: null, params: { pass: download.split('/')[3] ?? '' } };
  },
  listMentions: (g) => ({ as: A, params: { id: g.project, batch: g.batch } }),
  listCarryWays: () => ({ as: C, params: { id: 'window-piece' } }),
  keepCarryWay: (g) => ({
    as: C,
    params: { id: 'window-piece', name: `again ${g.next()}` },
    body: { way: { folders: { pieces: 'everything' }, words: [{ old: 'draft', new: null }] } },
  }),
  dropCarryWay: async (g) => ({ as: C, params: await keptWay(g) }),
  listPackWays: () => ({ as: C, params: { id: 'window-piece' } }),
  keepPackWay: (g) => ({
    as: C,
    params: { id: 'window-piece', name: `for the client ${g.next()}` },
    body: { way: { ...PACK_WAY, selection: { comes: 'current', folders: { pieces: 'everything' } } } },
  }),
  dropPackWay: async (g) => {
    const params = { id: 'window-piece', name: `for the shelf ${g.next()}` };
    await done(g, 'keepPackWay', { as: C, params, body: { way: { ...PACK_WAY, selection: {} } } });
    return { as: C, params };
  },
  repairLater: async (g) => {
    return { as: C, params: { id: g.project }, body: { ...(await repairPlanned(g)), beginsAt: IN_A_YEAR } };
  },
  listLaterRepairs: ofProject(A),
  dropLaterRepair: async (g) => ({ as: C, params: { id: g.project, later: await laterRepair(g) } }),
  propose: async (g) => ({ as: A, params: { id: g.project }, body: { asked: await littered(g) } }),
  listProposals: () => ({ as: A }),
  readProposal: async (g) => ({ as: A, params: { id: await proposed(g) } }),
  refuseProposal: async (g) => ({ as: C, params: { id: await proposed(g) }, body: { word: 'not so' } }),
  findFormerNames: () => ({ as: A, query: { find: 'litter' } }),
  myFormerNames: () => ({ as: A }),
  listSetAside: () => ({ as: A }),
  freeSetAside: async (g) => ({
    as: C,
    params: { id: g.project, batch: await repaired(g) },
    body: { number: (await projectOf(g)).number },
  }),
  listBatches: ofProject(A),
  writeBatch: (g) => ({ as: A, params: { id: g.project, batch: g.batch }, query: { as: 'checksums' } }),
  readBatch: (g) => ({ as: A, params: { id: g.project, batch: g.batch } }),
  undoBatch: async (g) => ({
    as: C,
    params: { id: g.project, batch: await grown(g) },
    body: { ids: null, key: randomUUID() },
  }),
  settleBatch: async (g) => {
    await g.t.world.db.query("update batch set state = 'done' where state = 'paused'");
    const batch = await grown(g);
    await g.t.world.db.query("update batch set state = 'paused' where id = $1", [batch]);
    return { as: C, params: { id: g.project, batch }, body: { way: 'finish' } };
  },
  stopBatch: (g) => ({ as: C, params: { id: g.project, batch: g.batch } }),
  readReshapeDraft: ofProject(A),
  keepReshapeDraft: async (g) => ({ as: A, params: { id: g.project }, body: await growth(g) }),

  askCheck: ofProject(A, { body: { what: 'quick' } }),
  checksOfProject: ofProject(A),
  stopCheck: async (g) => {
    const id = randomUUID();
    const { id: project } = await startIt(g);
    await insertCheck(g.t.world.db, id, project, g.t.people.artist, 'whole');
    return { as: A, params: { id } };
  },
  goOnWithCheck: async (g) => {
    const id = randomUUID();
    const { id: project } = await startIt(g);
    await insertCheck(g.t.world.db, id, project, g.t.people.artist, 'whole');
    await g.t.world.db.query("update check_run set state = 'cancelled' where id = $1", [id]);
    await g.t.world.db.query("insert into check_gathered (check_id, body) values ($1, '')", [id]);
    return { as: A, params: { id } };
  },
  lookAtProject: ofProject(A),
  setSchedule: ofProject(C, { body: { every: 60 } }),
  referencesOf: ({ project }) => ({ as: A, params: { id: project }, query: { of: '60_briefs' } }),
  foldersOfProject: ofProject(A),
  compareProjects: ofTwo({}),
  writeComparison: ofTwo({ as: 'csv' }),
  listFindings: ofProject(A, { query: { group: 'cause', limit: '3' } }),
  findingsByFolder: ofProject(A),
  reportFindings: async (g) => {
    await found(g);
    return { as: A, params: { id: g.project }, query: { as: 'sarif' } };
  },
  acceptFindings: withFinding({ reason: 'as agreed' }),
  countAgain: withFinding({}),
  giveFindings: withFinding({ to: 'AR', note: 'please' }, A),
  makeBaseline: ofProject(C, { body: { reason: 'from now on' } }),
  listExceptions: (g) => ({ as: A, query: { project: g.project } }),
  handIn: ofProject(A, { body: { source: 'a laptop', files: 1, folders: 1, findings: [] } }),
  listHandedIn: ofProject(A),
  readHandedIn: async (g) => {
    const body = { source: 'a laptop', files: 1, folders: 1, findings: [] };
    return {
      as: A,
      params: { id: ((await done(g, 'handIn', { as: A, params: { id: g.project }, body })) as Reply).id },
    };
  },
  whoHasWhat: nothing('lead'),
  listOfPerson: () => ({ as: 'lead', params: { id: 'AR' } }),
  myFindings: nothing(A),
  sendList: async (g) => {
    await done(g, 'giveFindings', { as: C, params: { id: g.project }, body: { ids: [await found(g)], to: 'AR' } });
    return { as: C, params: { id: 'AR' } };
  },
  linkToList: () => ({ as: C, params: { id: 'AR' } }),
  openList: async (g) => {
    const { link } = (await done(g, 'linkToList', { as: C, params: { id: 'AR' } })) as { link: string };
    return { as: null, body: { secret: new URL(link).hash.slice(1) } };
  },
  overview: nothing('lead'),

  listTemplates: nothing(A),
  newTemplate: async (g) => ({
    as: C,
    body: { template: { ...(await templateOf(g))?.template, name: `Piece ${g.next()}`, id: undefined }, starters: [] },
  }),
  keepTemplate: async (g) => ({ as: C, params: { id: 'window-piece' }, body: await templateDraft(g) }),
  discardTemplate: async (g) => ({ as: C, params: { id: await fresh(g) } }),
  listEditions: () => ({ as: A, params: { id: 'window-piece' } }),
  putTemplateInForce: async (g) => {
    const kept = await done(g, 'keepTemplate', { as: C, params: { id: 'window-piece' }, body: await templateDraft(g) });
    return { as: C, params: { id: 'window-piece' }, body: { ...(kept as { version: number }), said: 'as it was' } };
  },
  templateImpact: async (g) => ({
    as: C,
    params: { id: 'window-piece' },
    body: { template: (await templateDraft(g)).template },
  }),
  archiveTemplate: async (g) => ({ as: C, params: { id: await fresh(g) }, body: { archived: true } }),
  listStarters: () => ({ as: A, params: { id: 'window-piece' } }),
  readStarter: () => ({ as: A, params: { id: 'window-piece' }, query: { path: 'starters/window-brief.md' } }),
  putStarter: () => ({ as: C, params: { id: 'window-piece' }, query: { path: 'starters/note.md' }, body: bytes() }),
  dropStarter: async (g) => ({ as: C, params: { id: await fresh(g) }, query: { path: 'starters/note.md' } }),
  exportTemplate: () => ({ as: A, params: { id: 'window-piece' }, query: { edition: '1' } }),

  listBlocks: nothing(A),
  shareBlock: (g) => ({ as: C, body: { template: 'window-piece', body: { name: `Part ${g.next()}`, folders } } }),
  blockEditions: async (g) => ({ as: A, params: { id: await block(g) } }),
  keepBlock: async (g) => ({
    as: C,
    params: { id: await block(g) },
    body: { body: { name: 'x', folders }, version: 0 },
  }),
  discardBlock: async (g) => ({ as: C, params: { id: (await blockDraft(g)).id } }),
  putBlockInForce: async (g) => {
    const { id, version } = await blockDraft(g);
    return { as: C, params: { id }, body: { version, said: 'more', take: [] } };
  },
  readBlockStarter: async (g) => {
    const sent = await (GOOD.putBlockStarter(g) as Promise<Sent>);
    await done(g, 'putBlockStarter', sent);
    return { ...sent, as: A };
  },
  putBlockStarter: async (g) => {
    const id = await block(g);
    return { as: C, params: { id }, query: { path: `starters/${id}/note.md` }, body: bytes() };
  },

  listConventions: nothing(A),
  newConvention: (g) => ({ as: C, body: { convention: { ...CONVENTION, name: `Notes ${g.next()}` } } }),
  keepConvention: async (g) => {
    const id = await convention(g);
    return {
      as: C,
      params: { id },
      body: { convention: { ...CONVENTION, id }, version: await conventionDraft(g, id) },
    };
  },
  discardConvention: async (g) => ({ as: C, params: { id: await convention(g) } }),
  putConventionInForce: async (g) => {
    const id = await convention(g);
    return { as: C, params: { id }, body: { version: await conventionDraft(g, id) } };
  },
  conventionImpact: () => ({
    as: C,
    params: { id: 'working-file' },
    body: { convention: { ...CONVENTION, id: 'working-file' } },
  }),

  exportRules: nothing(C),
  lookAtRules: () => ({ as: C, body: rules() }),
  takeRules: () => ({ as: C, body: { file: rules(), choices: '{}' } }),

  registers: nothing(A),
  readList: () => ({ as: A, params: { list: 'clients' }, query: { head: 'yes' } }),
  addEntry: (g) => ({
    as: C,
    params: { list: 'clients' },
    body: { cells: { code: `C${g.next()}`, name: `A ${g.next()}` } },
  }),
  importEntries: (g) => ({
    as: C,
    params: { list: 'clients' },
    body: {
      table: [
        ['Code', 'Name'],
        [`C${g.next()}`, 'From a table'],
      ],
      lines: [2],
    },
  }),
  mergeEntries: async (g) => ({
    as: C,
    params: { list: 'clients' },
    body: { from: await client(g), into: await client(g) },
  }),
  saveEntry: async (g) => {
    const key = await client(g);
    return { as: C, params: { list: 'clients', key }, body: { cells: { code: key, name: 'Another' }, version: 1 } };
  },
  removeEntry: async (g) => ({ as: C, params: { list: 'clients', key: await client(g) } }),
  entryHistory: async (g) => ({ as: 'lead', params: { list: 'clients', key: await client(g) } }),
  readMeanings: nothing(A),
  saveMeaning: async (g) => {
    const meanings = (await done(g, 'readMeanings', { as: A })) as Record<string, string>;
    return { as: C, params: { mark: 'teal' }, body: { words: `meant ${g.next()}`, was: meanings.teal ?? '' } };
  },
  activity: () => ({ as: 'lead', query: { text: 'started', short: 'yes' } }),
  activityTable: () => ({ as: 'lead', query: { text: 'started' } }),
  outbox: nothing(C),

  numbers: nothing('lead'),
  saveSeries: async (g) => {
    const { series, version } = (await done(g, 'numbers', { as: C })) as { series: object; version: number };
    return { as: C, body: { series, version } };
  },
  reserveNumber: (g) => ({ as: C, body: { number: `R${g.next()}`, why: 'an old job' } }),
  releaseNumber: async (g) => {
    const number = `R${g.next()}`;
    await done(g, 'reserveNumber', { as: C, body: { number, why: 'an old job' } });
    return { as: C, params: { number } };
  },
  holdNumber: () => ({ as: C, body: { year: 2031, month: 3, client: null, template: null } }),
  giveBackNumber: async (g) => {
    const held = await done(g, 'holdNumber', { as: C, body: { year: 2031, month: 3, client: null, template: null } });
    return { as: C, params: { number: (held as { number: string }).number } };
  },

  listVolumes: nothing(A),
  takeUpVolume: () => ({ as: C, params: { name: 'studio' }, body: { isAnother: false } }),
  findProjects: nothing(C),
  relink: async (g) => {
    const { id, folder } = await startIt(g);
    const moved = `moved-${g.next()}`;
    renameSync(path.join(g.t.studio, folder), path.join(g.t.studio, moved));
    return { as: C, body: { project: id, volume: 'studio', folder: moved } };
  },
  savePrefixes: () => ({
    as: C,
    params: { name: 'studio' },
    body: { windows: 'S:\\', macos: '', linux: '/mnt/studio' },
  }),
  foldersOfVolume: () => ({ as: C, params: { name: 'studio' }, query: { path: '' } }),
  listingOfVolume: (g) => ({ as: C, params: { name: 'studio' }, query: { path: path.basename(g.root) } }),
};
