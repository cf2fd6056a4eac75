/** What a sound or a picture was recorded together with. */
import { nameOf } from '@nesting/core/listing';
import { useMemo } from 'react';
import { Button, Heading } from '../../ui';
import { Finder } from '../../ui/finder';
import type { Item } from './intake-rows';
import type { IntakeWork } from './intake-work';

const BY_WORDS = { timecode: 'by timecode', time: 'by time', name: 'by name', hand: 'by hand' } as const;
const MOST_OFFERED = 200;

export function PairOf({ work: { plan, said, setPairing }, item }: { work: IntakeWork; item: Item }) {
  const { from, facts } = item;
  const isSound = facts.has === 'sound';
  const own = (plan?.pairs ?? []).filter(({ picture, sound }) => (isSound ? sound : picture) === from);
  const others = useMemo(
    () => (plan?.items ?? []).filter((one) => one.facts.has === (isSound ? 'picture' : 'sound')).slice(0, MOST_OFFERED),
    [plan, isSound],
  );
  const pairOf = (other: string) => (isSound ? { picture: other, sound: from } : { picture: from, sound: other });
  const without = (list: typeof said.pairing.joined, other: string) =>
    list.filter(
      (pair) => (isSound ? pair.picture : pair.sound) !== other || (isSound ? pair.sound : pair.picture) !== from,
    );
  const part = (other: string) =>
    setPairing({
      joined: without(said.pairing.joined, other),
      parted: [...without(said.pairing.parted, other), pairOf(other)],
    });
  const join = (other: string) =>
    setPairing({
      joined: [...without(said.pairing.joined, other), pairOf(other)],
      parted: without(said.pairing.parted, other),
    });
  if (own.length === 0 && others.length === 0) return null;
  return (
    <section aria-label="Recorded together" className="flex flex-col gap-2">
      <Heading>{isSound ? 'Its picture' : 'Its sound'}</Heading>
      {own.map((pair) => {
        const other = isSound ? pair.picture : pair.sound;
        return (
          <p key={other} className="flex items-center gap-2">
            <span className="min-w-0 flex-1">
              <span className="font-mono break-all">{nameOf(other)}</span>{' '}
              <span className="text-ink2">
                {BY_WORDS[pair.by]}
                {pair.offset === null ? '' : `, ${offsetWords(pair.offset)}`}
              </span>
            </span>
            <Button variant="quiet" onClick={() => part(other)}>
              Part them
            </Button>
          </p>
        );
      })}
      {others.length > 0 && (
        <Finder
          label={own.length === 0 ? 'Join it with' : 'Join it with another'}
          options={others.map((one) => ({ value: one.from, label: one.from }))}
          value={null}
          onSeek={() => undefined}
          onChoose={join}
        />
      )}
    </section>
  );
}

const offsetWords = (seconds: number): string =>
  seconds === 0
    ? 'begun together'
    : `the sound begins ${Math.abs(Math.round(seconds * 100) / 100)} s ${seconds < 0 ? 'earlier' : 'later'}`;
