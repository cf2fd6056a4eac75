/**
 * Sends files of this computer to the server, away from the page.
 *
 * 1. What is to be sent is said, and the server tells how much of each file it has.
 * 2. Each file goes in pieces, each with its checksum; the next one is hashed while one is on its way.
 * 3. At its end the server reads the file back and holds it against the checksums of all pieces.
 * Where the connection fails it is tried again, longer and longer apart, from where the server says it is.
 */
import type { Upload } from '@nesting/contract';
import { endOfPiece, PIECE_BYTES } from '@nesting/core';
import { expose } from 'comlink';
import { digestOf } from './digest';

/** A file, and where it lies from what was chosen. */
export interface PlacedFile {
  readonly path: string;
  readonly file: File;
}

export interface Sending {
  readonly volume: string;
  /** What the folder is called that is made for them. */
  readonly name: string;
  readonly files: readonly PlacedFile[];
}

export interface HowFar {
  /** The folder on the volume; empty until it is made. */
  readonly folder: string;
  readonly files: number;
  readonly bytes: number;
  /** The connection is down, and it is tried again. */
  readonly isWaiting: boolean;
}

export interface Sent {
  readonly folder: string;
  readonly files: number;
  readonly bytes: number;
  /** Why it ended early; `null` where it went through. */
  readonly why: string | null;
  /** Files that were not sent, and why. */
  readonly failed: readonly { readonly path: string; readonly why: string }[];
}

type Tell = (how: HowFar) => void;

/** Files that are sent side by side: of small ones most of the time is spent in asking. */
const LANES = 4;
/** Times that one place of a file is sent without getting further. */
const MOST_TRIES = 5;
const LONGEST_WAIT = 30_000;

let stopping = new AbortController();

/** What ends all of it, in words. */
class Ended extends Error {}

class Sender {
  private done = 0;
  private bytes = 0;
  private waiting = 0;
  private upload: Upload | null = null;
  private readonly failed: { path: string; why: string }[] = [];

  constructor(
    private readonly asked: Sending,
    private readonly tell: Tell,
  ) {}

  async send(): Promise<Sent> {
    const { files, volume, name } = this.asked;
    try {
      const listed = files.map(({ path, file }) => ({ path, size: file.size, modified: file.lastModified }));
      const upload = await this.ask<Upload>('POST', '/api/uploads', JSON.stringify({ volume, name, files: listed }));
      this.upload = upload;
      this.say();
      const queue = files.map((one, index) => ({ ...one, index, received: upload.received[index] ?? null }));
      const lane = async () => {
        for (let next = queue.shift(); next !== undefined; next = queue.shift()) await this.file(upload.id, next);
      };
      await Promise.all(Array.from({ length: LANES }, lane));
      if (this.failed.length === 0) await this.ask('DELETE', `/api/uploads/${upload.id}`);
      return this.end(null);
    } catch (error) {
      stopping.abort();
      return this.end(
        error instanceof Ended ? error.message : 'It was stopped. What is there stays, and can be gone on with.',
      );
    }
  }

  private async file(id: string, { path, file, index, received }: Waiting): Promise<void> {
    if (received === null) {
      this.bytes += file.size;
      return this.isDone();
    }
    try {
      await this.pieces(id, file, index, received);
      this.isDone();
    } catch (error) {
      if (error instanceof Ended || stopping.signal.aborted) throw error;
      // It was changed, moved or taken away since it was chosen.
      const why = error instanceof Unfit ? error.message : 'it cannot be read any more';
      this.failed.push({ path, why });
    }
  }

  private async pieces(id: string, file: File, index: number, from: number): Promise<void> {
    const hashes: string[] = [];
    for (let at = 0; at < from; at = endOfPiece(at, file.size)) hashes.push(await hashAt(file, at));
    this.bytes += from;
    let tries = 0;
    let next = from < file.size ? hashAt(file, from) : null;
    for (let at = from; ; ) {
      if (next !== null) {
        const hash = await next;
        const end = endOfPiece(at, file.size);
        next = end < file.size ? hashAt(file, end) : null;
        next?.catch(() => undefined);
        const query = `file=${index}&at=${at}`;
        const { received } = await this.ask<{ received: number }>(
          'PUT',
          `/api/uploads/${id}/piece?${query}`,
          pieceAt(file, at),
        );
        tries = received > at ? 0 : tries + 1;
        if (received === end) hashes[at / PIECE_BYTES] = hash;
        else next = received < file.size ? hashAt(file, received) : null;
        this.bytes += received - at;
        at = received;
      } else {
        const { state, received } = await this.ask<{ state: string; received: number }>(
          'POST',
          `/api/uploads/${id}/file`,
          JSON.stringify({ file: index, pieces: hashes }),
        );
        if (state === 'placed') return;
        if (state === 'taken') throw new Unfit('something else has its place there');
        tries++;
        this.bytes -= file.size - received;
        at = received;
        next = hashAt(file, at);
      }
      this.say();
      if (tries > MOST_TRIES) throw new Unfit('it does not arrive as it was sent');
    }
  }

  private isDone(): void {
    this.done++;
    this.say();
  }

  private say(): void {
    this.tell({ folder: this.upload?.folder ?? '', files: this.done, bytes: this.bytes, isWaiting: this.waiting > 0 });
  }

  private end(why: string | null): Sent {
    return { folder: this.upload?.folder ?? '', files: this.done, bytes: this.bytes, why, failed: this.failed };
  }

  /** @throws Ended where the server refuses */
  private async ask<T>(method: string, address: string, body?: string | Blob): Promise<T> {
    const type = typeof body === 'string' ? 'application/json' : 'application/octet-stream';
    for (let tries = 0; ; tries++) {
      const answer = await fetch(address, {
        ...{ method, signal: stopping.signal },
        ...(body !== undefined && { body, headers: { 'content-type': type } }),
      }).catch(() => null);
      if (stopping.signal.aborted) throw new Error('stopped');
      if (answer?.ok) return (answer.status === 204 ? null : await answer.json()) as T;
      // Behind the server something may be away for a while: a gateway, a database, a disk.
      if (answer !== null && ![502, 503, 504].includes(answer.status)) throw new Ended(await refusalOf(answer));
      await this.waited(Math.min(LONGEST_WAIT, 1000 * 2 ** tries));
    }
  }

  private async waited(ms: number): Promise<void> {
    this.waiting++;
    this.say();
    await new Promise<void>((resolve) => {
      const clock = setTimeout(resolve, ms);
      stopping.signal.addEventListener('abort', () => {
        clearTimeout(clock);
        resolve();
      });
    });
    this.waiting--;
    if (stopping.signal.aborted) throw new Error('stopped');
    this.say();
  }
}

/** Of one file, in words. */
class Unfit extends Error {}

interface Waiting extends PlacedFile {
  readonly index: number;
  /** `null` where it lies in its place. */
  readonly received: number | null;
}

async function refusalOf(answer: Response): Promise<string> {
  if (answer.status === 401) return 'You are not signed in any more. Sign in, and choose the same files again.';
  const said: unknown = await answer.json().catch(() => null);
  const message = typeof said === 'object' && said !== null && 'message' in said ? said.message : null;
  return typeof message === 'string' ? message : `The server refused it (${answer.status}).`;
}

const hashAt = async (file: File, at: number): Promise<string> => digestOf(await pieceAt(file, at).arrayBuffer());

/** As a part of the file, which the browser sends four times as fast as the same bytes from memory. */
const pieceAt = (file: File, at: number): Blob => file.slice(at, endOfPiece(at, file.size));

const work = {
  send(asked: Sending, tell: Tell): Promise<Sent> {
    stopping = new AbortController();
    return new Sender(asked, tell).send();
  },

  stop(): void {
    stopping.abort();
  },

  /** What is whole of it stays, and what is not goes. */
  async leave(asked: Sending): Promise<void> {
    const files = asked.files.map(({ path, file }) => ({ path, size: file.size, modified: file.lastModified }));
    const headers = { 'content-type': 'application/json' };
    const body = JSON.stringify({ volume: asked.volume, name: asked.name, files });
    const begun = await fetch('/api/uploads', { method: 'POST', headers, body });
    if (begun.ok) await fetch(`/api/uploads/${((await begun.json()) as Upload).id}`, { method: 'DELETE' });
  },
};

export type SendingWork = typeof work;

expose(work);
