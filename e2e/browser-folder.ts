/**
 * What the browser test of folders runs inside the page: plans made at random, done and undone in the origin's private
 * file system.
 */
import fc from 'fast-check';
import { applyBatch, doneAfter, type Intents, leftOf, type Outcome, reverseChanges } from '../packages/core/src/change';
import { plans } from '../packages/core/tests/plans';
import { browserJournal, browserLivePort } from '../packages/web/src/browser-disk/live-port';

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

async function apply(
  root: FileSystemDirectoryHandle,
  id: string,
  changes: Parameters<typeof applyBatch>[0]['changes'],
) {
  const journal = await browserJournal(root, id);
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
    browserLivePort(root),
    kept,
    { bytesOf },
  );
  return { outcome, intents: intents as Intents | null, outcomes };
}

export async function plansInFolder(runs: number, seed: number): Promise<readonly string[]> {
  const home = await navigator.storage.getDirectory();
  const wrong: string[] = [];
  const drawn = fc.sample(plans, { numRuns: runs, seed });
  for (const [n, plan] of drawn.entries()) {
    const root = await home.getDirectoryHandle(`plan-${n}`, { create: true });
    const disk = plan.before();
    for (const path of [...disk.places().values()].filter((p) => !p.startsWith('.nesting')).sort()) {
      let at = root;
      for (const part of path.split('/').slice(0, -1)) at = await at.getDirectoryHandle(part);
      const name = path.split('/').at(-1) as string;
      if (disk.look(path)?.kind === 'folder') await at.getDirectoryHandle(name, { create: true });
      else {
        const stream = await (await at.getFileHandle(name, { create: true })).createWritable();
        await stream.write(path);
        await stream.close();
      }
    }
    const before = await treeOf(root);
    // Times are those of this moment: that they are expected is another test's matter.
    const changes = plan.changes.map(({ expects: _expects, ...change }) => change);
    const done = await apply(root, 'b1', changes);
    const after = (await treeOf(root))
      .map((l) => (l.endsWith('/') ? l.slice(0, -1) : (l.split(' ')[0] as string)))
      .sort();
    if (done.outcome.state !== 'done' || JSON.stringify(after) !== JSON.stringify(plan.after))
      wrong.push(`${n}: ${JSON.stringify(done.outcome)} ${JSON.stringify(after)} for ${JSON.stringify(plan.after)}`);
    if (done.intents !== null) {
      const folder = '.nesting/batches/b1';
      const undone = await apply(
        root,
        'b2',
        reverseChanges(doneAfter(done.intents, done.intents.steps.length, leftOf(done.outcomes), folder), folder),
      );
      const again = await treeOf(root);
      if (undone.outcome.state !== 'done' || JSON.stringify(again) !== JSON.stringify(before))
        wrong.push(
          `${n} undone: ${JSON.stringify(undone.outcome)} ${JSON.stringify(again)} for ${JSON.stringify(before)}`,
        );
    }
    await home.removeEntry(`plan-${n}`, { recursive: true });
  }
  return wrong;
}
