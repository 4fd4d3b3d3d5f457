import { TextInput } from '@mantine/core';
import { useRef, useState, type FormEvent } from 'react';
import { sdOf95, spotSpeed, SPOT_U_KMH, type KeptReading } from '@decurio/core';
import { ActButton } from '../../../ui/act-button.js';
import { useHotkeys } from '../../../ui/use-hotkeys.js';
import type { Readings } from '../use-readings.js';
import { FigureInput, OffGround } from './reading-fields.js';
import classes from '../calibrate.module.css';

/** A true speed read off a receiver or a marker board, and the shown one beside it. */
export function SpotReading({
  readings,
  last,
}: {
  readonly readings: Readings;
  readonly last: KeptReading | undefined;
}) {
  const [trueKmh, setTrue] = useState<number | ''>('');
  const [shown, setShown] = useState<number | ''>('');
  const [within, setWithin] = useState<number | ''>(SPOT_U_KMH * 2);
  const [words, setWords] = useState('');
  const [offGround, setOffGround] = useState(false);
  const [problem, setProblem] = useState<{ readonly at: 'true' | 'shown'; readonly says: string } | null>(null);
  const [first, second] = [useRef<HTMLInputElement>(null), useRef<HTMLInputElement>(null)];
  useHotkeys({
    A: () => first.current?.focus(),
    L:
      last &&
      (() => {
        setTrue(Number(last.trueKmh.toFixed(2)));
        second.current?.focus();
      }),
  });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (trueKmh === '' || !(trueKmh > 0)) {
      setProblem({ at: 'true', says: 'Type the true speed, above zero.' });
      return first.current?.focus();
    }
    if (shown === '' || !(shown > 0)) {
      if (document.activeElement === second.current)
        setProblem({ at: 'shown', says: 'Type what the display shows, above zero.' });
      return second.current?.focus();
    }
    setProblem(null);
    void readings.add('spot', {
      speed: spotSpeed(trueKmh, sdOf95(within === '' ? SPOT_U_KMH * 2 : within)),
      shown,
      offGround,
      words: words.trim(),
    });
    setTrue('');
    setShown('');
    first.current?.focus();
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureInput
        label="True, km/h"
        value={trueKmh}
        onChange={setTrue}
        inputRef={first}
        error={problem?.at === 'true' ? problem.says : null}
        autoFocus
      />
      <FigureInput
        label={`Shown, ${readings.unit}`}
        value={shown}
        onChange={setShown}
        inputRef={second}
        error={problem?.at === 'shown' ? problem.says : null}
      />
      <FigureInput label="Sure to ± km/h" value={within} onChange={setWithin} />
      <TextInput
        label="Where, how"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        maxLength={60}
        placeholder="Yard, steady"
        data-scan-guard="words"
        className={classes['words']}
      />
      <div className={classes['entryActs']}>
        <ActButton type="submit" look="quiet" hotkey="Enter" onAct={() => undefined}>
          Add reading
        </ActButton>
        {last && (
          <ActButton
            hotkey="L"
            onAct={() => {
              setTrue(Number(last.trueKmh.toFixed(2)));
              second.current?.focus();
            }}
          >
            Same again
          </ActButton>
        )}
        <OffGround checked={offGround} onChange={setOffGround} />
      </div>
    </form>
  );
}
