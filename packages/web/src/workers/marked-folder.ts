/** A folder of this computer that is a project's: what it is by, as its own marker tells. */
import { parseMarker, parseRegisters, parseTemplate } from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { NO_REGISTERS } from '@nesting/core/name';
import { MARKER_PATH, MARKER_REGISTERS_PATH, MARKER_TEMPLATE_PATH, type Marker } from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER } from '@nesting/core/project';

export interface MarkedFolder {
  readonly root: FileSystemDirectoryHandle;
  readonly marker: Marker;
  readonly input: Omit<CheckInput, 'now'>;
  /** Texts of the project's own folder, by path. */
  readonly texts: ReadonlyMap<string, string>;
}

/** `null` where it is no project's, or its rules cannot be read. */
export async function markedFolder(root: FileSystemDirectoryHandle): Promise<MarkedFolder | null> {
  const texts = await ownTexts(root);
  const marker = parsed(texts.get(MARKER_PATH), parseMarker);
  const template = parsed(texts.get(MARKER_TEMPLATE_PATH), parseTemplate);
  if (marker === null || template === null) return null;
  const registers = parsed(texts.get(MARKER_REGISTERS_PATH), parseRegisters) ?? NO_REGISTERS;
  return { root, marker, texts, input: { template, registers, values: marker.values, settings: marker.settings } };
}

type Parse<T> = (text: string) => { readonly ok: true; readonly value: T } | { readonly ok: false };

function parsed<T>(text: string | undefined, parse: Parse<T>): T | null {
  const read = text === undefined ? null : parse(text);
  return read?.ok === true ? read.value : null;
}

/** Rules of a large house take some hundred kilobytes. */
const MOST_BYTES = 32 * 2 ** 20;

async function ownTexts(root: FileSystemDirectoryHandle): Promise<ReadonlyMap<string, string>> {
  const texts = new Map<string, string>();
  const own = await root.getDirectoryHandle(OWN_FOLDER).catch(() => null);
  if (own === null) return texts;
  for await (const [name, handle] of own.entries()) {
    if (handle.kind !== 'file') continue;
    const file = await handle.getFile();
    if (file.size <= MOST_BYTES) texts.set(`${OWN_FOLDER}/${nameOf(name)}`, await file.text());
  }
  return texts;
}
