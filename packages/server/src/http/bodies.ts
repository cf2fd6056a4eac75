/**
 * Bodies of requests, read only once it is known who sends them and how much they may: each up to its own bound, all
 * together up to one bound, and none for longer than a while.
 */
import { Refused } from '../flows/world';

export interface BodyBounds {
  /** Bytes of all bodies that are held at once. */
  readonly total: number;
  /** Milliseconds until a body has to be there whole. */
  readonly ms: number;
}

export class Bodies {
  /** Bytes that are held now. */
  private held = 0;

  constructor(private readonly bounds: BodyBounds) {}

  /** Reads the body, and lets go of it when the work with it has ended. */
  async during<T>(request: Request, most: number, work: (whole: Request) => Promise<T>): Promise<T> {
    const { body } = request;
    if (body === null) return work(request);
    if (Number(request.headers.get('content-length') ?? 0) > most) throw new Refused('too-large');
    const taken = { bytes: 0 };
    try {
      const bytes = await this.read(body, most, taken);
      const { method, url, headers, signal } = request;
      return await work(new Request(url, { method, headers, signal, ...(bytes.length > 0 && { body: bytes }) }));
    } finally {
      this.held -= taken.bytes;
    }
  }

  private async read(
    body: ReadableStream<Uint8Array>,
    most: number,
    taken: { bytes: number },
  ): Promise<Uint8Array<ArrayBuffer>> {
    const chunks: Uint8Array[] = [];
    const reader = body.getReader();
    let isLate = false;
    const clock = setTimeout(() => {
      isLate = true;
      void reader.cancel().catch(() => undefined);
    }, this.bounds.ms);
    try {
      for (let next = await reader.read(); !next.done; next = await reader.read()) {
        chunks.push(next.value);
        taken.bytes += next.value.length;
        this.held += next.value.length;
        if (taken.bytes > most) throw new Refused('too-large');
        if (this.held > this.bounds.total) throw new Refused('too-busy');
      }
      if (isLate) throw new Refused('too-slow');
      return joined(chunks, taken.bytes);
    } catch (error) {
      // The connection broke: whoever sent it has gone.
      throw error instanceof Refused ? error : new Refused('cancelled');
    } finally {
      clearTimeout(clock);
      await reader.cancel().catch(() => undefined);
    }
  }
}

function joined(chunks: readonly Uint8Array[], length: number): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}
