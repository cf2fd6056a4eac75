/** Names: patterns, reading, proving, mending, learning, writing. */

export type { Ambiguity } from './automaton/automaton';
export { contextOfValues } from './context';
export { dateFromWords } from './dates/date-words';
export type { DateParts } from './dates/dates';
export { frameless, type Grouped, groupFrames, missingFrames, type Sequence } from './frames';
export { type Learned, type LearnedConvention, learnConventions } from './learn/learn';
export type { Cause } from './mend/cause';
export { CHANGE_CODES, type ChangeCode, type NameContext, NO_CONTEXT } from './mend/costs';
export {
  CONFIDENCES,
  type Confidence,
  type Explanation,
  explainName,
  type Problem,
  type Stretch,
  type Suggestion,
} from './mend/suggest';
export { addItem, type Item, moveItem, printRow, type Row, removeItem, rowOf } from './pattern/arrange';
export type { Part, Pattern, Slot } from './pattern/ast';
export { slotsOf } from './pattern/ast';
export { type CompileFault, compileConvention, compileName } from './pattern/compile';
export { examplePieces, longestName } from './pattern/example';
export { EXPECTATION_CODES, type Expectation, expectationOf } from './pattern/expect';
export * from './pattern/field';
export type { CompiledConvention, CompiledName } from './pattern/ops';
export { mustParse, type PatternFault, parsePattern } from './pattern/parse';
export { shapeText, TEXT_SHAPES, type TextShape } from './pattern/shape';
export type { DomainContext, LikePiece, SlotDomain } from './pattern/slot-domain';
export { type Cure, curesFor } from './prove/cure';
export { proveOneWay } from './prove/prove';
export { readings, readName, readValues, type Span, spansOf } from './read/read';
export { entriesOf } from './read/value';
export { nextVersion, ordinal, type Version, withFirstState } from './versions';
export { hasValue, type WriteFault, type WrittenPiece, writeName, writePieces } from './write';
