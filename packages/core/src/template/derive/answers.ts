/** Answers to what deriving set aside: each changes the derived template at the one folder it is about. */
import { changeFolder, findFolder, freshId, idsIn, removeFolders } from '../edit';
import type { FolderNode, Starter, Template } from '../node';
import type { Question } from './derived';

/** `as-is` is how it was derived; what the others mean stands in `ANSWERS`. */
export type AnswerTo = 'as-is' | 'optional' | 'leave-out' | 'renumber' | 'starters' | 'any-name';

/** What can be said to each question; what was derived comes first. */
export const ANSWERS: Readonly<Record<Question['code'], readonly AnswerTo[]>> = {
  /** It belongs to all alike; it may be there; it is left out with what is in it. */
  'folder-rare': ['as-is', 'optional', 'leave-out'],
  /** It keeps the number as a part of its name; it takes the next free one; it is left out with what is in it. */
  'number-twice': ['as-is', 'renumber', 'leave-out'],
  /** They are no part of the template; they are files every project starts with. */
  'file-alone': ['as-is', 'starters'],
  /** They are slips; they are right, and files there go by no convention. */
  'names-unlike': ['as-is', 'any-name'],
};

export const questionKey = (q: Question): string => `${q.code} ${q.node}`;

/** Where a starter file of this name is kept beside the template. */
export const starterPath = (name: string): string => `starters/${name}`;

export function settleQuestions(
  template: Template,
  questions: readonly Question[],
  answers: Readonly<Record<string, AnswerTo>>,
): Template {
  return questions.reduce(
    (now, question) => settle(now, question, answers[questionKey(question)] ?? 'as-is'),
    template,
  );
}

function settle(template: Template, question: Question, answer: AnswerTo): Template {
  const change = (act: (node: FolderNode) => FolderNode): Template => ({
    ...template,
    root: changeFolder(template.root, question.node, act),
  });
  switch (answer) {
    case 'as-is':
      return template;
    case 'optional':
      return change((node) => ({ ...node, presence: 'optional' }));
    case 'renumber':
      return renumbered(template, question.node);
    case 'leave-out':
      return { ...template, root: removeFolders(template.root, [question.node]) };
    case 'any-name':
      return change(({ conventions: _none, ...node }) => node);
    case 'starters': {
      const used = idsIn(template.root);
      return change((node) => ({
        ...node,
        starters: [
          ...(node.starters ?? []),
          ...question.names.map(
            (name, i): Starter => ({
              id: freshId(name, used),
              name: question.patterns[i] ?? name,
              from: starterPath(name),
            }),
          ),
        ],
      }));
    }
  }
}

/** The folder with the next free number of its parent in place of the one it shares. */
function renumbered(template: Template, id: string): Template {
  const found = findFolder(template.root, id);
  const numbering = found?.parent?.numbering;
  if (found?.parent == null || numbering === undefined) return template;
  const taken = new Set([
    ...(found.parent.folders ?? []).flatMap((f) => f.number ?? []),
    ...(numbering.reserved ?? []).map((r) => r.number),
  ]);
  let number = 1;
  while (taken.has(number)) number++;
  const bare = (name: string) => name.replace(/^\d+/, '').slice(numbering.joiner.length);
  return {
    ...template,
    root: changeFolder(template.root, id, ({ unnumbered: _shared, ...node }) => ({
      ...node,
      number,
      ...(node.name !== undefined && { name: bare(node.name) }),
    })),
  };
}
