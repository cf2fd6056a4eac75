/** A package as a zip: one that anybody can open, or a bag in a zip. */
import { join } from '@nesting/core/listing';
import type { PackedFile } from '@nesting/core/report';
import { GrowingFile } from '../roots/growing-file';
import type { PlainFile } from '../roots/plain-file';
import { type Form, type Made, PART, type PackedLine, type RecordFile, type ToPack } from './form';
import { proveZip } from './prove-zip';
import { recordOf } from './record';
import { type WrittenEntry, ZipFile } from './zip-file';

export class ZipForm implements Form {
  readonly kept: readonly PackedLine[];
  private readonly file: GrowingFile;
  private readonly zip: ZipFile;

  constructor(
    private readonly task: ToPack,
    before: readonly PackedLine[],
    private readonly tick: () => void,
  ) {
    this.file = GrowingFile.open(task.target, `${task.name}${PART}`);
    this.kept = [...inOneRow(before, this.file.length, (path) => this.placeOf(path))];
    this.zip = new ZipFile(
      this.file,
      this.kept.flatMap(({ entry }) => entry ?? []),
      tick,
    );
  }

  add(path: string, place: string, file: PlainFile): PackedLine {
    const entry = this.zip.add(join(this.task.layout.top, place), file);
    const { size, modified } = file;
    return { path, size, modified, sha256: entry.sha256, entry };
  }

  async finish(files: readonly PackedFile[], record: readonly RecordFile[]): Promise<Made> {
    const { target, name, layout, at } = this.task;
    for (const { path, text } of recordOf(this.task, files, record)) this.zip.addText(join(layout.top, path), text, at);
    this.zip.finish();
    const size = this.file.length;
    return { size, ...(await proveZip(target, `${name}${PART}`, this.zip.entries, this.tick)) };
  }

  sync(): void {
    this.file.sync();
  }

  close(): void {
    this.file.close();
  }

  private placeOf(path: string): string {
    return join(this.task.layout.top, this.task.placeOf(path));
  }
}

/** Entries one behind another from the beginning, as they would be written now: the first gap ends them. */
function* inOneRow(
  lines: readonly PackedLine[],
  length: number,
  placeOf: (path: string) => string,
): Generator<PackedLine & { readonly entry: WrittenEntry }> {
  let end = 0;
  for (const line of lines) {
    const { entry, path } = line;
    if (entry === null || entry.at !== end || entry.end > length || entry.path !== placeOf(path)) return;
    yield { ...line, entry };
    end = entry.end;
  }
}
