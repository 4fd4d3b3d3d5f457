import { useRef, useState, type PointerEvent } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceArea, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Stretch } from '@decurio/core';
import type { TrackView } from '../../../workers/track-worker.js';
import classes from './track.module.css';

/** Room that the axes take, px: where the pointer is in the plot is counted from there. */
const LEFT = 40;
const RIGHT = 12;
/** An edge is taken hold of within so many px. */
const HOLD = 12;
const SHORTEST_MS = 5_000;

export interface TrackPlotProps {
  readonly track: TrackView;
  readonly stretches: readonly { readonly id: number; readonly stretch: Stretch }[];
  /** A stretch was moved, or with no id drawn anew. */
  readonly onMove: (id: number | null, fromMs: number, toMs: number) => void;
}

interface Drag {
  readonly id: number | null;
  readonly fromMs: number;
  readonly toMs: number;
  readonly edge: 'from' | 'to';
}

/** Speed over time with the steady stretches shaded. An edge is dragged; dragging elsewhere draws a new stretch. */
export function TrackPlot({ track, stretches, onMove }: TrackPlotProps) {
  const box = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const { startMs, endMs } = track;
  const msAt = (event: PointerEvent): number => {
    const { left, width } = box.current?.getBoundingClientRect() ?? { left: 0, width: 1 };
    const share = (event.clientX - left - LEFT) / Math.max(1, width - LEFT - RIGHT);
    return startMs + Math.min(1, Math.max(0, share)) * (endMs - startMs);
  };
  const begin = (event: PointerEvent) => {
    const at = msAt(event);
    const reach = (HOLD / Math.max(1, (box.current?.clientWidth ?? 1) - LEFT - RIGHT)) * (endMs - startMs);
    const held = stretches
      .flatMap(({ id, stretch }) =>
        (['from', 'to'] as const).map((edge) => ({
          id,
          edge,
          stretch,
          off: Math.abs((edge === 'from' ? stretch.fromMs : stretch.toMs) - at),
        })),
      )
      .filter(({ off }) => off <= reach)
      .toSorted((a, b) => a.off - b.off)[0];
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag(
      held
        ? { id: held.id, fromMs: held.stretch.fromMs, toMs: held.stretch.toMs, edge: held.edge }
        : { id: null, fromMs: at, toMs: at, edge: 'to' },
    );
  };
  const turn = (event: PointerEvent) =>
    drag && setDrag({ ...drag, ...(drag.edge === 'from' ? { fromMs: msAt(event) } : { toMs: msAt(event) }) });
  const end = () => {
    if (drag && Math.abs(drag.toMs - drag.fromMs) >= SHORTEST_MS)
      onMove(drag.id, Math.min(drag.fromMs, drag.toMs), Math.max(drag.fromMs, drag.toMs));
    setDrag(null);
  };
  const most = Math.max(10, ...track.speeds.map(({ kmh }) => kmh ?? 0)) * 1.08;
  const minutes = (endMs - startMs) / 60_000;
  const step = minutes > 60 ? 15 : minutes > 20 ? 5 : minutes > 6 ? 2 : 1;
  const ticks = Array.from({ length: Math.floor(minutes / step) + 1 }, (_, i) => startMs + i * step * 60_000);
  return (
    <div
      ref={box}
      className={classes['plot']}
      role="img"
      aria-label={`Speed over ${Math.round(minutes)} minutes, ${stretches.length} steady stretches shaded`}
      onPointerDown={begin}
      onPointerMove={turn}
      onPointerUp={end}
      onPointerCancel={() => setDrag(null)}
    >
      <ResponsiveContainer width="100%" height="100%">
        <LineChart
          data={[...track.speeds]}
          margin={{ top: 6, right: RIGHT, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid stroke="var(--rule-light)" vertical={false} />
          <XAxis
            dataKey="ms"
            type="number"
            domain={[startMs, endMs]}
            ticks={ticks}
            tickFormatter={(ms: number) => `${Math.round((ms - startMs) / 60_000)} min`}
            stroke="var(--rule)"
            tick={{ fill: 'var(--soft)', fontSize: 12 }}
            height={22}
          />
          <YAxis
            type="number"
            domain={[0, most]}
            width={LEFT}
            tickFormatter={(kmh: number) => String(Math.round(kmh))}
            stroke="var(--rule)"
            tick={{ fill: 'var(--soft)', fontSize: 12 }}
          />
          {stretches.map(({ id, stretch }, i) => (
            <ReferenceArea
              key={id}
              x1={drag?.id === id ? drag.fromMs : stretch.fromMs}
              x2={drag?.id === id ? drag.toMs : stretch.toMs}
              fill="var(--verdigris)"
              fillOpacity={0.2}
              stroke="var(--verdigris)"
              label={{ value: String(i + 1), position: 'insideTop', fill: 'var(--ink)', fontSize: 13 }}
            />
          ))}
          {drag?.id === null && (
            <ReferenceArea
              x1={Math.min(drag.fromMs, drag.toMs)}
              x2={Math.max(drag.fromMs, drag.toMs)}
              fill="var(--ochre)"
              fillOpacity={0.25}
            />
          )}
          <Line
            dataKey="kmh"
            dot={false}
            stroke="var(--ink)"
            strokeWidth={1.5}
            isAnimationActive={false}
            activeDot={false}
            connectNulls={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
