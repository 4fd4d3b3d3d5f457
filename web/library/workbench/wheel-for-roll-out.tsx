import { SegmentedControl, Select } from '@mantine/core';
import { useState } from 'react';
import {
  circumferenceMm,
  formatRaw,
  mapTitle,
  rolledOut,
  valuesInOrder,
  wheelValueFor,
  type Code,
  type DisplayMap,
  type ShownSpeed,
} from '@decurio/core';
import { api } from '../../state/api.js';
import { Calculator, Figure, known } from './calculator.js';
import classes from './workbench.module.css';

/** Which value of a display's wheel code suits a wheel that was rolled out. */
export function WheelForRollOut() {
  const maps = (api.useLibraryQuery('displayMap').data ?? [])
    .map(({ document }) => document as DisplayMap)
    .filter(({ codes }) => codes.some(isWheel));
  const [mapId, setMapId] = useState<string | null>(null);
  const [distance, setDistance] = useState<number | ''>('');
  const [turns, setTurns] = useState<number | ''>(5);
  const [shown, setShown] = useState<ShownSpeed>('neverUnder');
  const map = maps.find(({ id }) => id === mapId) ?? maps[0];
  const code = map?.codes.find(isWheel);
  const both = known(distance, turns);
  const rolled = both ? rolledOut({ distanceMm: both[0], turns: both[1], loaded: true }) : null;
  const pick = code && rolled?.ok ? wheelValueFor(code, rolled.value.mm, shown) : undefined;
  return (
    <Calculator
      title="Wheel code for this roll-out"
      asks="Rolled out under a rider's load over some turns: which value comes nearest, and how far off is it?"
      follows={
        rolled && !rolled.ok ? (
          <p>{rolled.problem.message}</p>
        ) : pick && code && rolled?.ok ? (
          <>
            <strong>
              {code.label} to {formatRaw(code, pick.raw)}
            </strong>
            <p>
              A turn is {Math.round(rolled.value.mm)} mm, {Math.round(rolled.value.fromMm)} to{' '}
              {Math.round(rolled.value.toMm)}. {around(code, pick.raw, rolled.value.mm)}
            </p>
          </>
        ) : (
          <p>
            Type the whole distance and the turns
            {rolled && code ? '; the values of this display\u2019s wheel code are not known' : ''}.
          </p>
        )
      }
    >
      <Select
        label="Display"
        data={maps.map((each) => ({ value: each.id, label: mapTitle(each) }))}
        value={map?.id ?? null}
        onChange={setMapId}
        allowDeselect={false}
        className={classes['wide'] ?? ''}
      />
      <Figure label="Distance, mm" value={distance} onChange={setDistance} />
      <Figure label="Turns" value={turns} onChange={setTurns} />
      <SegmentedControl
        aria-label="Shown speed"
        value={shown}
        onChange={(next) => setShown(next as ShownSpeed)}
        data={[
          { value: 'neverUnder', label: 'never under true' },
          { value: 'nearest', label: 'nearest' },
        ]}
      />
    </Calculator>
  );
}

const isWheel = (code: Code): boolean => code.function === 'wheelSize' && code.access !== 'absent';

/** What the value and its neighbours read. */
function around(code: Code, raw: number, trueMm: number): string {
  const values = valuesInOrder(code);
  const at = values.indexOf(raw);
  return [values[at - 1], raw, values[at + 1]]
    .flatMap((value) => {
      const mm = value === undefined ? undefined : circumferenceMm(code, value);
      if (value === undefined || mm === undefined) return [];
      const off = (mm / trueMm - 1) * 100;
      return [`${formatRaw(code, value)} reads ${Math.abs(off).toFixed(1)} % ${off < 0 ? 'low' : 'high'}`];
    })
    .join('; ')
    .concat('.');
}
