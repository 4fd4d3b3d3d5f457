import { useState } from 'react';
import { KM_PER_MILE, type Observation, type ProvingTest, type ReferenceKind, type Watch } from '@decurio/core';
import { KeyButton } from '../../ui/keys/key-button.js';
import { Notice } from '../../ui/notice.js';
import type { ApiProblem } from '../../state/api.js';
import type { NewReading, Readings } from '../../measuring/readings.js';
import { useStandInFeed } from '../../measuring/stand-in-feed.js';
import { EndPlot } from './end-plot.js';
import measuring from '../../measuring/measuring.module.css';
import { TrueSpeedWays } from '../../measuring/true-speed-ways.js';

type SpeedSeen = Observation & { readonly kind: 'speed' };

/** The true speed by whichever reference is at hand: the same ones that calibrate. */
export function SpeedWays({
  test,
  watch,
  seen,
  place,
  onSeen,
  onAsked,
}: {
  readonly test: ProvingTest;
  readonly watch: Watch & { readonly kind: 'speed' };
  readonly seen: readonly Observation[];
  readonly place: string;
  readonly onSeen: (seen: Observation) => Promise<ApiProblem | null>;
  /** A refusal that is asked about here is not told elsewhere too. */
  readonly onAsked: () => void;
}) {
  const feed = useStandInFeed();
  const [doubted, setDoubted] = useState<SpeedSeen | null>(null);
  const add = async (kind: ReferenceKind, { speed, instrument = '' }: NewReading) => {
    const reading: SpeedSeen = {
      kind: 'speed',
      trueKmh: speed.kmh,
      uKmh: speed.uKmh,
      uCommon: speed.uCommon,
      reference: `${kind}${instrument === '' ? '' : ` ${instrument}`}`,
    };
    const problem = await onSeen(reading);
    setDoubted(problem?.code === 'milesMeant' ? reading : null);
    if (problem?.code === 'milesMeant') onAsked();
  };
  const readings: Readings = { place, unit: 'km/h', isTrueOnly: true, add };
  const settle = (reading: SpeedSeen) => {
    setDoubted(null);
    void onSeen({ ...reading, isSure: true });
  };
  return (
    <>
      <TrueSpeedWays readings={readings} of={test.id} begin={feed ? 'live' : 'spot'} />
      {doubted && (
        <div className={measuring['entryActs']}>
          <Notice
            kind="care"
            title={`${doubted.trueKmh.toFixed(1)} km/h, where ${watch.predictedKmh?.toFixed(1) ?? ''} is expected`}
            says="Were these miles an hour? It is kept once you say so."
          />
          <KeyButton
            hotkey="I"
            onAct={() =>
              settle({ ...doubted, trueKmh: doubted.trueKmh * KM_PER_MILE, uKmh: doubted.uKmh * KM_PER_MILE })
            }
          >
            They were mph: {(doubted.trueKmh * KM_PER_MILE).toFixed(1)} km/h
          </KeyButton>
          <KeyButton hotkey="Y" onAct={() => settle(doubted)}>
            As typed, {doubted.trueKmh.toFixed(1)} km/h
          </KeyButton>
        </div>
      )}
      <EndPlot watch={watch} seen={seen} />
    </>
  );
}
