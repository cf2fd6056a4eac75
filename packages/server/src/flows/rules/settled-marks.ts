/** The marks of rules from elsewhere become the house's own, by what they mean. */
import type { BlockFile } from '@nesting/contract';
import {
  type FolderNode,
  MARKS,
  type Mark,
  type Meanings,
  marksIn,
  type SettledMarks,
  settleMarks,
  type Template,
  withMarks,
} from '@nesting/core/template';
import type { Client } from '../../db/client';
import { readMeanings, writeMeaning } from '../../db/queries/house/marks';
import { Refused } from '../world';

/** All folders of a template, those of its shared parts too. */
export const foldersOf = ({ root, blocks }: Template): readonly FolderNode[] => [
  root,
  ...(blocks ?? []).flatMap((b) => b.folders),
];

export interface Settled<T> {
  readonly thing: T;
  /** What the thing's marks mean, in the house's marks. */
  readonly meanings: Meanings;
  /** What became of marks that could not stay as they came. */
  readonly words: readonly string[];
}

export function settleTemplate(template: Template, theirs: Meanings, ours: Meanings): Settled<Template> {
  const { marks, meanings } = settleMarks(marksIn(foldersOf(template)), theirs, ours);
  const thing: Template = {
    ...template,
    root: withMarks(template.root, marks),
    ...(template.blocks === undefined
      ? {}
      : { blocks: template.blocks.map((b) => ({ ...b, folders: b.folders.map((f) => withMarks(f, marks)) })) }),
  };
  return { thing, meanings, words: wordsOf(marks, theirs) };
}

export function settleBlock(block: BlockFile, theirs: Meanings, ours: Meanings): Settled<BlockFile> {
  const { marks, meanings } = settleMarks(marksIn(block.folders), theirs, ours);
  const thing = { ...block, folders: block.folders.map((f) => withMarks(f, marks)) };
  return { thing, meanings, words: wordsOf(marks, theirs) };
}

const wordsOf = (marks: SettledMarks['marks'], theirs: Meanings): string[] =>
  [...marks].flatMap(([mark, given]) =>
    given === null ? [`No mark is free for “${theirs[mark]}”: its folders have the mark of the folder above`] : [],
  );

/** Gives free marks the meanings they have in what is taken in; in the transaction that takes it in. */
export async function addMeanings(client: Client, added: readonly Meanings[]): Promise<void> {
  const ours: Partial<Record<Mark, string>> = { ...(await readMeanings(client, true)) };
  for (const meanings of added)
    for (const mark of MARKS) {
      const words = meanings[mark];
      if (words === undefined || words === ours[mark]) continue;
      if (ours[mark] !== undefined || !(await writeMeaning(client, mark, words, '')))
        throw new Refused('rules-changed', { name: 'The list of marks' });
      ours[mark] = words;
    }
}
