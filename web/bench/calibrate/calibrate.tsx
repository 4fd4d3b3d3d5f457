import { Suspense, useState } from 'react';
import type { CalibrationOf, SpeedTerms, VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { Busy, Notice } from '../../ui/notice.js';
import { part } from '../lazy-part.js';
import type { Visit } from '../use-visit.js';
import { nextWords } from './calibrate-words.js';
import { ReadingsTable } from './readings-table.js';
import { SpeedPlot } from './speed-plot.js';
import { useCalibration } from './use-calibration.js';
import { LiveReceiver } from '../../measuring/live-receiver.js';
import type { Readings } from '../../measuring/readings.js';
import { RollerBench } from '../../measuring/roller-bench.js';
import { SpotReading } from '../../measuring/spot-reading.js';
import { TimedDistance } from '../../measuring/timed-distance.js';
import { WayTabs } from '../../measuring/way-tabs.js';
import { useReadings } from './use-readings.js';
import { DriveEnd } from './ways/drive-end.js';
import { WheelMeasureForm } from './ways/wheel-measure.js';
import classes from './calibrate.module.css';

const TrackImport = part(() => import('./ways/track-import.js').then((m) => ({ default: m.TrackImport })));

const WAYS = [
  ['wheel', 'Roll-out'],
  ['spot', 'Spot'],
  ['live', 'Live'],
  ['timed', 'Timed'],
  ['roller', 'Roller'],
  ['track', 'Track'],
  ['end', 'Drive end'],
] as const;
type Way = (typeof WAYS)[number][0];

export interface CalibrateProps {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 7, in the middle: what was read, by whichever reference, and what it amounts to. */
export function Calibrate({ bench, state, visit }: CalibrateProps) {
  const found = useCalibration(state, bench.map);
  const readings = useReadings(bench, state, visit);
  const [way, setWay] = useState<Way>('spot');
  if (!found) return <Notice kind="note" says="This visit was opened before speeds were read here." />;
  const count = found.readings.length;
  return (
    <div className={classes['panel']}>
      <header className={classes['head']}>
        <p className="cap">Wheel run · shown against true speed</p>
        <strong className={classes['care']}>Ride only inside the yard. Helmet on.</strong>
      </header>
      <WayTabs ways={WAYS} way={way} onWay={setWay} hotkey="N" panelId="way" />
      {way !== 'track' && <SpeedPlot found={found} kept={state.calibration.readings} unit={readings.unit} />}
      {way !== 'wheel' && way !== 'track' && <BeforeRun way={way} terms={state.opened.setup.speed} />}
      <div role="tabpanel" id="way" aria-labelledby={`way-${way}`}>
        <Suspense fallback={<Busy />}>
          <WayPanel
            way={way}
            found={found}
            readings={readings}
            bench={bench}
            state={state}
            visit={visit}
            onSpot={() => setWay('spot')}
          />
        </Suspense>
      </div>
      <p className={classes['next']} role="status">
        <b>
          {count} reading{count === 1 ? '' : 's'}
        </b>{' '}
        {nextWords(found.next, found)}.
      </p>
      {way !== 'track' && <ReadingsTable found={found} kept={state.calibration.readings} visit={visit} />}
    </div>
  );
}

/** What makes readings of two days differ more than two wheels do. */
function BeforeRun({ way, terms }: { readonly way: Way; readonly terms: SpeedTerms | undefined }) {
  const tyres = terms?.tyreBar
    ? `Tyres cold at ${terms.tyreBar.from} to ${terms.tyreBar.to} bar`
    : 'Tyres cold, at their pressure';
  return (
    <p className="soft">
      {tyres}, its usual rider; the display lags: read once its figure stands.
      {way === 'end' && ' There and back: the higher of the two counts.'}
    </p>
  );
}

interface WayPanelProps extends CalibrateProps {
  readonly way: Way;
  readonly found: CalibrationOf;
  readonly readings: Readings;
  readonly onSpot: () => void;
}

function WayPanel({ way, found, readings, state, visit, onSpot }: WayPanelProps) {
  switch (way) {
    case 'wheel':
      return (
        <WheelMeasureForm
          marking={state.opened.setup.speed?.tyre ?? ''}
          known={state.calibration.wheel}
          blocked={
            state.calibration.fitted ? 'Wheel and cap were chosen by runs already, which tell more than a tape.' : null
          }
          onKeep={(data) => void visit.act('wheelMeasured', data)}
        />
      );
    case 'spot':
      return (
        <SpotReading
          readings={readings}
          last={state.calibration.readings.findLast(({ reference }) => reference === 'spot')}
        />
      );
    case 'live':
      return <LiveReceiver readings={readings} />;
    case 'timed':
      return <TimedDistance readings={readings} />;
    case 'roller':
      return <RollerBench readings={readings} />;
    case 'track':
      return <TrackImport readings={readings} onDone={onSpot} />;
    case 'end':
      return <DriveEnd found={found} unit={readings.unit} visit={visit} />;
  }
}
