import { overLimitKmh, type CalibrationOf, type EndSpeed, type VisitState } from '@decurio/core';
import { percent, reachOf, readsWords } from './calibrate-words.js';
import classes from './verdict.module.css';

/** What the vehicle would do with the codes that are keyed now. */
export function AsKeyed({
  found,
  state,
  drive,
}: {
  readonly found: CalibrationOf;
  readonly state: VisitState;
  readonly drive: string;
}) {
  const { endsNow, estimate, codes, overshoot } = found;
  if (!estimate) return null;
  const over = overLimitKmh(found);
  const limit = state.opened.setup.speed?.limit ?? null;
  const family = state.opened.bench?.calibrate?.family ?? null;
  return (
    <section className={classes['card']} data-kind={over > 0 ? 'stop' : 'done'}>
      <p className="cap">As keyed now</p>
      <h2>{endsNow ? endWords(endsNow, over, limit?.kmh ?? Infinity, drive) : readsWords(estimate)}</h2>
      <p>
        {endsNow && codes.capCounts === 'share' && (
          <>
            {readsWords(estimate)}. Its cap is a share of what motor and pack attain, {endsNow.kmh.toFixed(1)} km/h on a
            full pack, whatever it shows: measured when it is proved.{' '}
          </>
        )}
        {endsNow && codes.capCounts === 'shown' && (
          <>
            {readsWords(estimate)}, so its {codes.capKmh === null ? 'cap' : trimmed(codes.capKmh)}
            {overshoot.kmh ? ` and the ${trimmed(overshoot.kmh)} beyond it` : ''}{' '}
            {endsNow.kmh >= (codes.capKmh ?? 0) ? 'is really' : 'is'} {endsNow.kmh.toFixed(1)}, or{' '}
            <b>{endsNow.worst.toFixed(1)} at worst</b>.{' '}
          </>
        )}
        {limit && `The limit is ${limit.words}.`}
        {!endsNow &&
          codes.capKmh === null &&
          ` ${state.opened.setup.worst?.says ?? 'No cap is keyed that a speed can be told from.'}`}
      </p>
      {overshoot.from === 'unknown' && (
        <p className="soft">
          How far drive acts beyond the cap nobody has measured: one step of the display stands for it. See Drive end.
        </p>
      )}
      {family &&
        (estimate.k < family.nextLow || estimate.k > family.nextHigh) &&
        codes.wheelRaw === family.wheelRaw && (
          <p className={classes['outsider']}>
            Not like its family: {percent(family.nextLow - 1)} to {percent(family.nextHigh - 1)} was expected of it, and
            it reads {percent(estimate.k - 1)} ± {percent(reachOf(estimate))}. The next units are run in full.
          </p>
        )}
    </section>
  );
}

function endWords({ kmh, worst }: EndSpeed, over: number, limitKmh: number, drive: string): string {
  if (over === 0) return `${drive} ends at ${kmh.toFixed(1)} km/h`;
  return kmh > limitKmh
    ? `${drive} would run to ${kmh.toFixed(1)} km/h`
    : `${drive} may run to ${worst.toFixed(1)} km/h`;
}

const trimmed = (kmh: number): string => String(Math.round(kmh * 10) / 10);
