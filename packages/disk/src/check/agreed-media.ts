/** Reads what files tell that the setup sheet has something to say of: after the walk, and only of those. */
import type { Cancellation } from '@nesting/core/change';
import { codeOf } from '@nesting/core/change';
import { agreedFor } from '@nesting/core/check';
import type { ProjectRules } from '@nesting/core/project';
import type { FileFacts } from '../file-facts';
import { type MediaReader, mediaReaderBeside } from '../media/reader';
import type { Tree } from '../roots/tree';
import type { Unseen } from '../walk';

interface Asked {
  readonly tree: Tree;
  readonly rules: ProjectRules;
  readonly known: readonly FileFacts[];
  readonly cancel: Cancellation | undefined;
  /** The built program that the reader stands beside, where this is not it. */
  readonly beside: URL | null;
}

/** Files read at once: one is read while the other is opened. */
const AT_ONCE = 16;

/** The same facts, with what content tells where that matters; what was read of a file that is as it was stays. */
export async function withMedia(
  asked: Asked,
  facts: readonly FileFacts[],
): Promise<{ readonly facts: readonly FileFacts[]; readonly unseen: readonly Unseen[] }> {
  const isAsked = facts.map(({ path, frames }) => frames === 1 && agreedFor(asked.rules, path).length > 0);
  if (!isAsked.includes(true)) return { facts, unseen: [] };
  const media = mediaReaderBeside(asked.beside?.href ?? import.meta.url);
  if (media === null) return { facts, unseen: [] };
  try {
    return await new Reading(asked, media).all(facts, isAsked);
  } finally {
    media.close();
  }
}

class Reading {
  private readonly known: ReadonlyMap<string, FileFacts>;
  private readonly unseen: Unseen[] = [];

  constructor(
    private readonly asked: Asked,
    private readonly media: MediaReader,
  ) {
    this.known = new Map(asked.known.flatMap((file) => (file.media === undefined ? [] : [[file.path, file]])));
  }

  async all(facts: readonly FileFacts[], isAsked: readonly boolean[]) {
    const told: FileFacts[] = [];
    for (let at = 0; at < facts.length; at += AT_ONCE) {
      const some = facts.slice(at, at + AT_ONCE).map((file, i) => (isAsked[at + i] ? this.one(file) : file));
      told.push(...(await Promise.all(some)));
    }
    return { facts: told, unseen: this.unseen };
  }

  private async one(file: FileFacts): Promise<FileFacts> {
    const { path, size, modified, inode } = file;
    if (file.media !== undefined) return file;
    const known = this.known.get(path);
    if (known?.media !== undefined && known.size === size && known.modified === modified && known.inode === inode)
      return { ...file, media: known.media };
    if (this.asked.cancel?.aborted) return file;
    try {
      return { ...file, media: await this.media.read(this.asked.tree.rootOf(path), path) };
    } catch (error) {
      this.unseen.push({ path, code: codeOf(error) });
      return file;
    }
  }
}
