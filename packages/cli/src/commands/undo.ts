import { randomUUID } from 'node:crypto';
import { valueAt } from '@nesting/core';
import { HOME } from '@nesting/core/change';
import { changeLine, hindranceWords } from '@nesting/core/words';
import {
  BatchOpen,
  batchesIn,
  inRoot,
  openIn,
  type Root,
  type Roots,
  readBatch,
  settleOnDisk,
  undoneIds,
  undoOnDisk,
  undoPlan,
  volumeState,
} from '@nesting/disk';
import { withBroughtRoots } from '../brought-roots';
import { EXIT, type Exit, Unusable } from '../fail';
import type { Options } from '../input';
import { print, say } from '../output';

const now = () => new Date().toISOString();

/**
 * Takes a batch back: what can be of it, or, where it stopped half way, all of it. Without a batch's name it lists
 * them.
 */
export async function undo(options: Options): Promise<Exit> {
  const [folder, batch] = options.positionals;
  if (folder === undefined) throw new Unusable('give a project’s folder');
  if (volumeState(folder).state === 'missing') throw new Unusable(`${folder}: no such folder`);
  if (batch === undefined) return inRoot({ base: folder, folder: '' }, (root) => list(root, options.as === 'json'));
  return withBroughtRoots(folder, options, (roots) => undoIn(roots, folder, batch, options));
}

async function undoIn(roots: Roots, folder: string, batch: string, options: Options): Promise<Exit> {
  const root = valueAt(roots, HOME);
  if (readBatch(root, batch) === null)
    throw new Unusable(`${folder} has no batch ${batch}; nesting undo ${folder} lists them`);
  if (openIn(root) === batch) {
    const taken = await takeBack(roots, batch);
    if (taken !== 'was-done') return taken;
  }
  const lines = await undoPlan(roots, batch);
  if (lines === null) throw new Unusable(`batch ${batch} is not done: there is nothing to undo`);
  const hindered = lines.filter((l) => l.hindrance !== null);
  for (const { hindrance } of hindered)
    say(`stays: ${hindranceWords(hindrance?.code ?? '', hindrance?.at.path ?? '')}`);
  const can = lines.filter((l) => l.hindrance === null);
  if (options.dryRun) {
    await print(
      options.as === 'json'
        ? `${JSON.stringify(can.map((l) => l.change))}\n`
        : can.map((l) => `${changeLine(l.change)}\n`).join(''),
    );
    return hindered.length > 0 ? EXIT.findings : EXIT.ok;
  }
  if (can.length === 0) {
    say('nothing of it can be undone now');
    return EXIT.findings;
  }
  const id = randomUUID();
  const outcome = await undoOnDisk({
    roots,
    batch,
    id,
    by: process.env.USER ?? '',
    at: now(),
    ids: new Set(can.map((l) => l.change.id)),
  });
  if (outcome?.state !== 'done') {
    say(
      outcome?.state === 'paused'
        ? `${hindranceWords(outcome.code, outcome.at.path)} nesting undo ${folder} ${id} takes it back`
        : 'the disk changed meanwhile; nothing was changed',
    );
    return EXIT.findings;
  }
  await print(
    options.as === 'json'
      ? `${JSON.stringify({ batch: id, lines: can.length, stay: hindered.length })}\n`
      : `undid ${can.length} lines, as batch ${id}\n`,
  );
  return hindered.length > 0 ? EXIT.findings : EXIT.ok;
}

/** What was done, and only not closed, is undone as any other. */
async function takeBack(roots: Roots, batch: string): Promise<Exit | 'was-done'> {
  const settled = await settleOnDisk(roots, 'take-back', { by: process.env.USER ?? '', at: now() }).catch(
    (error: unknown) => {
      if (error instanceof BatchOpen) throw new Unusable(`somebody is at batch ${batch}, or was a moment ago`);
      throw error;
    },
  );
  if (settled.state === 'paused') {
    say(`${hindranceWords(settled.code, settled.at.path)} Nothing more was taken back.`);
    return EXIT.findings;
  }
  if (settled.state === 'done') return 'was-done';
  await print(`took batch ${batch} back\n`);
  return EXIT.ok;
}

async function list(root: Root, json: boolean): Promise<Exit> {
  const open = openIn(root);
  const rows = batchesIn(root).flatMap((id) => {
    const record = readBatch(root, id);
    if (record === null) return [];
    const undone = undoneIds(root, id).size;
    const { at, by, what, changes } = record.intents;
    return [
      {
        batch: id,
        at,
        by,
        what,
        changes: changes.length,
        undone,
        state: id === open ? 'open' : (record.ended?.ended ?? 'open'),
      },
    ];
  });
  rows.sort((a, b) => (a.at < b.at ? -1 : 1));
  await print(
    json
      ? rows.map((r) => `${JSON.stringify(r)}\n`).join('')
      : rows
          .map(
            (r) =>
              `${r.batch}  ${r.at}  ${r.what}  ${r.changes} changes  ${r.state}${r.undone > 0 ? `, ${r.undone} undone` : ''}  ${r.by}\n`,
          )
          .join(''),
  );
  return EXIT.ok;
}
