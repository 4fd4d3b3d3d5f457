import { useEffect, useRef, useState, type FormEvent } from 'react';
import { sdOf95, timedSpeed } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { useDraft } from '../drafts/use-draft.js';
import { StopwatchFace, useWatch } from './stopwatch.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { useOwnSpace } from './space-key.js';
import type { Readings } from './readings.js';
import { FigureInput } from './reading-fields.js';
import classes from './measuring.module.css';

const KEPT = 'decurio.timedDistance';

/** A stopwatch between two marks: Space starts and stops it, and the shown speed is asked for. */
export function TimedDistance({ readings }: { readonly readings: Readings }) {
  const [distance, setDistance] = useState<number | ''>(() => Number(localStorage.getItem(KEPT) ?? '50') || 50);
  const [within, setWithin] = useState<number | ''>(0.2);
  const { startedAt, start, stop } = useWatch();
  const draft = useDraft(`${readings.place}.timed`, { seconds: null as number | null, shown: '' as number | '' });
  const { seconds, shown } = draft.value;
  const shownField = useRef<HTMLInputElement>(null);
  const running = startedAt !== null;
  const toggle = () => {
    if (running) return draft.change({ seconds: stop() });
    draft.change({ seconds: null });
    start();
  };
  useOwnSpace();
  useEffect(() => {
    if (seconds !== null) shownField.current?.focus();
  }, [seconds]);
  const timed =
    seconds === null
      ? null
      : timedSpeed({
          distanceM: distance === '' ? 0 : distance,
          uDistanceM: sdOf95(within === '' ? 0 : within),
          seconds,
        });
  const add = (event?: FormEvent) => {
    event?.preventDefault();
    if (seconds === null) {
      // The distance is typed: Space is the watch again.
      if (document.activeElement instanceof HTMLInputElement) return document.activeElement.blur();
      return toggle();
    }
    if (!timed?.ok || distance === '' || (!readings.isTrueOnly && (shown === '' || !(shown > 0))))
      return shownField.current?.focus();
    localStorage.setItem(KEPT, String(distance));
    void readings.add('timed', {
      speed: timed.value,
      shown: shown === '' ? null : shown,
      instrument: `${distance} m`,
      words: `${distance} m in ${seconds?.toFixed(2)} s`,
    });
    draft.startAfresh();
  };
  // Where no shown speed is asked for there is no field that it could be sent from.
  const isWhole = seconds !== null && readings.isTrueOnly === true;
  useHotkeys({ Space: isWhole ? () => add() : toggle });
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureInput label="Marks apart, m" value={distance} onChange={setDistance} />
      <FigureInput label="Sure to ± m" value={within} onChange={setWithin} />
      <div className={classes['watch']} role="timer" aria-label="Stopwatch">
        <StopwatchFace startedAt={startedAt} stopped={seconds} className={classes['clock']} />
        <span className="soft">
          {timed?.ok
            ? `${timed.value.kmh.toFixed(2)} km/h true`
            : timed
              ? timed.problem.message
              : running
                ? 'running'
                : 'ready'}
        </span>
      </div>
      <div className={classes['entryActs']}>
        {seconds === null ? (
          <ActButton type="submit" look={running ? 'care' : 'quiet'} hotkey="Space" onAct={() => undefined}>
            {running ? 'Stop at the second mark' : 'Start at the first mark'}
          </ActButton>
        ) : (
          <>
            {!readings.isTrueOnly && (
              <FigureInput
                label={`Shown, ${readings.unit}`}
                value={shown}
                onChange={(shown) => draft.change({ shown })}
                inputRef={shownField}
              />
            )}
            <ActButton type="submit" hotkey="Enter" onAct={() => undefined}>
              Add reading
            </ActButton>
            <KeyButton hotkey="X" onAct={() => draft.change({ seconds: null })}>
              Again, not kept
            </KeyButton>
          </>
        )}
      </div>
    </form>
  );
}
