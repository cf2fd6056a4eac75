/** The longest known extension of a name (`tar.gz` before `gz`), else what stands behind its last dot. */
export function extensionOf(name: string, known: { has(ext: string): boolean }): string {
  for (let dot = name.indexOf('.', 1); dot >= 0; dot = name.indexOf('.', dot + 1)) {
    const ext = name.slice(dot + 1).toLowerCase();
    if (known.has(ext)) return ext;
  }
  const last = name.lastIndexOf('.');
  return last <= 0 ? '' : name.slice(last + 1).toLowerCase();
}
