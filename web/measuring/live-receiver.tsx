import { useEffect, useRef, useState, type FormEvent } from 'react';
import type { TrueSpeed } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { Notice } from '../ui/notice.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { useDeviceFixes, useStandInFixes, type Fixes } from './receiver-fixes.js';
import { SpeedFace } from './speed-face.js';
import { useStandInFeed } from './stand-in-feed.js';
import { steadySpeed } from './steady-speed.js';
import type { Readings } from './readings.js';
import { FigureInput } from './reading-fields.js';
import classes from './measuring.module.css';

/** Live speed from the stand-in unit's simulated receiver while it is out, else from this device's own. */
export function LiveReceiver({ readings }: { readonly readings: Readings }) {
  return useStandInFeed() === null ? <DeviceReceiver readings={readings} /> : <StandInReceiver readings={readings} />;
}

const DeviceReceiver = ({ readings }: { readonly readings: Readings }) => (
  <Live readings={readings} source="device" {...useDeviceFixes()} />
);
const StandInReceiver = ({ readings }: { readonly readings: Readings }) => (
  <Live readings={readings} source="stand-in" {...useStandInFixes()} />
);

/** A receiver's speed as it comes in; one key freezes the steady one, and the shown speed is asked for. */
function Live({
  readings,
  fixes,
  problem,
  source,
}: Fixes & { readonly readings: Readings; readonly source: 'device' | 'stand-in' }) {
  const [frozen, setFrozen] = useState<TrueSpeed | null>(null);
  const [shown, setShown] = useState<number | ''>('');
  const field = useRef<HTMLInputElement>(null);
  const now = steadySpeed(fixes);
  const freeze = () => {
    if (!now) return;
    setFrozen({ kmh: now.kmh, uKmh: now.uKmh, uCommon: 0 });
  };
  // Where no shown speed is asked for there is no field that it could be sent from.
  useHotkeys({ F: frozen ? undefined : freeze, Space: frozen && readings.isTrueOnly ? () => add() : undefined });
  useEffect(() => {
    if (frozen) field.current?.focus();
  }, [frozen]);
  const add = (event?: FormEvent) => {
    event?.preventDefault();
    if (!frozen || (!readings.isTrueOnly && (shown === '' || !(shown > 0)))) return field.current?.focus();
    void readings.add('live', {
      speed: frozen,
      shown: shown === '' ? null : shown,
      instrument: source,
      words: source === 'stand-in' ? 'simulated receiver' : '',
    });
    setFrozen(null);
    setShown('');
  };
  if (problem) return <Notice kind="note" title="No receiver here" says={problem} />;
  return (
    <form className={classes['entry']} onSubmit={add}>
      <SpeedFace now={now} frozen={frozen} />
      <div className={classes['entryActs']}>
        {frozen ? (
          <>
            {!readings.isTrueOnly && (
              <FigureInput label={`Shown, ${readings.unit}`} value={shown} onChange={setShown} inputRef={field} />
            )}
            <ActButton type="submit" hotkey="Enter" onAct={() => undefined}>
              Add reading
            </ActButton>
            <KeyButton hotkey="X" onAct={() => setFrozen(null)}>
              Not this one
            </KeyButton>
          </>
        ) : (
          <ActButton look="quiet" hotkey="F" disabled={!now?.isSteady} onAct={freeze}>
            Freeze this speed
          </ActButton>
        )}
      </div>
      <p className="soft">Ride only inside the yard, helmet on, both hands on the bar: stop before you type.</p>
    </form>
  );
}
