/** Pairs of picture and sound as timelines of an open format (OTIO), each with its offset. */

import { nameOf } from '../listing/entry';
import type { IntakeItem } from '../planners/intake/given';
import type { Pair } from '../planners/intake/pair';

/** Where nothing tells how many frames a second has. */
const RATE = 25;

type Of = Pick<IntakeItem, 'from' | 'to' | 'facts'>;

/** A collection of one timeline a pair: whatever begins later stands behind a gap. Files by where they are brought. */
export function pairsOtio(pairs: readonly Pair[], items: readonly Of[]): string {
  const known = new Map(items.map((item) => [item.from, item]));
  const children = pairs.map((pair) => timelineOf(pair, known.get(pair.picture), known.get(pair.sound)));
  return `${JSON.stringify({ OTIO_SCHEMA: 'SerializableCollection.1', name: 'pairs', metadata: {}, children }, null, 1)}\n`;
}

function timelineOf({ picture, sound, offset }: Pair, image: Of | undefined, audio: Of | undefined) {
  const rate = image?.facts.frameRate ?? RATE;
  const later = offset ?? 0;
  return {
    OTIO_SCHEMA: 'Timeline.1',
    name: nameOf(picture),
    metadata: {},
    global_start_time: null,
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      metadata: {},
      source_range: null,
      effects: [],
      markers: [],
      children: [
        trackOf('Video', Math.max(0, -later), image?.to ?? picture, image?.facts.seconds ?? 0, rate),
        trackOf('Audio', Math.max(0, later), audio?.to ?? sound, audio?.facts.seconds ?? 0, rate),
      ],
    },
  };
}

function trackOf(kind: 'Video' | 'Audio', behind: number, path: string, seconds: number, rate: number) {
  const common = { metadata: {}, effects: [], markers: [] };
  const gap = { OTIO_SCHEMA: 'Gap.1', name: '', source_range: rangeOf(behind, rate), ...common };
  const media = {
    OTIO_SCHEMA: 'ExternalReference.1',
    name: nameOf(path),
    metadata: {},
    target_url: encodeURI(path),
    available_range: rangeOf(seconds, rate),
  };
  const clip = {
    ...{ OTIO_SCHEMA: 'Clip.1', name: nameOf(path), source_range: rangeOf(seconds, rate), media_reference: media },
    ...common,
  };
  const children = behind === 0 ? [clip] : [gap, clip];
  return { OTIO_SCHEMA: 'Track.1', name: kind, kind, source_range: null, children, ...common };
}

const rangeOf = (seconds: number, rate: number) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: { OTIO_SCHEMA: 'RationalTime.1', value: 0, rate },
  duration: { OTIO_SCHEMA: 'RationalTime.1', value: Math.round(seconds * rate), rate },
});
