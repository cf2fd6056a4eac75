/** A chart in the product's own looks. The library is large, and fetched only where something is drawn. */
import { useEffect, useRef, useState } from 'react';
import { useTheme } from '../../app/use-theme';

export interface Drawn {
  readonly data: readonly object[];
  readonly layout: object;
}

interface ChartProps {
  readonly label: string;
  readonly height: number;
  readonly draw: (colour: (name: string) => string) => Drawn;
  readonly onChoose?: (point: { readonly y: unknown; readonly x: unknown }) => void;
}

/** `draw` is given the colours of the look in force; the words beside it say what one sees. */
export function Chart({ label, height, draw, onChoose }: ChartProps) {
  const box = useRef<HTMLDivElement>(null);
  const look = useTheme();
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const at = box.current;
    if (at === null) return;
    let gone = false;
    void import('plotly.js-basic-dist-min').then(
      async ({ default: plotly }) => {
        if (gone) return;
        const style = getComputedStyle(document.documentElement);
        const colour = (name: string) => style.getPropertyValue(`--${name}`).trim();
        const { data, layout } = draw(colour);
        const axis = {
          gridcolor: colour('line'),
          linecolor: colour('rule'),
          zerolinecolor: colour('rule'),
          automargin: true,
          fixedrange: true,
        };
        const whole = {
          height,
          margin: { l: 8, r: 8, t: 8, b: 28 },
          paper_bgcolor: 'rgba(0,0,0,0)',
          plot_bgcolor: 'rgba(0,0,0,0)',
          font: { family: 'Hanken Grotesk Variable, sans-serif', size: 12, color: colour('ink2') },
          showlegend: false,
          hoverlabel: { bgcolor: colour('sheet'), bordercolor: colour('rule'), font: { color: colour('ink') } },
          xaxis: axis,
          yaxis: axis,
          ...layout,
        };
        await plotly.react(at, data as never, whole as never, { displayModeBar: false, responsive: true });
        const element = at as unknown as {
          removeAllListeners?: (event: string) => void;
          on?: (event: string, run: (event: { points: { x: unknown; y: unknown }[] }) => void) => void;
        };
        element.removeAllListeners?.('plotly_click');
        if (onChoose) element.on?.('plotly_click', (event) => event.points[0] && onChoose(event.points[0]));
      },
      () => setFailed(true),
    );
    return () => {
      gone = true;
    };
  }, [draw, height, look, onChoose]);
  useEffect(() => {
    const at = box.current;
    return () => {
      void import('plotly.js-basic-dist-min').then(({ default: plotly }) => at && plotly.purge(at));
    };
  }, []);
  return failed ? (
    <p className="text-sm text-ink2">The chart could not be fetched; the figures stand beside it.</p>
  ) : (
    <div ref={box} role="img" aria-label={label} style={{ height }} />
  );
}
