import { Checkbox } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import type { CalibrationOf, SpeedUnit } from '@decurio/core';
import { ActButton } from '../../../ui/act-button.js';
import type { Visit } from '../../use-visit.js';
import { FigureInput } from '../../../measuring/reading-fields.js';
import measuring from '../../../measuring/measuring.module.css';
import classes from '../calibrate.module.css';

/** Where drive really falls to zero: how far the cap is overshot. */
export function DriveEnd({
  found,
  unit,
  visit,
}: {
  readonly found: CalibrationOf;
  readonly unit: SpeedUnit;
  readonly visit: Visit;
}) {
  const [shown, setShown] = useState<number | ''>('');
  const [full, setFull] = useState(false);
  const { overshoot, codes } = found;
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (shown === '' || !(shown > 0)) return;
    void visit.act('driveEndRead', { shown, unit, words: '', ...(full ? { onFullPack: true } : {}) });
    setShown('');
  };
  return (
    <form className={measuring['entry']} onSubmit={keep}>
      <FigureInput label={`Drive ended at, shown ${unit}`} value={shown} onChange={setShown} autoFocus />
      <p className={classes['says']}>
        {codes.capKmh === null
          ? 'No cap is keyed that could be overshot.'
          : `The cap stands at ${codes.cap?.label} ${codes.capRaw}. Highest level, full pack, on the level or the bench: note the figure at which the motor stops pushing altogether.`}{' '}
        {overshoot.from === 'measured'
          ? `Measured so far: drive acts ${overshoot.kmh.toFixed(1)} km/h beyond it.`
          : overshoot.from === 'family'
            ? `On others of its type and display drive was seen to act ${overshoot.kmh.toFixed(1)} km/h beyond it.`
            : overshoot.from === 'map'
              ? `The display's map says ${overshoot.kmh} km/h beyond it.`
              : `How far beyond it drive acts, nobody has said: one step of the display, ${overshoot.kmh.toFixed(1)} km/h, stands for it.`}
      </p>
      <Checkbox
        label="On a full pack, rested: it then counts at Prove too"
        checked={full}
        onChange={(event) => setFull(event.currentTarget.checked)}
      />
      <div className={measuring['entryActs']}>
        <ActButton type="submit" hotkey="Enter" disabled={codes.capKmh === null} onAct={() => undefined}>
          Keep it: the cap is worked out anew
        </ActButton>
      </div>
    </form>
  );
}
