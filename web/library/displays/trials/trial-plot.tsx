import { CartesianGrid, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import { ticks } from 'd3-array';
import { formatRaw, QUANTITIES, type Code, type TrialJudgement, type TrialPlan, type TrialRun } from '@decurio/core';

/** Every run over its value, side by side in the order made, with the medians once all are there. */
export function TrialPlot({
  plan,
  runs,
  code,
  judged,
}: {
  readonly plan: TrialPlan;
  readonly runs: readonly TrialRun[];
  readonly code: Code;
  readonly judged: TrialJudgement | null;
}) {
  const { decimals } = QUANTITIES[plan.quantity];
  const places = plan.values.map((raw) => runs.filter((run) => run.raw === raw));
  const points = places.flatMap((group, place) =>
    group.map(({ measured }, i) => ({
      x: place + (group.length < 2 ? 0 : 0.36 * (i / (group.length - 1) - 0.5)),
      measured,
    })),
  );
  const all = points.map(({ measured }) => measured);
  const [low, high] = all.length === 0 ? [0, 1] : [Math.min(...all), Math.max(...all)];
  const margin = Math.max((high - low) * 0.12, 10 ** -decimals);
  const says = plan.values.map(
    (raw, i) => `${formatRaw(code, raw)}: ${(places[i] ?? []).map((run) => run.measured).join(', ') || 'none yet'}`,
  );
  return (
    <div role="img" aria-label={`Measured so far. ${says.join('. ')}`}>
      <ResponsiveContainer width="100%" height={260}>
        <ScatterChart margin={{ top: 10, right: 10, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis
            type="number"
            dataKey="x"
            domain={[-0.5, plan.values.length - 0.5]}
            ticks={plan.values.map((_, i) => i)}
            tickFormatter={(at: number) => formatRaw(code, plan.values[at] ?? 0)}
            stroke="var(--ink)"
            interval={0}
          />
          <YAxis
            type="number"
            dataKey="measured"
            domain={[Math.max(0, low - margin), high + margin]}
            tickFormatter={(value: number) => value.toFixed(decimals)}
            ticks={ticks(Math.max(0, low - margin), high + margin, 5)}
            stroke="var(--ink)"
            width={56}
          />
          {judged?.medians.map(({ raw, median }, i) => (
            <ReferenceLine
              key={raw}
              segment={[
                { x: i - 0.3, y: median },
                { x: i + 0.3, y: median },
              ]}
              stroke="var(--ochre)"
              strokeWidth={3}
            />
          ))}
          <Scatter data={points} fill="var(--verdigris)" isAnimationActive={false} />
        </ScatterChart>
      </ResponsiveContainer>
    </div>
  );
}
