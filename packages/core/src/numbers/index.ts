/** Number series. */
export {
  type CompiledSeries,
  compileSeries,
  type NumberContext,
  type NumberSeries,
  RESETS,
  type ReadNumber,
  type Reset,
  type SeriesFault,
} from './series';
