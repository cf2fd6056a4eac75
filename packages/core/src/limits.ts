/** Every bound on what strangers send, with its reason. Lengths are in UTF-16 units unless said otherwise. */
export const LIMITS = {
  /** A pattern longer than this is no name pattern: the longest name any profile allows is 255. */
  patternLength: 1000,
  /** Parts of one pattern, groups counted with what they hold: keeps compiled readers and proofs small. */
  patternParts: 100,
  /** Groups within groups: nobody can tell deeper ones apart. */
  groupDepth: 4,
  /** Longest name looked at; longer ones are answered, not read. */
  nameLength: 4096,
  /** A text without a `max` of its own: the longest name a common file system takes. */
  textMax: 255,
  /** Entries of one list field, so that a range like `1..99999999` is refused before it is written out. */
  listEntries: 10_000,
  /** Planned lines of one project: products of lists multiply quickly. */
  plannedLines: 200_000,
  /** Depth of a template: deeper than any system's path can hold. */
  templateDepth: 100,
  /** Nodes written in one template, blocks counted each time they are used. */
  templateNodes: 50_000,
  /** Pairs of states the one-way proof looks at before it says "not decided in time" (about 50 ms here). */
  proofPairs: 400_000,
  /** Values of fields that stand twice, each of which is proved beside the others. */
  proofVariants: 64,
  /** Names one learning looks at: more add nothing to what is learned. */
  learnNames: 10_000,
  /** States of one automaton in the proof. */
  proofStates: 20_000,
  /** Names that suggestions are worked out for, of one length: alignment is quadratic in it. */
  suggestLength: 255,
  /** Longest project number, and longest pattern of one: it stands in front of most names. */
  seriesLength: 60,
  /** Levels of JSON: each folder of the deepest template is two, and something stands around it. */
  jsonLevels: 256,
  /** Bytes of one starter file: blank documents are far smaller, and it is copied into every project. */
  starterBytes: 32 * 1024 * 1024,
  /** Bytes of a file of rules, and of all that its zip unpacks to: a house's rules with their starter files. */
  ruleFileBytes: 128 * 1024 * 1024,
} as const;
