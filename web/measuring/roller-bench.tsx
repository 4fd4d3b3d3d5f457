import { useRef, useState, type FormEvent } from 'react';
import { rollerRpm, rollerSpeed } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { useDraft } from '../drafts/use-draft.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { keepRoller, keptRoller } from './kept-roller.js';
import { useStandInFeed } from './stand-in-feed.js';
import type { Readings } from './readings.js';
import { FigureInput } from './reading-fields.js';
import classes from './measuring.module.css';

/** Turns of a roller under the tyre, and what the display shows meanwhile. */
export function RollerBench({ readings }: { readonly readings: Readings }) {
  const [kept] = useState(keptRoller);
  const [rollerMm, setRoller] = useState<number | ''>(kept.acrossMm);
  const [withinMm, setWithin] = useState<number | ''>(kept.withinMm);
  const draft = useDraft(`${readings.place}.roller`, { rpm: '' as number | '', shown: '' as number | '' });
  const { rpm, shown } = draft.value;
  const [first, second] = [useRef<HTMLInputElement>(null), useRef<HTMLInputElement>(null)];
  const feed = useStandInFeed();
  const read = () => {
    if (!feed || rollerMm === '') return;
    draft.change({ rpm: rollerRpm(feed.treadKmh, rollerMm) });
    second.current?.focus();
  };
  useHotkeys({ A: () => first.current?.focus(), F: feed ? read : undefined });
  const speed =
    rpm === ''
      ? null
      : rollerSpeed({
          rpm,
          stepRpm: 1,
          rollerMm: rollerMm === '' ? 0 : rollerMm,
          withinMm: withinMm === '' ? 0 : withinMm,
        });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!speed?.ok) return first.current?.focus();
    if (!readings.isTrueOnly && (shown === '' || !(shown > 0))) return second.current?.focus();
    keepRoller({ acrossMm: Number(rollerMm), withinMm: Number(withinMm) });
    void readings.add('roller', {
      speed: speed.value,
      shown: shown === '' ? null : shown,
      instrument: `${rollerMm} mm`,
      words: `roller ${rollerMm} mm at ${rpm} a minute`,
    });
    draft.startAfresh();
    first.current?.focus();
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureInput label="Roller, mm across" value={rollerMm} onChange={setRoller} />
      <FigureInput label="Sure to ± mm" value={withinMm} onChange={setWithin} />
      <FigureInput
        label="Turns a minute"
        value={rpm}
        onChange={(rpm) => draft.change({ rpm })}
        inputRef={first}
        error={speed && !speed.ok ? speed.problem.message : null}
        autoFocus
      />
      {!readings.isTrueOnly && (
        <FigureInput
          label={`Shown, ${readings.unit}`}
          value={shown}
          onChange={(shown) => draft.change({ shown })}
          inputRef={second}
        />
      )}
      <div className={classes['entryActs']}>
        <ActButton type="submit" hotkey="Enter" onAct={() => undefined}>
          Add reading
        </ActButton>
        {feed && (
          <ActButton hotkey="F" onAct={read}>
            Read the stand-in&rsquo;s roller
          </ActButton>
        )}
        <span className="soft">
          {speed?.ok
            ? `${speed.value.kmh.toFixed(2)} km/h, one per cent for slip among it`
            : 'Wheel on the roller, tyre at its pressure, somebody on the saddle.'}
        </span>
      </div>
    </form>
  );
}
