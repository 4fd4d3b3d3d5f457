import {
  Area,
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from 'recharts';
import type { CalibrationOf, KeptReading, SpeedUnit } from '@decurio/core';
import classes from './calibrate.module.css';

const KM_PER_MILE = 1.609344;
const STEPS = 24;

interface Point {
  readonly x: number;
  readonly y: number;
  readonly u: number;
}

/** Shown against true speed: readings with their errors, the ratio with its band, the line where both agree; residuals under it. */
export function SpeedPlot({
  found,
  kept,
  unit,
}: {
  readonly found: CalibrationOf;
  readonly kept: readonly KeptReading[];
  readonly unit: SpeedUnit;
}) {
  const per = unit === 'mph' ? KM_PER_MILE : 1;
  const used: Point[] = found.readings.map(({ trueKmh, shownKmh, uKmh }) => ({
    x: trueKmh,
    y: shownKmh / per,
    u: uKmh,
  }));
  const out: Point[] = kept
    .filter(({ leftOut, offGround }) => leftOut !== null && !offGround)
    .map(({ trueKmh, shown, uKmh }) => ({ x: trueKmh, y: shown, u: uKmh }));
  const doubtful = found.doubts.flatMap(({ index }) => used[index] ?? []);
  const most = Math.max((found.question?.limitKmh ?? 25) * 1.08, 10, ...[...used, ...out].map(({ x }) => x * 1.08));
  const ticks = Array.from({ length: Math.floor(most / 5) + 1 }, (_, i) => i * 5);
  const shownTicks = Array.from({ length: Math.floor(most / per / 5) + 1 }, (_, i) => i * 5);
  const { estimate, glass } = found;
  // A display that cuts off shows half a step less than it counts, on average: the line is drawn where its figures fall.
  const low = glass.rounding === 'truncated' ? glass.resolutionKmh / 2 / per : 0;
  const fit = Array.from({ length: STEPS + 1 }, (_, i) => {
    const x = (most * i) / STEPS;
    return {
      x,
      same: x / per,
      fit: estimate ? fitAt(found, x) / per - low : null,
      band: estimate ? [(estimate.low * x) / per - low, (estimate.high * x) / per - low] : null,
    };
  });
  const residuals = estimate ? used.map(({ x, y }) => ({ x, y: y + low - fitAt(found, x) / per })) : [];
  const worst = Math.max(0.5, ...residuals.map(({ y }) => Math.abs(y))) * 1.15;
  return (
    <figure className={classes['plots']} aria-label={plotWords(found, unit)}>
      <div className={classes['plot']}>
        <ResponsiveContainer width="100%" height="100%">
          <ComposedChart data={fit} margin={{ top: 8, right: 18, bottom: 0, left: -18 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--rule-light)" vertical={false} />
            <XAxis
              dataKey="x"
              type="number"
              domain={[0, most]}
              ticks={ticks}
              tickFormatter={(value: number) => (value === ticks.at(-1) ? `${value} km/h true` : String(value))}
              stroke="var(--rule)"
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              tickMargin={4}
              height={22}
            />
            <YAxis
              type="number"
              domain={[0, most / per]}
              ticks={shownTicks}
              stroke="var(--rule)"
              tick={{ fill: 'var(--soft)', fontSize: 12 }}
              width={48}
            />
            <Line
              dataKey="same"
              dot={false}
              stroke="var(--soft)"
              strokeDasharray="4 4"
              strokeWidth={1}
              isAnimationActive={false}
              activeDot={false}
            />
            <Area
              dataKey="band"
              stroke="none"
              fill="var(--verdigris)"
              fillOpacity={0.18}
              isAnimationActive={false}
              activeDot={false}
            />
            <Line
              dataKey="fit"
              dot={false}
              stroke="var(--verdigris)"
              strokeWidth={2.5}
              isAnimationActive={false}
              activeDot={false}
            />
            {used.length > 0 && (
              <Scatter data={used} dataKey="y" fill="var(--ink)" isAnimationActive={false}>
                <ErrorBar dataKey="u" direction="x" width={4} stroke="var(--ink)" strokeWidth={1.5} />
              </Scatter>
            )}
            {out.length > 0 && (
              <Scatter data={out} dataKey="y" shape="cross" fill="var(--madder)" isAnimationActive={false} />
            )}
            {doubtful.length > 0 && (
              <Scatter
                data={doubtful}
                dataKey="y"
                fill="none"
                stroke="var(--madder)"
                strokeWidth={2}
                shape={Ring}
                isAnimationActive={false}
              />
            )}
          </ComposedChart>
        </ResponsiveContainer>
        <span className={classes['plotNote']}>dashed: shown = true</span>
      </div>
      {residuals.length > 0 && (
        <div className={classes['residuals']}>
          <ResponsiveContainer width="100%" height="100%">
            <ComposedChart
              data={residuals}
              margin={{ top: 4, right: 18, bottom: 0, left: -18 }}
              accessibilityLayer={false}
            >
              <XAxis dataKey="x" type="number" domain={[0, most]} ticks={ticks} hide />
              <YAxis
                type="number"
                domain={[-worst, worst]}
                ticks={[-niceStep(worst), 0, niceStep(worst)]}
                stroke="var(--rule)"
                tick={{ fill: 'var(--soft)', fontSize: 11 }}
                width={48}
              />
              <ReferenceLine y={0} stroke="var(--verdigris)" strokeWidth={1.5} />
              <Scatter data={residuals} dataKey="y" fill="var(--ink)" isAnimationActive={false} />
            </ComposedChart>
          </ResponsiveContainer>
          <span className={classes['plotNote']}>left over, {unit}</span>
        </div>
      )}
    </figure>
  );
}

function fitAt({ estimate, bent }: CalibrationOf, x: number): number {
  if (!bent) return (estimate?.k ?? 1) * x;
  return bent.fit.slope * x + bent.fit.amount * (bent.kind === 'offset' ? 1 : x ** 2);
}

const niceStep = (worst: number): number => (worst > 2 ? Math.floor(worst) : worst > 1 ? 1 : 0.5);

const Ring = ({ cx = 0, cy = 0 }: { readonly cx?: number | undefined; readonly cy?: number | undefined }) => (
  <circle cx={cx} cy={cy} r={9} fill="none" stroke="var(--madder)" strokeWidth={2} />
);

function plotWords({ readings, estimate }: CalibrationOf, unit: SpeedUnit): string {
  if (!estimate) return 'Shown against true speed; nothing was read yet';
  return `Shown against true speed: ${readings.length} readings, ${readings.map(({ trueKmh, shownKmh }) => `${(unit === 'mph' ? shownKmh / KM_PER_MILE : shownKmh).toFixed(1)} at ${trueKmh.toFixed(1)}`).join(', ')}; ratio ${estimate.k.toFixed(3)}, ${estimate.low.toFixed(3)} to ${estimate.high.toFixed(3)}`;
}
