/** Standard output with back-pressure: a million lines stand in no memory. */
import { once } from 'node:events';
import { shown } from '@nesting/core/text';

const BATCH = 1 << 16;

export class Output {
  private pending = '';

  async line(text: string): Promise<void> {
    this.pending += `${text}\n`;
    if (this.pending.length >= BATCH) await this.flush();
  }

  async flush(): Promise<void> {
    const text = this.pending;
    this.pending = '';
    if (text !== '' && !process.stdout.write(text)) await once(process.stdout, 'drain');
  }
}

export async function print(text: string | Uint8Array): Promise<void> {
  if (!process.stdout.write(text)) await once(process.stdout, 'drain');
}

/** Long work tells how far it is, where somebody is looking. */
export function progressLine(text: string): void {
  if (process.stderr.isTTY) process.stderr.write(`\r${shown(text)}\x1b[K`);
}

/** A line for people on standard error; what would steer their terminal is written out. */
export function say(line: string): void {
  process.stderr.write(`${shown(line)}\n`);
}
