/** What the content of a file tells of it, whoever read it. What it does not tell is absent. */
export const HOLDS = ['still', 'picture', 'sound'] as const;
/** A photograph or drawing; moving images; sound alone. */
export type Holds = (typeof HOLDS)[number];

export interface MediaFacts {
  /** The extension that files of such content have, in small letters. */
  readonly content?: string | undefined;
  readonly has?: Holds | undefined;
  /** When it was begun, by the device's own clock: `2026-03-02T21:14:03`. */
  readonly taken?: string | undefined;
  readonly seconds?: number | undefined;
  /** Of its first frame, as `10:03:12:07`. */
  readonly timecode?: string | undefined;
  /** Frames a second. */
  readonly frameRate?: number | undefined;
  /** Pixels. */
  readonly width?: number | undefined;
  readonly height?: number | undefined;
  /** Hertz. */
  readonly sampleRate?: number | undefined;
  readonly channels?: number | undefined;
  /** Maker's words for what recorded it. */
  readonly device?: string | undefined;
  /** Metres that one unit of a scene stands for. */
  readonly metresPerUnit?: number | undefined;
  /** Why nothing could be read of it. */
  readonly unread?: 'failed' | 'took-too-long' | undefined;
}
