/** What only workers have: https://w3c.github.io/FileAPI/#FileReaderSync */
declare class FileReaderSync {
  readAsArrayBuffer(blob: Blob): ArrayBuffer;
}
