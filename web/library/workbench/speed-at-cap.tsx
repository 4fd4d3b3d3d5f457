import { useState } from 'react';
import { endSpeed, estimateSpeedRatio, greatestSafeKmh, sdOf95, type SpeedReading } from '@decurio/core';
import { Calculator, Figure } from './calculator.js';
import classes from './workbench.module.css';

interface Pair {
  readonly true: number | '';
  readonly shown: number | '';
}
const NO_PAIR: Pair = { true: '', shown: '' };

/** How fast it really is at its cap, from speeds that somebody noted. */
export function SpeedAtCap() {
  const [pairs, setPairs] = useState<readonly Pair[]>([NO_PAIR, NO_PAIR]);
  const [within, setWithin] = useState<number | ''>(1);
  const [cap, setCap] = useState<number | ''>(25);
  const [limit, setLimit] = useState<number | ''>(25);
  const set = (i: number, change: Partial<Pair>) =>
    setPairs((before) => [
      ...before.map((pair, at) => (at === i ? { ...pair, ...change } : pair)),
      ...(i === before.length - 1 ? [NO_PAIR] : []),
    ]);
  const readings: SpeedReading[] = pairs.flatMap((pair) =>
    pair.true !== '' && pair.shown !== '' && pair.true > 0 && pair.shown > 0
      ? [
          {
            trueKmh: pair.true,
            shownKmh: pair.shown,
            uKmh: sdOf95(within === '' ? 1 : within),
            reference: 'told',
            uCommon: 0,
            scale: 1,
          },
        ]
      : [],
  );
  const found = estimateSpeedRatio(readings, {
    resolutionKmh: readings.some(({ shownKmh }) => !Number.isInteger(shownKmh)) ? 0.1 : 1,
    rounding: 'nearest',
  });
  const ratio = found.ok ? found.value : null;
  const ends = ratio && cap !== '' ? endSpeed(cap, ratio, 0) : null;
  const most =
    ratio && limit !== '' ? greatestSafeKmh({ limitKmh: limit, ratio, overshootKmh: 0, tolerance: 0 }) : null;
  return (
    <Calculator
      title="Speed at the cap"
      asks="Shown and true speeds as somebody noted them: how fast is it really where the display says the cap?"
      follows={
        ratio && ends ? (
          <>
            <strong>
              Shows {cap}, runs {ends.kmh.toFixed(1)} km/h
            </strong>
            <p>
              {ends.least.toFixed(1)} to {ends.worst.toFixed(1)}; the display reads {ratio.k.toFixed(3)} of true (
              {ratio.low.toFixed(3)} to {ratio.high.toFixed(3)}).
              {most !== null &&
                limit !== '' &&
                ` Within ${limit} it may be set to ${Math.max(0, Math.floor(most * 10 + 1e-6) / 10)} at most, as shown.`}
            </p>
          </>
        ) : (
          <p>Type one pair of speeds at least, above zero.</p>
        )
      }
    >
      <div className={classes['pairs']}>
        {pairs.map((pair, i) => (
          <div key={i}>
            <Figure label={`True ${i + 1}, km/h`} value={pair.true} onChange={(value) => set(i, { true: value })} />
            <Figure label={`Shown ${i + 1}`} value={pair.shown} onChange={(value) => set(i, { shown: value })} />
          </div>
        ))}
      </div>
      <Figure label="Sure to ± km/h" value={within} onChange={setWithin} />
      <Figure label="Cap, as shown" value={cap} onChange={setCap} />
      <Figure label="Limit, km/h" value={limit} onChange={setLimit} />
    </Calculator>
  );
}
