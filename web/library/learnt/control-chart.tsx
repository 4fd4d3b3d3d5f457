import { nice, ticks } from 'd3-array';
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts';
import type { LearntFamily } from '@decurio/contract';
import classes from './learnt.module.css';

const TICKS = 5;

/** Run by run, how much a unit reads over true; the mean, where 95 of 100 lie, and where the next one is expected. */
export function ControlChart({ family: { runs, advice } }: { readonly family: LearntFamily }) {
  const isOdd = new Set(advice.odd.map(({ run }) => run.visitId));
  const points = runs.map(({ serial, visitId, k, leftOut }, i) => {
    const off = (k - 1) * 100;
    return { at: i + 1, serial, off, odd: isOdd.has(visitId) ? off : null, out: leftOut ? off : null };
  });
  const { family } = advice;
  const edges = [
    ...points.map(({ off }) => off),
    ...(family ? [family.tolerance.low, family.tolerance.high].map((k) => (k - 1) * 100) : []),
  ];
  const [least, most] = [Math.min(...edges), Math.max(...edges)];
  const pad = Math.max(0.3, (most - least) * 0.12);
  const [from, to] = nice(least - pad, most + pad, TICKS);
  const steps = ticks(from, to, TICKS);
  const decimals = Math.max(0, ...steps.map((step) => (`${Number(step.toFixed(6))}`.split('.')[1] ?? '').length));
  const next = points.length + 1;
  return (
    <figure
      className={classes['chart']}
      aria-label={`Runs in order: ${points.map(({ serial, off }) => `${serial} ${off.toFixed(1)} %`).join(', ')}`}
    >
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart data={points} margin={{ top: 8, right: 24, bottom: 0, left: 0 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--rule-light)" vertical={false} />
          <XAxis
            dataKey="at"
            type="number"
            domain={[0.5, next + 0.5]}
            ticks={[...points.map(({ at }) => at), next]}
            tickFormatter={(at: number) => (at === next ? 'next' : (points[at - 1]?.serial.split('-').at(-1) ?? ''))}
            stroke="var(--rule)"
            tick={{ fill: 'var(--soft)', fontSize: 12 }}
            height={24}
          />
          <YAxis
            type="number"
            domain={[from, to]}
            ticks={steps}
            tickFormatter={(off: number) => `${off < 0 ? '−' : off > 0 ? '+' : ''}${Math.abs(off).toFixed(decimals)} %`}
            stroke="var(--rule)"
            tick={{ fill: 'var(--soft)', fontSize: 12 }}
            width={58}
          />
          {family && (
            <ReferenceArea
              y1={(family.tolerance.low - 1) * 100}
              y2={(family.tolerance.high - 1) * 100}
              fill="var(--verdigris)"
              fillOpacity={0.1}
            />
          )}
          {family && <ReferenceLine y={(family.mean - 1) * 100} stroke="var(--verdigris)" strokeWidth={2} />}
          <Line
            dataKey="off"
            stroke="var(--soft)"
            strokeWidth={1}
            dot={false}
            isAnimationActive={false}
            activeDot={false}
          />
          <Scatter dataKey="off" fill="var(--ink)" isAnimationActive={false} />
          <Scatter dataKey="odd" fill="var(--madder)" shape="diamond" isAnimationActive={false} />
          <Scatter dataKey="out" fill="var(--rule)" shape="cross" isAnimationActive={false} />
          {family && (
            <ReferenceArea
              x1={next - 0.18}
              x2={next + 0.18}
              y1={(family.next.low - 1) * 100}
              y2={(family.next.high - 1) * 100}
              fill="var(--ochre)"
              fillOpacity={0.55}
            />
          )}
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  );
}
