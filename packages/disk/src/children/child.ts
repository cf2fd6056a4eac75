/**
 * A process that works on disks for this one. A thread that hangs in a call on a disk cannot be ended; a process can.
 * It is given no secrets, and ends when the process that started it does.
 */
import { type ChildProcess, fork } from 'node:child_process';
import { setPriority } from 'node:os';

export type Role = 'tasks' | 'check-helper';

export interface ChildOptions {
  readonly role: Role;
  /** Megabytes that its objects may take. */
  readonly memory: number;
  /** As `nice` has it: how far others go first where the machine is busy. */
  readonly nice: number;
}

/** What of this process's environment it needs: where programs and time zones are, and nothing else. */
const PASSED_ON = ['PATH', 'TZ', 'LANG', 'LC_ALL', 'TMPDIR', 'HOME'];

export class Child<To, From> {
  private readonly process: ChildProcess;
  /** Resolves when it has ended, with why. */
  readonly ended: Promise<Error>;

  constructor(script: URL, { role, memory, nice }: ChildOptions, onMessage: (message: From) => void) {
    this.process = fork(script, [role], {
      serialization: 'advanced',
      // What is read of a folder is rubbish a moment later: a larger nursery is a little quicker and holds more.
      execArgv: [`--max-old-space-size=${memory}`, '--max-semi-space-size=4'],
      env: Object.fromEntries(PASSED_ON.flatMap((name) => (process.env[name] ? [[name, process.env[name]]] : []))),
    });
    if (nice > 0) this.letOthersFirst(nice);
    this.process.on('message', (message) => onMessage(message as From));
    this.ended = new Promise((resolve) => {
      this.process.on('error', resolve);
      this.process.on('exit', (code, signal) =>
        resolve(new Error(`the process that works on disks ended (${signal ?? code})`)),
      );
    });
  }

  private letOthersFirst(nice: number): void {
    try {
      if (this.process.pid !== undefined) setPriority(this.process.pid, nice);
    } catch {
      // Not on every system, and no reason not to work.
    }
  }

  send(message: To): void {
    // One that has just ended tells so by `ended`.
    if (this.process.connected) this.process.send(message as object, () => undefined);
  }

  /** Whether this process waits for it before it ends by itself. */
  hold(isHeld: boolean): void {
    if (isHeld) {
      this.process.ref();
      this.process.channel?.ref();
    } else {
      this.process.unref();
      this.process.channel?.unref();
    }
  }

  kill(): void {
    this.process.kill('SIGKILL');
  }
}
