import { TextInput } from '@mantine/core';
import { useRef, useState, type FormEvent } from 'react';
import { sdOf95, spotSpeed, SPOT_U_KMH, type KeptReading } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { useDraft } from '../drafts/use-draft.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import type { Readings } from './readings.js';
import { FigureInput, OffGround } from './reading-fields.js';
import classes from './measuring.module.css';

/** A true speed read off a receiver or a marker board, and the shown one beside it. */
export function SpotReading({
  readings,
  last,
}: {
  readonly readings: Readings;
  readonly last: KeptReading | undefined;
}) {
  const draft = useDraft(`${readings.place}.spot`, {
    trueKmh: '' as number | '',
    shown: '' as number | '',
    within: (SPOT_U_KMH * 2) as number | '',
    words: '',
    offGround: false,
  });
  const { trueKmh, shown, within, words, offGround } = draft.value;
  const sameAgain = () => {
    draft.change({ trueKmh: Number(last?.trueKmh.toFixed(2)) });
    second.current?.focus();
  };
  const [problem, setProblem] = useState<{ readonly at: 'true' | 'shown'; readonly says: string } | null>(null);
  const [first, second] = [useRef<HTMLInputElement>(null), useRef<HTMLInputElement>(null)];
  useHotkeys({
    A: () => first.current?.focus(),
    L: last && sameAgain,
  });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (trueKmh === '' || !(trueKmh > 0)) {
      setProblem({ at: 'true', says: 'Type the true speed, above zero.' });
      return first.current?.focus();
    }
    if (!readings.isTrueOnly && (shown === '' || !(shown > 0))) {
      if (document.activeElement === second.current)
        setProblem({ at: 'shown', says: 'Type what the display shows, above zero.' });
      return second.current?.focus();
    }
    setProblem(null);
    void readings.add('spot', {
      speed: spotSpeed(trueKmh, sdOf95(within === '' ? SPOT_U_KMH * 2 : within)),
      shown: shown === '' ? null : shown,
      offGround,
      words: words.trim(),
    });
    draft.change({ trueKmh: '', shown: '' });
    first.current?.focus();
  };
  return (
    <form className={classes['entry']} onSubmit={add}>
      <FigureInput
        label="True, km/h"
        value={trueKmh}
        onChange={(trueKmh) => draft.change({ trueKmh })}
        inputRef={first}
        error={problem?.at === 'true' ? problem.says : null}
        autoFocus
      />
      {!readings.isTrueOnly && (
        <FigureInput
          label={`Shown, ${readings.unit}`}
          value={shown}
          onChange={(shown) => draft.change({ shown })}
          inputRef={second}
          error={problem?.at === 'shown' ? problem.says : null}
        />
      )}
      <FigureInput label="Sure to ± km/h" value={within} onChange={(within) => draft.change({ within })} />
      {!readings.isTrueOnly && (
        <TextInput
          label="Where, how"
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          maxLength={60}
          placeholder="Yard, steady"
          data-scan-guard="words"
          className={classes['words']}
        />
      )}
      <div className={readings.isTrueOnly ? undefined : classes['entryActs']}>
        <ActButton type="submit" look="quiet" hotkey="Enter" onAct={() => undefined}>
          Add reading
        </ActButton>
        {last && (
          <ActButton hotkey="L" onAct={sameAgain}>
            Same again
          </ActButton>
        )}
        {!readings.isTrueOnly && (
          <OffGround checked={offGround} onChange={(offGround) => draft.change({ offGround })} />
        )}
      </div>
    </form>
  );
}
