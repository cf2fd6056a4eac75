/** A template as plain data: what stands in a template file. Keys and meanings are those of the format. */
import type { Field, Registers } from '../name/pattern/field';
import type { ProfileName } from '../portable/profiles';
import type { SettingFact } from './settings';

export const MARKS = ['clay', 'moss', 'slate', 'plum', 'straw', 'teal', 'rose', 'ink'] as const;
export type Mark = (typeof MARKS)[number];

export const PRESENCES = ['always', 'optional', 'on-demand'] as const;
export type Presence = (typeof PRESENCES)[number];

export interface Numbering {
  readonly digits: number;
  readonly joiner: string;
  readonly reserved?: readonly { readonly number: number; readonly label?: string | undefined }[] | undefined;
}

export interface OnlyWhen {
  readonly field: string;
  readonly is: string | readonly string[];
}

export interface Starter {
  readonly id: string;
  /** A name pattern. */
  readonly name: string;
  /** Where its content is kept, beside the template or in its zip. */
  readonly from: string;
  /** Of a document that is a folder: the files in it, by their paths from `from`. */
  readonly files?: readonly string[] | undefined;
  /** Text in which slots of known fields are filled in. */
  readonly fill?: boolean | undefined;
  readonly onlyWhen?: OnlyWhen | undefined;
}

/** What must be delivered into a folder. */
export interface Delivery {
  readonly name: string;
  /** Due for each entry of a list. */
  readonly onePer?: { readonly list: string; readonly as: string } | undefined;
  /** One of the folder's conventions, by which it is called. */
  readonly convention?: string | undefined;
  readonly family?: string | undefined;
  /** So many days after the day that a field holds; before it where they are negative. */
  readonly due?: { readonly field: string; readonly days: number } | undefined;
}

export interface FolderNode {
  readonly id: string;
  /** A name pattern; absent only where the node stands for a block. */
  readonly name?: string | undefined;
  readonly number?: number | undefined;
  /** It has no number in front, though its siblings have. */
  readonly unnumbered?: boolean | undefined;
  readonly purpose?: string | undefined;
  readonly mark?: Mark | undefined;
  readonly presence?: Presence | undefined;
  /** Where it is not made at the start: artists may make it too. */
  readonly artistsMayAdd?: boolean | undefined;
  readonly accepts?: readonly string[] | undefined;
  readonly conventions?: readonly string[] | undefined;
  readonly free?: boolean | undefined;
  readonly onePer?: { readonly list: string; readonly as: string } | undefined;
  readonly onlyWhen?: OnlyWhen | undefined;
  readonly signpost?: string | undefined;
  readonly stable?: boolean | undefined;
  readonly licensed?: boolean | undefined;
  /** Cards of cameras and recorders come here as they are, each in a folder of its own. */
  readonly cards?: boolean | undefined;
  /** A list of checksums is laid into it for what is brought into it, or below. */
  readonly checksums?: boolean | undefined;
  /** `false`: it and all that is in it goes into no package for somebody outside the studio. */
  readonly outsiders?: boolean | undefined;
  readonly deliveries?: readonly Delivery[] | undefined;
  readonly limitBytes?: number | undefined;
  /** It should hold something so many days after the project's date, or after its own where it has one. */
  readonly filledWithinDays?: number | undefined;
  /** Frames expected of each sequence in it: a range as `1001..1100`, or the key of a field that holds one. */
  readonly frames?: string | undefined;
  readonly older?: { readonly folder: string; readonly keep?: number | undefined } | undefined;
  readonly numbering?: Numbering | undefined;
  readonly block?: string | undefined;
  readonly folders?: readonly FolderNode[] | undefined;
  readonly starters?: readonly Starter[] | undefined;
}

export interface Block {
  readonly id: string;
  readonly name?: string | undefined;
  /**
   * The house's block it was last taken from, and the edition of it: what was changed here since is this template's
   * own.
   */
  readonly shared?: { readonly block: string; readonly edition: number } | undefined;
  readonly folders: readonly FolderNode[];
}

/** A rule for names, as it stands in a convention file or in a template. */
export interface Convention {
  readonly id: string;
  readonly name: string;
  readonly pattern: string;
  readonly fields?: readonly Field[] | undefined;
  readonly families?: readonly string[] | undefined;
  readonly good?: readonly string[] | undefined;
  readonly bad?: readonly string[] | undefined;
}

export const WEIGHTS = ['must', 'should', 'note'] as const;
export type Weight = (typeof WEIGHTS)[number];

export interface CheckSettings {
  readonly rules?: Readonly<Record<string, Weight | 'off'>> | undefined;
  readonly pathBudget?: number | undefined;
  readonly profiles?: readonly ProfileName[] | undefined;
  /** Artists may put right by themselves what carries their initials or was given to them. */
  readonly artistsMayRepair?: boolean | undefined;
}

export interface Setup {
  readonly settings?:
    | readonly {
        readonly label: string;
        readonly value: string;
        readonly allowed?: readonly string[] | undefined;
        readonly why?: string | undefined;
        /** What of each file is held to it. */
        readonly fact?: SettingFact | undefined;
        /** Only of files in these folders, by their nodes, and below. */
        readonly within?: readonly string[] | undefined;
      }[]
    | undefined;
  readonly firstDay?: readonly string[] | undefined;
}

/** What one line of a plan has otherwise for one project. */
export interface Adjustment {
  readonly leaveOut?: boolean | undefined;
  /** Makes an optional folder. */
  readonly make?: boolean | undefined;
  /** Another name than the pattern writes, its number in front included. */
  readonly name?: string | undefined;
  /** Made on another volume, under the project's own folder there, with all that is in it. */
  readonly volume?: string | undefined;
}

/** By the line's identity: a node's id with its entries. */
export type Adjustments = Readonly<Record<string, Adjustment>>;

export interface Template {
  readonly format: 'nesting/template';
  readonly formatVersion: 1;
  readonly id: string;
  readonly name: string;
  readonly edition?: number | undefined;
  readonly purpose?: string | undefined;
  readonly fields: readonly Field[];
  readonly conventions: readonly Convention[];
  readonly registers?: { readonly [K in keyof Registers]?: Registers[K] | undefined } | undefined;
  readonly blocks?: readonly Block[] | undefined;
  readonly root: FolderNode;
  readonly checks?: CheckSettings | undefined;
  readonly setup?: Setup | undefined;
  /** Only in the rules of one project: what it has otherwise. */
  readonly adjusted?: Adjustments | undefined;
}

/** The registers a template brings, every list there. */
export function ownRegisters(template: Template): Registers {
  const own = template.registers ?? {};
  return {
    clients: own.clients ?? [],
    people: own.people ?? [],
    families: own.families ?? [],
    abbreviations: own.abbreviations ?? [],
    banned: own.banned ?? [],
    libraries: own.libraries ?? [],
  };
}
