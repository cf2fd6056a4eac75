/** The house's lists: columns, import. */
export {
  type CellFault,
  type CellFaultCode,
  type Cells,
  COLUMNS,
  type Column,
  cellFaults,
  foldKey,
  keyColumn,
  LIST_NAMES,
  type ListEntry,
  type ListName,
  severalOf,
  tidyCells,
} from './columns';
export { type ImportPlan, type ImportRow, planImport, type TableFault, tableOf } from './import';
export { nextEntry } from './next-entry';
