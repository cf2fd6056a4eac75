/**
 * What the browser test of folders runs inside the page: plans made at random, done and undone in the origin's private
 * file system.
 */
import fc from 'fast-check';
import {
  applyBatch,
  doneAfter,
  HOME,
  type Intents,
  leftOf,
  type Outcome,
  placeKey,
  type RootId,
  reverseChanges,
} from '../packages/core/src/change';
import { plansInTwo, SHELF } from '../packages/core/tests/plans';
import { browserJournal } from '../packages/web/src/browser-disk/journal';
import { browserPort } from '../packages/web/src/browser-disk/port';

async function treeOf(folder: FileSystemDirectoryHandle, below = ''): Promise<string[]> {
  const out: string[] = [];
  for await (const [name, handle] of folder.entries()) {
    if (below === '' && name === '.nesting') continue;
    if (handle.kind === 'directory')
      out.push(`${below}${name}/`, ...(await treeOf(handle as FileSystemDirectoryHandle, `${below}${name}/`)));
    else out.push(`${below}${name} ${await (await (handle as FileSystemFileHandle).getFile()).text()}`);
  }
  return out.sort();
}

const bytesOf = (content: { readonly kind: string; readonly text?: string }) =>
  new TextEncoder().encode(content.text ?? '');

type Roots = ReadonlyMap<RootId, FileSystemDirectoryHandle>;

async function apply(roots: Roots, id: string, changes: Parameters<typeof applyBatch>[0]['changes']) {
  for (const root of roots.values()) await browserJournal(root, id);
  const journal = await browserJournal(roots.get(HOME) as FileSystemDirectoryHandle, id);
  let intents: Intents | null = null;
  const outcomes: Outcome[] = [];
  const kept = {
    group: 1,
    begin: (i: Intents) => {
      intents = i;
      return journal.begin(i);
    },
    outcome: (o: Outcome) => {
      outcomes.push(o);
      return journal.outcome(o);
    },
  };
  const outcome = await applyBatch(
    { id, what: 'test', by: '', at: '', undoes: null, changes, folder: `.nesting/batches/${id}` },
    browserPort(roots),
    kept,
    { bytesOf },
  );
  return { outcome, intents: intents as Intents | null, outcomes };
}

const NAMES: Readonly<Record<string, string>> = { [HOME]: '', [SHELF]: 'shelf\0' };

async function treesOf(roots: Roots): Promise<string[]> {
  const out: string[] = [];
  for (const [id, root] of roots) out.push(...(await treeOf(root)).map((line) => `${NAMES[id]}${line}`));
  return out.sort();
}

export async function plansInFolder(runs: number, seed: number): Promise<readonly string[]> {
  const home = await navigator.storage.getDirectory();
  const wrong: string[] = [];
  const drawn = fc.sample(plansInTwo, { numRuns: runs, seed });
  for (const [n, plan] of drawn.entries()) {
    const top = await home.getDirectoryHandle(`plan-${n}`, { create: true });
    const roots: Roots = new Map([
      [HOME, await top.getDirectoryHandle('home', { create: true })],
      [SHELF, await top.getDirectoryHandle('shelf', { create: true })],
    ]);
    const disk = plan.before();
    const places = [...disk.places().values()].filter(({ path }) => !path.startsWith('.nesting'));
    for (const place of places.sort((a, b) => (placeKey(a) < placeKey(b) ? -1 : 1))) {
      let at = roots.get(place.root) as FileSystemDirectoryHandle;
      for (const part of place.path.split('/').slice(0, -1)) at = await at.getDirectoryHandle(part);
      const name = place.path.split('/').at(-1) as string;
      if (disk.look(place)?.kind === 'folder') await at.getDirectoryHandle(name, { create: true });
      else {
        const stream = await (await at.getFileHandle(name, { create: true })).createWritable();
        await stream.write(Uint8Array.from(disk.read(place)));
        await stream.close();
      }
    }
    const before = await treesOf(roots);
    // Times are those of this moment: that they are expected is another test's matter.
    const changes = plan.changes.map(({ expects: _expects, ...change }) =>
      change.content?.kind === 'copy' ? { ...change, content: { ...change.content, expects: undefined } } : change,
    );
    const done = await apply(roots, 'b1', changes);
    const after = (await treesOf(roots))
      .map((l) => (l.endsWith('/') ? l.slice(0, -1) : (l.split(' ')[0] as string)))
      .sort();
    if (done.outcome.state !== 'done' || JSON.stringify(after) !== JSON.stringify(plan.after))
      wrong.push(`${n}: ${JSON.stringify(done.outcome)} ${JSON.stringify(after)} for ${JSON.stringify(plan.after)}`);
    if (done.intents !== null) {
      const folder = '.nesting/batches/b1';
      const undone = await apply(
        roots,
        'b2',
        reverseChanges(doneAfter(done.intents, done.intents.steps.length, leftOf(done.outcomes), folder)),
      );
      const again = await treesOf(roots);
      if (undone.outcome.state !== 'done' || JSON.stringify(again) !== JSON.stringify(before))
        wrong.push(
          `${n} undone: ${JSON.stringify(undone.outcome)} ${JSON.stringify(again)} for ${JSON.stringify(before)}`,
        );
    }
    await home.removeEntry(`plan-${n}`, { recursive: true });
  }
  return wrong;
}
