/** Two projects, revisions or folders held against each other. */

export {
  COMPARED,
  type Compared,
  type ComparedRow,
  type ComparedSums,
  compareSides,
  EVIDENCE,
  type Evidence,
  sumsOf,
  type ToldRow,
  toldRow,
} from './compare';
export { itemsOfSide, type ReadItem, type Scope, type SideItem } from './side';
