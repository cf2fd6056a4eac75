/** What an intake is given, and what it comes to. */
import type { Change, Expected } from '../../change/change';
import type { RootId } from '../../change/place';
import type { Differing } from '../../check/agreed-facts';
import type { MediaFacts } from '../../listing/media-facts';
import type { Confidence } from '../../name/mend/suggest';
import type { CheckInput } from '../../project/rules';
import type { Coded } from '../../result';
import type { NewEntry } from './days';
import type { GivenValues } from './naming';
import type { ClockShift, Pair, Pairing } from './pair';
import type { PlaceReason } from './places';
import type { LooseFile } from './recognise';

/** What a person says of a file, or of a folder of the heap and all that is in it. */
export interface Placed {
  readonly comes?: boolean | undefined;
  /** In the project, from its root. */
  readonly folder?: string | undefined;
  readonly name?: string | undefined;
  /** Values for its name, and for the entries of its folder. */
  readonly values?: GivenValues | undefined;
  /** It takes the place of the file that lies there, which is kept. */
  readonly replaces?: boolean | undefined;
  /** Of a folder: whether it is a card that stays whole. */
  readonly isCard?: boolean | undefined;
}

export interface IntakeGiven {
  readonly input: CheckInput;
  readonly files: readonly LooseFile[];
  /** What the source is called, for a card that is all of it. */
  readonly sourceName: string;
  /** By path in the source. */
  readonly placed: Readonly<Record<string, Placed>>;
  readonly pairing: Pairing;
  /** The heap's own files come, not copies of them. */
  readonly isMove: boolean;
  /** What the batch knows the source by. */
  readonly root: RootId;
  /** Names in a folder of the project; none where there is no such folder. */
  readonly there: (folder: string) => readonly string[];
  /** The file at a place of the project; `null` where there is none. */
  readonly fileAt: (path: string) => Expected | null;
  /** How many documents of the project refer to a file of it. */
  readonly referrers: (path: string) => number;
  /** Where the same content lies: in the project, or earlier in the heap; `null` for nowhere. */
  readonly sameAs: (path: string) => Same | null;
}

export interface Same {
  readonly where: 'project' | 'heap';
  readonly path: string;
}

export const INTAKE_STATES = ['comes', 'look', 'orphan', 'there', 'twice', 'left', 'system'] as const;
/**
 * It comes · it has a likely place, and somebody looks first · no place is known · its content is in the project ·
 * its content lies in the heap twice · it was left · a system or program left it behind.
 */
export type IntakeState = (typeof INTAKE_STATES)[number];

export interface IntakeItem {
  /** From the source's root. */
  readonly from: string;
  /** From the project's root; `null` where no place is known. */
  readonly to: string | null;
  readonly size: number;
  readonly modified: number;
  readonly family: string | null;
  readonly state: IntakeState;
  readonly confidence: Confidence | null;
  readonly reasons: readonly PlaceReason[];
  /** Folders it might belong in, best first, its own among them. */
  readonly folders: readonly string[];
  /** Fields of its name that nothing tells. */
  readonly missing: readonly string[];
  /** Fields of its name that were not said outright. */
  readonly derived: readonly string[];
  readonly isByHand: boolean;
  /** The sequence it is a frame of: its path with `#` for its frame; `null` where it is none. */
  readonly run: string | null;
  /** The burst it is of: the path of its first; `null` where it is none. */
  readonly burst: string | null;
  /** The card it is part of; `null` for a file by itself. */
  readonly card: string | null;
  readonly same: Same | null;
  /** The extension it has, where its content is something else. */
  readonly lie: string | null;
  /** Another project's number that its path carries. */
  readonly foreign: string | null;
  readonly facts: MediaFacts;
  /** What its content tells otherwise than was agreed for its place. */
  readonly differing: readonly Differing[];
  readonly fault: Coded | null;
  readonly clash: boolean;
  /** What lies in its place and can give way; `null` where nothing does. */
  readonly inWay: InWay | null;
}

/** A file that lies where another one is to come. */
export interface InWay extends Expected {
  readonly referrers: number;
  /** Where it is kept if it gives way; `null` where it is kept with the batch. */
  readonly keptAs: string | null;
}

export interface Intake {
  readonly items: readonly IntakeItem[];
  readonly cards: readonly { readonly path: string; readonly to: string | null; readonly files: number }[];
  readonly pairs: readonly Pair[];
  readonly shift: ClockShift | null;
  /** Entries that lists of the project have to have first. */
  readonly entries: readonly NewEntry[];
  readonly changes: readonly Change[];
}

/** One that is copied. */
export const isTaken = ({ state, fault, clash, to }: Pick<IntakeItem, 'state' | 'fault' | 'clash' | 'to'>): boolean =>
  state === 'comes' && fault === null && !clash && to !== null;
