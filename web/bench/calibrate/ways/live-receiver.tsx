import { useEffect, useRef, useState, type FormEvent } from 'react';
import { receiverKmh, seeded, SPOT_U_KMH, type TrueSpeed } from '@decurio/core';
import { ActButton } from '../../../ui/act-button.js';
import { KeyButton } from '../../../ui/keys/key-button.js';
import { Notice } from '../../../ui/notice.js';
import { useHotkeys } from '../../../ui/keys/use-hotkeys.js';
import { useStandInFeed } from '../../stand-in/stand-in-feed.js';
import type { Readings } from '../use-readings.js';
import { steadySpeed, type Fix } from './steady-speed.js';
import { FigureInput } from './reading-fields.js';
import classes from '../calibrate.module.css';

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
  useHotkeys({ F: frozen ? undefined : freeze });
  useEffect(() => {
    if (frozen) field.current?.focus();
  }, [frozen]);
  const add = (event: FormEvent) => {
    event.preventDefault();
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
      <div className={classes['live']} data-steady={now?.isSteady ?? false}>
        <output className={classes['clock']} aria-live="off">
          {(frozen?.kmh ?? now?.kmh ?? 0).toFixed(1)}
        </output>
        <span>
          km/h true
          {frozen
            ? `, frozen, ± ${(frozen.uKmh * 2).toFixed(1)}`
            : now
              ? now.isSteady
                ? `, steady, ± ${(now.uKmh * 2).toFixed(1)}`
                : ', not steady yet'
              : ', waiting for a fix'}
        </span>
      </div>
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

const KEPT_MS = 12_000;
const TICK_MS = 500;
const RECEIVER_SD_KMH = 0.3;

interface Fixes {
  readonly fixes: readonly Fix[];
  readonly problem: string | null;
}

const withFix = (before: readonly Fix[], fix: Fix): readonly Fix[] => [
  ...before.filter(({ ms }) => fix.ms - ms < KEPT_MS),
  fix,
];

/** Fixes of the simulated receiver on the stand-in unit. */
function useStandInFixes(): Fixes {
  const feed = useStandInFeed();
  const [fixes, setFixes] = useState<readonly Fix[]>([]);
  const latest = useRef(feed);
  useEffect(() => {
    latest.current = feed;
  }, [feed]);
  useEffect(() => {
    const { normal } = seeded(1);
    const timer = setInterval(() => {
      const kmh = latest.current?.groundKmh ?? 0;
      setFixes((before) =>
        withFix(before, { ms: Date.now(), kmh: receiverKmh(kmh, kmh > 0 ? normal() : 0), uKmh: RECEIVER_SD_KMH }),
      );
    }, TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return { fixes, problem: null };
}

const NO_RECEIVER =
  'This device has no positioning. Sign in on a phone beside the bench, open this unit there, and take readings with it.';

/** Fixes of this device's own receiver. */
function useDeviceFixes(): Fixes {
  const [fixes, setFixes] = useState<readonly Fix[]>([]);
  const [problem, setProblem] = useState<string | null>(() => ('geolocation' in navigator ? null : NO_RECEIVER));
  useEffect(() => {
    if (!('geolocation' in navigator)) return;
    const watch = navigator.geolocation.watchPosition(
      ({ coords, timestamp }) => {
        // The sky may have been out of sight for a while.
        setProblem(null);
        const { speed } = coords;
        if (speed !== null)
          setFixes((before) => withFix(before, { ms: timestamp, kmh: speed * 3.6, uKmh: SPOT_U_KMH }));
      },
      (error) =>
        setProblem(
          error.code === error.PERMISSION_DENIED
            ? 'Positioning is switched off for this page. Allow it in the browser, or take readings another way.'
            : 'There is no position here, most likely for want of open sky. Take it outside, or put the wheel on the roller.',
        ),
      { enableHighAccuracy: true, maximumAge: 0 },
    );
    return () => navigator.geolocation.clearWatch(watch);
  }, []);
  return { fixes, problem };
}
