import { useState } from 'react';
import { LiveReceiver } from './live-receiver.js';
import type { Readings } from './readings.js';
import { RollerBench } from './roller-bench.js';
import { SpotReading } from './spot-reading.js';
import { TimedDistance } from './timed-distance.js';
import { WayTabs } from './way-tabs.js';

const WAYS = [
  ['live', 'Receiver'],
  ['roller', 'Roller'],
  ['timed', 'Stopwatch'],
  ['spot', 'By hand'],
] as const;
type Way = (typeof WAYS)[number][0];

/** A true speed alone, by whichever reference is at hand; another `of` begins its fields afresh. */
export function TrueSpeedWays({
  readings,
  of,
  begin,
}: {
  readonly readings: Readings;
  readonly of: string;
  readonly begin: Way;
}) {
  const [way, setWay] = useState<Way>(begin);
  return (
    <>
      <WayTabs ways={WAYS} way={way} onWay={setWay} hotkey="T" panelId="by" />
      <div role="tabpanel" id="by" aria-labelledby={`by-${way}`} key={`${of} ${way}`}>
        {way === 'live' ? (
          <LiveReceiver readings={readings} />
        ) : way === 'roller' ? (
          <RollerBench readings={readings} />
        ) : way === 'timed' ? (
          <TimedDistance readings={readings} />
        ) : (
          <SpotReading readings={readings} last={undefined} />
        )}
      </div>
    </>
  );
}
