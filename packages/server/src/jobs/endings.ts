/** Jobs that ended in this process, for those who wait here for one. Others look at its row. */
export class Endings {
  private readonly waiting = new Map<string, Set<() => void>>();

  tell(id: string): void {
    for (const resolve of this.waiting.get(id) ?? []) resolve();
  }

  /** Resolves when this one ends, or after so many milliseconds. */
  async next(id: string, ms: number): Promise<void> {
    const those = this.waiting.get(id) ?? new Set();
    this.waiting.set(id, those);
    await new Promise<void>((resolve) => {
      const clock = setTimeout(end, ms);
      function end(): void {
        clearTimeout(clock);
        those.delete(end);
        resolve();
      }
      those.add(end);
    });
    if (those.size === 0) this.waiting.delete(id);
  }
}
