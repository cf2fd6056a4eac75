/**
 * Shares folders out among processes that help: each takes some, hands back what it found below them, and gives its
 * part when asked.
 */
import { present } from '@nesting/core';
import type { Cancellation } from '@nesting/core/change';
import type { ContentWants, PartialResult } from '@nesting/core/check';
import type { CheckInput } from '@nesting/core/project';
import { Child } from '../children/child';
import { DiskError, type FailureOnDisk } from '../failure';
import type { FileFacts } from '../file-facts';
import type { Mount } from '../roots/tree';
import type { Where } from '../roots/where';
import type { Unseen } from '../walk';
import type { KeptListing } from './kept-listing';

/** What helpers are to look for in files. */
export interface FactsRequest {
  readonly wants: ContentWants;
  readonly roots: readonly string[];
  readonly known: readonly FileFacts[];
}

export type ToHelper =
  | {
      readonly kind: 'begin';
      readonly where: Where;
      readonly mounts: readonly Mount[];
      readonly input: CheckInput;
      /** Folders below are handed back, and not walked. */
      readonly shallow: boolean;
      readonly request?: FactsRequest;
    }
  | { readonly kind: 'folders'; readonly paths: readonly string[] }
  /** Asks for what was found since the last time. */
  | { readonly kind: 'take' };

export type FromHelper =
  /** Done with what it was given; folders it found and did not walk are handed back. */
  | { readonly kind: 'idle'; readonly files: number; readonly folders: number; readonly rest: readonly string[] }
  | ({ readonly kind: 'part' } & HelperResult)
  /** It can do no more. */
  | { readonly kind: 'failed'; readonly error: FailureOnDisk };

export interface HelperResult {
  readonly part: PartialResult | null;
  readonly listings: readonly KeptListing[];
  readonly facts: readonly FileFacts[];
  readonly unseen: readonly Unseen[];
}

/** Folders one worker is given at a time: enough to be worth a message, few enough to end together. */
const SHARE = 64;

/** Megabytes that the objects of one may take. */
const MEMORY = 4096;

/** As the process that it helps. */
const NICE = 15;

export class Helper {
  private readonly child: Child<ToHelper, FromHelper>;
  private readonly heard: FromHelper[] = [];
  private listener: ((message: FromHelper) => void) | null = null;
  readonly ended: Promise<Error>;

  constructor(script: URL, begin: Omit<Extract<ToHelper, { kind: 'begin' }>, 'kind'>) {
    this.child = new Child(script, { role: 'check-helper', memory: MEMORY, nice: NICE }, (message: FromHelper) => {
      if (this.listener === null) this.heard.push(message);
      else this.listener(message);
    });
    this.ended = this.child.ended;
    this.send({ kind: 'begin', ...begin });
  }

  send(message: ToHelper): void {
    this.child.send(message);
  }

  /** What it said before anybody listened is not lost. */
  listen(listener: ((message: FromHelper) => void) | null): void {
    this.listener = listener;
    if (listener !== null) for (const message of this.heard.splice(0)) listener(message);
  }

  end(): void {
    this.child.kill();
  }
}

export interface Sharing {
  readonly helpers: readonly Helper[];
  /** Folders still to be looked at; grows while helpers find more. */
  readonly queue: string[];
  /** Of the folders that a helper hands back, those to be walked. */
  readonly wanted: (path: string) => boolean;
  /** This process takes part between two looks at the others. */
  readonly here: (() => void) | null;
  readonly cancel: Cancellation | undefined;
  readonly progress: (files: number, folders: number) => void;
  /** Milliseconds after which all is gathered and handed over, so that a check can go on from there. */
  readonly gatherEvery: number;
  readonly gathered: (parts: readonly HelperResult[], queue: readonly string[]) => Promise<void>;
}

/** Resolves with what the helpers found since it was gathered last. One that ends early rejects. */
export async function shareOut(sharing: Sharing): Promise<HelperResult[]> {
  const pool = new Helpers(sharing);
  try {
    return await Promise.race([pool.run(), pool.broken]);
  } finally {
    pool.release();
  }
}

const NEVER = new Promise<never>(() => undefined);

class Helpers {
  readonly broken: Promise<never>;
  private readonly idle: Helper[] = [];
  private busy: number;
  private parts: HelperResult[] = [];
  private asked = 0;
  private last = Date.now();
  private done = false;
  /** Wakes the driver when one has said something. */
  private wake: () => void = () => undefined;
  private fail: (why: Error) => void = () => undefined;

  constructor(private readonly sharing: Sharing) {
    this.busy = sharing.helpers.length;
    const failed = new Promise<Error>((resolve) => {
      this.fail = resolve;
    });
    this.broken = Promise.race([failed, ...sharing.helpers.map((helper) => helper.ended)]).then((why) => {
      if (this.done) return NEVER;
      throw why;
    });
    // Whoever waits is told; nobody else need be.
    this.broken.catch(() => undefined);
    for (const helper of sharing.helpers) helper.listen((message) => this.onMessage(helper, message));
  }

  async run(): Promise<HelperResult[]> {
    const { sharing } = this;
    for (;;) {
      if (sharing.cancel?.aborted) break;
      const due = sharing.queue.length > 0 && Date.now() - this.last > sharing.gatherEvery;
      if (!due) this.handOut();
      if (this.busy === 0 && sharing.queue.length === 0) break;
      if (due && this.busy === 0) await this.gather();
      else if (!due && sharing.here !== null && sharing.queue.length > 0) {
        sharing.here();
        await new Promise((resolve) => setImmediate(resolve));
      } else await this.nextMessage();
    }
    while (this.busy > 0) await this.nextMessage();
    this.done = true;
    return this.take();
  }

  release(): void {
    this.done = true;
    for (const helper of this.sharing.helpers) helper.listen(null);
  }

  private handOut(): void {
    const { queue, helpers } = this.sharing;
    while (this.idle.length > 0 && queue.length > 0) {
      // The oldest ones are the shallowest, with the most below them.
      const share = Math.max(1, Math.min(SHARE, Math.ceil(queue.length / (helpers.length + 1))));
      this.busy++;
      present(this.idle.pop()).send({ kind: 'folders', paths: queue.splice(0, share) });
    }
  }

  private async gather(): Promise<void> {
    await this.sharing.gathered(await this.take(), this.sharing.queue);
    this.last = Date.now();
  }

  private async take(): Promise<HelperResult[]> {
    this.parts = [];
    this.asked = this.idle.length;
    for (const helper of this.idle) helper.send({ kind: 'take' });
    while (this.parts.length < this.asked) await this.nextMessage();
    return this.parts;
  }

  private nextMessage(): Promise<void> {
    return new Promise<void>((resolve) => {
      this.wake = resolve;
    });
  }

  private onMessage(helper: Helper, message: FromHelper): void {
    if (message.kind === 'failed') this.fail(new DiskError(message.error));
    else if (message.kind === 'part') this.parts.push(message);
    else {
      this.busy--;
      this.idle.push(helper);
      for (const path of message.rest) if (this.sharing.wanted(path)) this.sharing.queue.push(path);
      this.sharing.progress(message.files, message.folders);
    }
    this.wake();
  }
}
