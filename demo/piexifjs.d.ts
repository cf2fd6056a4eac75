/** What the demo uses of a package that has no types of its own. */
declare module 'piexifjs' {
  type Tags = Readonly<Record<number, string>>;
  const piexif: {
    readonly ImageIFD: { readonly Make: number; readonly Model: number };
    readonly ExifIFD: { readonly DateTimeOriginal: number };
    /** Text of one byte a letter. */
    dump(tags: Readonly<Record<string, Tags>>): string;
    insert(exif: string, jpeg: string): string;
  };
  export default piexif;
}
