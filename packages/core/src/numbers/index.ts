/** Number series. */
export {
  type CompiledSeries,
  compileSeries,
  DEFAULT_SERIES,
  type NumberContext,
  type NumberSeries,
  RESETS,
  type ReadNumber,
  type Reset,
  type SeriesFault,
} from './series';
