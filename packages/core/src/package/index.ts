/** Packages: their forms, and how they are proved. No disk is known here. */

export { tagFiles } from './bag';
export {
  isPackageRecord,
  type Layout,
  layoutOf,
  PACKAGE_JSON,
  PACKAGE_KINDS,
  type PackageKind,
  sideBySide,
} from './layout';
export { looseZipFault } from './loose-zip';
export { RETURNED, type ReturnedRow, type ReturnedState, returned } from './returned';
export { type Algorithm, readSums, type Sum, sumLine } from './sums';
export {
  type Changed,
  PACKAGE_FAULTS,
  PACKAGE_FORMS,
  type PackageFault,
  type PackageFaultCode,
  type PackageForm,
  type PackedFiles,
  type Verdict,
} from './verdict';
export { type Progress, verifyPackage } from './verify';
export { CRC_AT, centralHeader, crcBytes, endRecords, localHeader, type ZipEntry } from './zip-form';
export { type ByteSource, type FoundEntry, readZip, type ZipRead } from './zip-read';
