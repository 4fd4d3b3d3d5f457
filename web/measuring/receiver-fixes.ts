import { useEffect, useRef, useState } from 'react';
import { receiverKmh, seeded, SPOT_U_KMH } from '@decurio/core';
import { useStandInFeed } from './stand-in-feed.js';
import type { Fix } from './steady-speed.js';

export interface Fixes {
  /** Of the last seconds, oldest first. */
  readonly fixes: readonly Fix[];
  /** Why there are none, and what to do. */
  readonly problem: string | null;
}

const KEPT_MS = 12_000;
const TICK_MS = 500;
const RECEIVER_SD_KMH = 0.3;

const withFix = (before: readonly Fix[], fix: Fix): readonly Fix[] => [
  ...before.filter(({ ms }) => fix.ms - ms < KEPT_MS),
  fix,
];

/** Fixes of the simulated receiver on the stand-in unit. */
export function useStandInFixes(): Fixes {
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
  'This device has no positioning. Sign in on a phone beside the vehicle, and take the speed with it.';

/** Fixes of this device's own receiver. */
export function useDeviceFixes(): Fixes {
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
