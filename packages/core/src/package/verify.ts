/**
 * Proves a package by what is written in it.
 *
 * 1. The list is looked for: the manifests of a bag, else a list of checksums, at the top or in the only folder there.
 * 2. Each file that is listed is hashed, and what is there and not listed is named.
 * 3. What the package says of itself beyond that is held against it: the number of bytes, the list of its own lists.
 */
import { join, nameOf } from '../listing/entry';
import { relPathOf } from '../listing/path';
import { bagLists, isBagDeclaration, oxumOf } from './bag';
import { isPackageRecord } from './layout';
import { ALGORITHMS, type Algorithm, readManifest, readSums, type Sum } from './sums';
import type { Changed, PackageFault, PackageFaultCode, PackageForm, PackedFiles, Verdict } from './verdict';

/** Bytes of a list that is read: some millions of lines. */
const MOST_LIST = 512 * 2 ** 20;

export interface Progress {
  readonly files: number;
  readonly bytes: number;
  readonly allFiles: number;
  readonly allBytes: number;
}

export async function verifyPackage(
  packed: PackedFiles,
  tell: (progress: Progress) => void | Promise<void> = () => undefined,
): Promise<Verdict> {
  return new Verifying(packed, tell).verdict();
}

/** What is to come of a file, by each algorithm that something lists it under. */
type Wanted = Map<string, Map<Algorithm, string>>;

class Verifying {
  private readonly faults: PackageFault[];
  private readonly wanted: Wanted = new Map();
  /** The lists themselves: nothing lists the last one of the chain. */
  private readonly lists = new Set<string>();
  private readonly missing: string[] = [];
  private readonly changed: Changed[] = [];
  private proved = 0;
  private bytes = 0;
  private root = '';

  constructor(
    private readonly packed: PackedFiles,
    private readonly tell: (progress: Progress) => void | Promise<void>,
  ) {
    this.faults = [...packed.faults];
  }

  async verdict(): Promise<Verdict> {
    const form = await this.readLists();
    if (form !== 'none') await this.hashAll();
    const unlisted = [...this.packed.sizes.keys()].filter((path) => !this.wanted.has(path));
    const isCovered = (path: string) => form === 'sums' || path.startsWith(`${join(this.root, 'data')}/`);
    const extra = form === 'none' ? [] : unlisted.filter((path) => isCovered(path) && !this.lists.has(path));
    if (this.packed.isExact === false && this.isOurs(form)) this.fault('form-differs', '');
    const { faults, missing, changed, root, proved, bytes } = this;
    return {
      ...{ form, root, proved, bytes, missing, changed, extra, faults },
      isWhole: form !== 'none' && [missing, changed, extra, faults].every((list) => list.length === 0),
      beside: form === 'bag' ? unlisted.filter((path) => !isCovered(path) && !this.lists.has(path)) : [],
    };
  }

  private fault(code: PackageFaultCode, path: string): void {
    this.faults.push({ code, path });
  }

  /** Of a package that this program made, a record lies in it. */
  private isOurs(form: PackageForm): boolean {
    const start = this.root === '' ? 0 : this.root.length + 1;
    return [...this.packed.sizes.keys()].some((path) => isPackageRecord(path.slice(start), form));
  }

  private async readLists(): Promise<PackageForm> {
    for (const root of ['', ...this.onlyFolder()]) {
      this.root = root;
      if (this.packed.sizes.has(join(root, 'bagit.txt'))) {
        await this.readBag();
        return 'bag';
      }
      const sums = this.sumsIn(root);
      if (sums.length === 0) continue;
      for (const [path, algorithm] of sums) await this.readList(path, algorithm);
      return 'sums';
    }
    this.root = '';
    return 'none';
  }

  /** The one folder at the top, where there is nothing else. */
  private onlyFolder(): readonly string[] {
    const tops = new Set<string>();
    for (const path of this.packed.sizes.keys()) {
      tops.add(path.slice(0, path.indexOf('/') + 1));
      if (tops.size > 1) return [];
    }
    const [top = ''] = tops;
    return top === '' ? [] : [top.slice(0, -1)];
  }

  /** `sha256sums.txt`, `SHA256SUMS`, `checksums.sha256`, and the like of other algorithms. */
  private sumsIn(root: string): readonly (readonly [string, Algorithm])[] {
    const out: [string, Algorithm][] = [];
    for (const path of this.packed.sizes.keys()) {
      const name = nameOf(path);
      if (path !== join(root, name)) continue;
      const algorithm = ALGORITHMS.find((one) =>
        new RegExp(`^${one}sums?(-\\d+)?(\\.txt)?$|\\.${one}$`, 'i').test(name),
      );
      if (algorithm !== undefined) out.push([path, algorithm]);
    }
    return out;
  }

  private async readList(path: string, algorithm: Algorithm): Promise<void> {
    this.lists.add(path);
    const text = await this.textOf(path);
    if (text === null) return;
    const { sums, bad } = readSums(text, algorithm);
    if (bad.length > 0 || sums.length === 0) this.fault('line-unreadable', path);
    this.want(sums, algorithm);
  }

  private async readBag(): Promise<void> {
    const declaration = await this.textOf(join(this.root, 'bagit.txt'));
    if (declaration === null || !isBagDeclaration(declaration))
      this.fault('bag-declaration', join(this.root, 'bagit.txt'));
    this.lists.add(join(this.root, 'bagit.txt'));
    const { manifests, tagManifests, unknown } = bagLists(this.packed.sizes.keys(), this.root);
    for (const path of unknown) this.lists.add(path);
    if (manifests.length === 0) this.fault(unknown.length > 0 ? 'algorithm-unknown' : 'no-manifest', this.root);
    const payload = `${join(this.root, 'data')}/`;
    for (const { path, algorithm } of manifests) await this.readBagList(path, algorithm, (p) => p.startsWith(payload));
    this.requireInEvery(manifests.map(({ algorithm }) => algorithm));
    for (const { path, algorithm } of tagManifests)
      await this.readBagList(path, algorithm, (p) => !p.startsWith(payload));
    await this.holdOxum(payload);
    const fetched = join(this.root, 'fetch.txt');
    if (this.packed.sizes.has(fetched)) this.fault('to-be-fetched', fetched);
  }

  private async readBagList(path: string, algorithm: Algorithm, may: (path: string) => boolean): Promise<void> {
    this.lists.add(path);
    const text = await this.textOf(path);
    if (text === null) return;
    const { sums, bad } = readManifest(text, algorithm);
    if (bad.length > 0) this.fault('line-unreadable', path);
    for (const { path: listed } of sums) if (!may(join(this.root, listed))) this.fault('path-unsafe', listed);
    this.want(sums, algorithm);
  }

  private want(sums: readonly Sum[], algorithm: Algorithm): void {
    for (const { hash, path } of sums) {
      const whole = join(this.root, path);
      if (!relPathOf(path).ok || path === '') {
        this.fault('path-unsafe', path);
        continue;
      }
      const known = this.wanted.get(whole) ?? new Map<Algorithm, string>();
      if (known.has(algorithm)) this.fault('listed-twice', path);
      known.set(algorithm, hash);
      this.wanted.set(whole, known);
    }
  }

  /** RFC 8493, 2.2.1: every manifest lists every file. */
  private requireInEvery(algorithms: readonly Algorithm[]): void {
    for (const [path, hashes] of this.wanted)
      if (algorithms.some((one) => !hashes.has(one))) this.fault('not-in-every-manifest', path);
  }

  private async holdOxum(payload: string): Promise<void> {
    const info = join(this.root, 'bag-info.txt');
    const text = this.packed.sizes.has(info) ? await this.textOf(info) : null;
    const said = text === null ? null : oxumOf(text);
    if (said === null) return;
    let [bytes, files] = [0, 0];
    for (const [path, size] of this.packed.sizes)
      if (path.startsWith(payload)) {
        bytes += size;
        files++;
      }
    if (said.bytes !== bytes || said.files !== files) this.fault('bytes-differ', info);
  }

  private async textOf(path: string): Promise<string | null> {
    try {
      return await this.packed.text(path, MOST_LIST);
    } catch {
      this.fault('list-unreadable', path);
      return null;
    }
  }

  private async hashAll(): Promise<void> {
    const there = [...this.wanted].filter(([path]) => this.packed.sizes.has(path));
    const allBytes = there.reduce((sum, [path]) => sum + (this.packed.sizes.get(path) ?? 0), 0);
    let [files, bytes] = [0, 0];
    for (const [path, hashes] of this.wanted) {
      const size = this.packed.sizes.get(path);
      if (size === undefined) {
        this.missing.push(path);
        continue;
      }
      await this.prove(path, size, hashes);
      files++;
      bytes += size;
      await this.tell({ files, bytes, allFiles: there.length, allBytes });
    }
  }

  private async prove(path: string, size: number, hashes: ReadonlyMap<Algorithm, string>): Promise<void> {
    try {
      const found = await this.packed.hash(path, [...hashes.keys()]);
      if ([...hashes.values()].some((hash, at) => hash !== found[at])) this.changed.push({ path, isUnreadable: false });
      else {
        this.proved++;
        this.bytes += size;
      }
    } catch (error) {
      if (isStop(error)) throw error;
      this.changed.push({ path, isUnreadable: true });
    }
  }
}

/** Whoever asked does not want it any more: that is nothing about the file. */
const isStop = (error: unknown): boolean => error instanceof Error && 'code' in error && error.code === 'STOPPED';
