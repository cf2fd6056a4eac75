/**
 * The large nest: what is planned, there, absent, unplanned; how much lies where, and where the findings are. The tree
 * beside it holds the same for the keyboard.
 */
import type { PlannedLine } from '@nesting/core/template';
import { useEffect, useMemo, useRef, useState } from 'react';
import { count, size } from '../../app/words';
import { Nest } from '../../nest/nest';
import { nestOfLines } from '../../nest/of-template';
import { Choose } from '../../ui';
import { STATE_WORDS, TraySign } from '../../ui/signs';
import type { Overlay } from './overlay';

const SIZES = { things: 'by what is in it', bytes: 'by bytes', findings: 'by findings' } as const;
export type MapSize = keyof typeof SIZES;
export const isMapSize = (word: string | null): word is MapSize => word !== null && Object.hasOwn(SIZES, word);

interface Props {
  readonly title: string;
  readonly lines: readonly PlannedLine[];
  readonly overlay: Overlay;
  readonly by: MapSize;
  readonly onBy: (by: MapSize) => void;
  readonly chosen: string | null;
  readonly onChoose: (key: string) => void;
}

export function MapView({ title, lines, overlay, by, onBy, chosen, onChoose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 600, height: 480 });
  useEffect(() => {
    const at = box.current;
    if (at === null) return;
    const seen = new ResizeObserver(
      ([entry]) =>
        entry && setRoom({ width: Math.floor(entry.contentRect.width), height: Math.floor(entry.contentRect.height) }),
    );
    seen.observe(at);
    return () => seen.disconnect();
  }, []);
  const bytes = [...overlay.folders.values()].reduce((n, f) => n + f.bytes, 0);
  const nest = useMemo(() => {
    const share = (path: string): number => {
      if (by === 'bytes') return bytes === 0 ? 0 : ((overlay.folders.get(path)?.bytes ?? 0) / bytes) * 20_000;
      return by === 'findings' ? overlay.signsAt(path) * 60 : (overlay.folders.get(path)?.files ?? 0);
    };
    return nestOfLines(
      lines,
      (line) => ({ state: overlay.stateOf(line), files: share(line.path), signs: overlay.signsAt(line.path) }),
      overlay.unplanned.map((u) => ({ ...u, files: share(u.path) })),
    );
  }, [lines, overlay, by, bytes]);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 text-xs text-ink2">
        <span className="w-44">
          <Choose
            label="How large a tray is drawn"
            value={by}
            options={Object.entries(SIZES).map(([value, label]) => ({ value, label }))}
            onChange={(value) => onBy(value as MapSize)}
          />
        </span>
        {(['there', 'planned', 'absent', 'unplanned'] as const).map((state) => (
          <span key={state} className="flex items-center gap-1.5">
            <TraySign mark={null} state={state} /> {STATE_WORDS[state]}
          </span>
        ))}
        <span className="ml-auto">
          {size(bytes)}, {count([...overlay.folders.values()].reduce((n, f) => n + f.files, 0))} files
        </span>
      </div>
      <div ref={box} className="min-h-0 flex-1 overflow-hidden">
        <Nest
          root={nest}
          width={room.width}
          height={room.height}
          label={`Map of ${title}, ${SIZES[by]}`}
          large
          levels={5}
          chosen={chosen}
          onChoose={onChoose}
        />
      </div>
    </div>
  );
}
