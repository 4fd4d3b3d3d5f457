import { endSeen, type Observation, type Watch } from '@decurio/core';
import classes from './prove.module.css';

const [WIDTH, HEIGHT, BASE, LEFT] = [620, 102, 70, 14];

/** Readings on a line of true speed, their mean with its bounds, and the limit with what lies beyond it. */
export function EndPlot({
  watch,
  seen,
}: {
  readonly watch: Watch & { readonly kind: 'speed' };
  readonly seen: readonly Observation[];
}) {
  const readings = seen.flatMap((each) => (each.kind === 'speed' ? [each] : []));
  const found = endSeen(readings);
  const all = [
    watch.limitKmh,
    ...(watch.predictedKmh === null ? [] : [watch.predictedKmh]),
    ...readings.map(({ trueKmh }) => trueKmh),
    ...(found ? [found.lower, found.upper] : []),
  ];
  const from = Math.floor(Math.min(...all) - 0.6);
  const to = Math.ceil(Math.max(...all) + 0.6);
  const x = (kmh: number): number => LEFT + ((kmh - from) / (to - from)) * (WIDTH - 2 * LEFT);
  const step = to - from > 12 ? 5 : to - from > 6 ? 2 : 1;
  const ticks = Array.from({ length: to - from + 1 }, (_, i) => from + i).filter((kmh) => (kmh - from) % step === 0);
  return (
    <svg className={classes['plot']} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={plotWords(watch, found)}>
      <rect
        x={x(watch.limitKmh)}
        y={14}
        width={x(to) - x(watch.limitKmh)}
        height={BASE - 14}
        className={classes['beyond']}
      />
      <line x1={x(watch.limitKmh)} x2={x(watch.limitKmh)} y1={8} y2={BASE} className={classes['limit']} />
      <text x={x(watch.limitKmh) + 5} y={26} className={classes['limitWords']}>
        limit {watch.words}
      </text>
      {found && (
        <>
          <rect
            x={x(found.lower)}
            y={42}
            width={Math.max(2, x(found.upper) - x(found.lower))}
            height={16}
            className={classes['span']}
          />
          <line x1={x(found.kmh)} x2={x(found.kmh)} y1={36} y2={64} className={classes['mean']} />
          <text x={x(found.kmh)} y={31} textAnchor="middle" className={classes['meanWords']}>
            {found.kmh.toFixed(1)}
          </text>
        </>
      )}
      {readings.map(({ trueKmh }, i) => (
        <circle key={i} cx={x(trueKmh)} cy={50} r={5} className={classes['dot']} />
      ))}
      {watch.predictedKmh !== null && (
        <path d={`M ${x(watch.predictedKmh)} ${BASE} l -5 9 h 10 z`} className={classes['predicted']} />
      )}
      <line x1={LEFT} x2={WIDTH - LEFT} y1={BASE} y2={BASE} className={classes['axis']} />
      {ticks.map((kmh) => (
        <text
          key={kmh}
          x={x(kmh)}
          y={BASE + 24}
          textAnchor={kmh === ticks.at(-1) ? 'end' : 'middle'}
          className={classes['tick']}
        >
          {kmh}
          {kmh === ticks.at(-1) ? ' km/h' : ''}
        </text>
      ))}
    </svg>
  );
}

const plotWords = (watch: Watch & { readonly kind: 'speed' }, found: ReturnType<typeof endSeen>): string =>
  found
    ? `Mean ${found.kmh.toFixed(1)} km/h, between ${found.lower.toFixed(1)} and ${found.upper.toFixed(1)}; limit ${watch.words}`
    : `No reading yet; limit ${watch.words}`;
