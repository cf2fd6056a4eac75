/** What puts right a folder on this computer: planned on the listings and facts of the check that was just made of it. */
import type { RepairPlan } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import type { ContentFact } from '@nesting/core/check';
import { type FolderListing, join } from '@nesting/core/listing';
import {
  type Answer,
  type DocumentText,
  type ProjectView,
  repair,
  summaryOf,
  type ToRepair,
  type Unread,
  writingStarters,
} from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import { isReadAsText } from '@nesting/core/references';
import { placeWords, wordsFor } from '@nesting/core/words';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { applyHere, hindranceOf, type Told, whyItFailed } from '../browser-disk/batches';

export interface HereFolder {
  readonly root: FileSystemDirectoryHandle;
  readonly input: CheckInput;
  readonly roots: readonly string[];
  readonly listings: readonly FolderListing[];
  readonly facts: readonly ContentFact[];
  readonly fileOf: (path: string) => Promise<File | null>;
}

export interface CarriedOut {
  readonly batch: string;
  /** What stood in its way, in words; `null` where it came to its end. */
  readonly hindrance: string | null;
}

const MOST_LINES = 5000;

export class HereRepair {
  private readonly rules: ProjectRules;
  private readonly view: ProjectView;
  private readonly documents: readonly { readonly path: string; readonly targets: readonly string[] }[];
  private readonly texts = new Map<string, DocumentText | Unread>();
  private shown: { readonly fingerprint: string; readonly changes: readonly Change[] } | null = null;

  constructor(
    private readonly folder: HereFolder,
    private readonly findings: readonly ToRepair[],
  ) {
    this.rules = new ProjectRules(folder.input);
    this.documents = folder.facts.flatMap((f) =>
      f.kind === 'references' && f.targets.length > 0 ? [{ path: f.path, targets: f.targets }] : [],
    );
    this.view = viewOf(folder.listings, new Map(this.documents.map((d) => [d.path, d.targets])));
  }

  async plan(answers: Readonly<Record<string, Answer>>): Promise<RepairPlan> {
    let planned = await this.repaired(answers);
    // What starter files hold lies with the house.
    const starters = writingStarters(planned.changes);
    if (starters.size > 0) {
      const left = Object.fromEntries([...starters].map((id) => [id, { key: null }]));
      planned = await this.repaired({ ...answers, ...left });
    }
    const { orderFaults, ...told } = summaryOf(planned, MOST_LINES);
    const fingerprint = bytesToHex(sha256(new TextEncoder().encode(JSON.stringify(planned.changes))));
    this.shown = { fingerprint, changes: planned.changes };
    const refused = orderFaults.map(({ at, code }) => `${placeWords(at)}: ${wordsFor(code, {})}`);
    return { ...told, fingerprint, refused, mayApply: true, now: this.folder.input.now ?? 0 };
  }

  async carryOut(fingerprint: string, by: string, told: Told): Promise<CarriedOut> {
    const { shown } = this;
    const batch = crypto.randomUUID();
    if (shown?.fingerprint !== fingerprint)
      return { batch, hindrance: 'This is another plan by now. Look at it again.' };
    const asked = { root: this.folder.root, id: batch, what: 'repair', by, undoes: null, changes: shown.changes, told };
    try {
      return { batch, hindrance: hindranceOf(await applyHere(asked)) };
    } catch (error) {
      return { batch, hindrance: `It failed: ${whyItFailed(error)}` };
    }
  }

  /** Planning asks for a text at once, and files are read one after another: what is lacking is read, and it is planned again. */
  private async repaired(answers: Readonly<Record<string, Answer>>) {
    for (;;) {
      const lacking = new Set<string>();
      const planned = repair({
        rules: this.rules,
        findings: this.findings,
        answers,
        from: 'sure',
        view: this.view,
        neighbours: [],
        documents: this.documents,
        roots: this.folder.roots,
        read: (path) => {
          const known = this.texts.get(path);
          if (known === undefined) lacking.add(path);
          return known ?? 'unreadable';
        },
      });
      if (lacking.size === 0) return planned;
      for (const path of lacking) this.texts.set(path, await this.textOf(path));
    }
  }

  private async textOf(path: string): Promise<DocumentText | Unread> {
    const file = await this.folder.fileOf(path).catch(() => null);
    if (file === null) return 'unreadable';
    if (!isReadAsText(file.size)) return 'too-large';
    try {
      const bytes = await file.arrayBuffer();
      const text = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
      return { text, expects: { size: file.size, modified: file.lastModified } };
    } catch (error) {
      return error instanceof TypeError ? 'not-utf-8' : 'unreadable';
    }
  }
}

function viewOf(listings: readonly FolderListing[], targets: ReadonlyMap<string, readonly string[]>): ProjectView {
  const byPath = new Map(listings.map((listing) => [listing.path, listing]));
  let byName: Map<string, string[]> | null = null;
  return {
    list: (folder) => byPath.get(folder) ?? null,
    find: (name) => {
      byName ??= pathsByName(listings);
      return byName.get(name) ?? [];
    },
    targets: (path) => targets.get(path) ?? [],
  };
}

function pathsByName(listings: readonly FolderListing[]): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const { path, files } of listings)
    for (const { name } of files) out.set(name, [...(out.get(name) ?? []), join(path, name)]);
  return out;
}
