import { useMemo } from 'react';
import { markColour, trayPath } from '../ui/signs';
import { layoutNest, type NestNode } from './layout';

interface Props {
  readonly root: NestNode;
  readonly width: number;
  readonly height: number;
  readonly label: string;
  /** With names and signs, and trays that can be chosen: the map of a project. */
  readonly large?: boolean;
  /** How many levels are drawn; three where a drawing is small. */
  readonly levels?: number;
  readonly chosen?: string | null;
  readonly onChoose?: (key: string) => void;
}

/** A hierarchy as nested trays: small in lists, so that a project is known by its shape, and large as its map. */
export function Nest({ root, width, height, label, large = false, levels, chosen = null, onChoose }: Props) {
  const boxes = useMemo(
    () => layoutNest(root, width - 2, height - 2, levels ?? (large ? 3 : 2), large ? 3 : 2.5, large ? 12 : 0),
    [root, width, height, large, levels],
  );
  return (
    <svg
      width={width}
      height={height}
      viewBox={`-1 -1 ${width} ${height}`}
      role="img"
      aria-label={label}
      className="shrink-0"
    >
      {boxes.map(({ node, depth, x, y, w, h }) => {
        const colour = node.state === 'unplanned' ? 'var(--ochre)' : markColour(node.mark);
        const solid = node.state === 'there';
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the tree beside it does the same by keyboard
          <g
            key={node.key}
            onClick={onChoose && (() => onChoose(node.key))}
            className={onChoose ? 'cursor-pointer' : undefined}
          >
            <path
              d={trayPath(depth === 1 ? node.mark : null, x, y, w, h, depth === 0 ? 1.4 : depth === 1 ? 0.9 : 0.6)}
              fill={depth === 0 ? 'var(--sheet)' : node.state === 'absent' ? 'var(--sheet)' : colour}
              fillOpacity={depth === 0 ? 1 : node.state === 'absent' ? 1 : solid || !large ? 0.2 : 0.12}
              stroke={chosen === node.key ? 'var(--plum)' : depth === 0 ? 'var(--ink)' : colour}
              strokeWidth={chosen === node.key ? 2 : depth === 0 ? 1.2 : 0.8}
              strokeDasharray={node.state === 'planned' && large ? '3 2' : node.state === 'absent' ? '2 2' : undefined}
            />
            {node.state === 'unplanned' && (
              <path
                d={`M${x} ${y + h}L${x + w} ${y}M${x} ${y + h / 2}L${x + w / 2} ${y}M${x + w / 2} ${y + h}L${x + w} ${y + h / 2}`}
                stroke={colour}
                strokeWidth="1.2"
              />
            )}
            {large && node.state === 'absent' && w > 16 && h > 10 && (
              <path d={`M${x + w / 2 - 5} ${y}l5 6l5-6`} fill="var(--paper)" stroke={colour} strokeWidth="1" />
            )}
            {large &&
              (depth === 1 || (levels !== undefined && depth > 1)) &&
              w > 34 &&
              (node.children.length === 0 ? h > 16 : h > 36) && (
                <text
                  x={x + 5}
                  y={y + 11.5}
                  fontSize={depth === 1 ? 10 : 9}
                  fill={depth === 1 ? 'var(--ink)' : 'var(--ink2)'}
                  className={depth === 1 ? 'font-sans' : 'font-mono'}
                >
                  {fit(node.name.replace(/^\d+_/, ''), w - 8)}
                </text>
              )}
            {large && (node.signs ?? 0) > 0 && node.children.length === 0 && w > 10 && h > 10 && (
              <path d={`M${x + w - 11} ${y + h - 11}h5l3 3v5h-8z`} fill="var(--brick)" />
            )}
          </g>
        );
      })}
    </svg>
  );
}

/** As much of a name as fits, by the width of a mean letter. */
function fit(name: string, width: number): string {
  const most = Math.floor(width / 5.4);
  return name.length <= most ? name : `${name.slice(0, Math.max(1, most - 1))}…`;
}
