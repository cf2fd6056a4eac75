/** Templates, blocks, conventions, and files of rules: what is refused of them. */
import type { Coded } from '../../result';
import { wordsFor } from '../findings';

interface Named {
  readonly name: string;
}

const FILES = {
  'no-zip': (what: string) => `This is no zip that can be read (${what}).`,
  'too-many-files': (most: string) => `The zip holds more than ${most} files.`,
  'file-too-large': (path: string) => `${path} is larger than a starter file may be.`,
  'unpacks-too-large': () => 'The zip unpacks to more than rules may hold.',
  'no-rules': () => 'There are no rules in this file: no template, convention, shared part or lists.',
  fault: (what: string) => what,
} as const;
type FileFault = keyof typeof FILES;

export const RULE_REFUSALS = {
  'no-template': () => 'There is no such template, or no such edition of it. Nothing was changed.',
  'no-block': () => 'This shared part does not exist any more.',
  'convention-gone': () => 'This convention does not exist any more.',
  'draft-changed': () =>
    'Somebody else has changed this draft since. What you wrote is still in this window; what they changed can be looked at first.',
  'draft-not-seen': () =>
    'The draft is not the one you looked at any more. Nothing was put in force; reload to see it.',
  'draft-unusable': (p: { readonly at: string; readonly because: Coded }) =>
    `${p.at === '' ? '' : `${p.at}: `}${wordsFor(p.because.code, p.because.params)} Nothing was put in force.`,
  'block-unusable': (p: { readonly template: string; readonly at: string; readonly because: Coded }) =>
    `In ${p.template}, ${p.at || 'the template'}: ${wordsFor(p.because.code, p.because.params)} Nothing was put in force.`,
  'starter-path': () => 'A starter file needs a path inside the template. Nothing was changed.',
  'block-starter-path': () =>
    'A starter file of a shared part lies under the name of the shared part. Nothing was changed.',
  'file-there': (p: Named & { readonly path: string }) =>
    `The shared part ${p.name} has another file ${p.path} in an edition in force; give this one another name. Nothing was changed.`,
  'rules-changed': (p: Named) =>
    `${p.name} is not as it was when this was looked at. Nothing was taken in; look again.`,
  'draft-there': (p: Named) =>
    `${p.name} has a draft that somebody is writing. Put it in force or discard it first; nothing was taken in.`,
  'file-unusable': (p: { readonly why: FileFault; readonly what: string }) =>
    `${FILES[p.why](p.what)} Nothing was taken in.`,
} as const;
