/** Things that are worked out once, and kept while they are of use. */

/** Worked out once for each object, and forgotten with it. */
export class Remembered<K extends object, V> {
  private readonly values = new WeakMap<K, { readonly value: V }>();

  constructor(private readonly make: (key: K) => V) {}

  of(key: K): V {
    const known = this.values.get(key);
    if (known !== undefined) return known.value;
    const value = this.make(key);
    this.values.set(key, { value });
    return value;
  }

  /** What was worked out already; `undefined` where nothing was. */
  known(key: K): V | undefined {
    return this.values.get(key)?.value;
  }
}

/** Worked out once for each text; once there are more than `most` it begins anew. */
export class Bounded<V> {
  private readonly values = new Map<string, V>();

  constructor(
    private readonly most: number,
    private readonly make: (text: string) => V,
  ) {}

  of(text: string): V {
    const known = this.values.get(text);
    if (known !== undefined) return known;
    const made = this.make(text);
    if (this.values.size >= this.most) this.values.clear();
    this.values.set(text, made);
    return made;
  }
}

/** The last few things that were used; the one unused for longest goes first. */
export class Recent<V> {
  private readonly values = new Map<string, V>();

  constructor(private readonly most: number) {}

  get(key: string): V | undefined {
    const value = this.values.get(key);
    if (value === undefined) return undefined;
    this.values.delete(key);
    this.values.set(key, value);
    return value;
  }

  set(key: string, value: V): void {
    this.values.delete(key);
    this.values.set(key, value);
    if (this.values.size <= this.most) return;
    for (const oldest of this.values.keys()) {
      this.values.delete(oldest);
      return;
    }
  }
}
