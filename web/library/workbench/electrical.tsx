import { useState } from 'react';
import {
  CELL_VOLTS,
  checkPack,
  classesThatExplain,
  currentLimitFor,
  gaugeUnderEachClass,
  percentWords,
  rangeSpan,
  storageAdvice,
  STORAGE_ACTS,
  STORAGE_DAYS,
  type Chemistry,
} from '@decurio/core';
import { Calculator, ChemistryField, Figure, known } from './calculator.js';

const AMPLE_A = 1_000;

/** Amperes for a power, by each of its three readings. */
export function CurrentForPower() {
  const [watts, setWatts] = useState<number | ''>('');
  const [labelV, setLabel] = useState<number | ''>(36);
  const [cells, setCells] = useState<number | ''>(10);
  const [chemistry, setChemistry] = useState<Chemistry>('liIon');
  const all = known(watts, labelV, cells);
  const limit =
    all &&
    currentLimitFor({
      pack: { chemistry, cellsInSeries: all[2], labelV: all[1], capacityAh: 1 },
      limits: [{ watts: all[0], basis: 'nominal', is: 'atMost' }],
      ratedW: 0,
      controllerA: AMPLE_A,
      typeA: AMPLE_A,
    });
  const readings = limit && limit.ok && limit.value.readings[0] ? { ...limit.value, ...limit.value.readings[0] } : null;
  return (
    <Calculator
      title="Current for this power"
      asks="A limit in watts has three readings. On the rated one no current follows from it."
      follows={
        readings && all ? (
          <>
            <strong>
              {Math.floor(readings.nominalA)} A by the label, {Math.floor(readings.fullA)} A on a full pack
            </strong>
            <p>
              {all[0]} W at {readings.nominalV} V are {readings.nominalA.toFixed(2)} A; at {readings.fullV.toFixed(1)}{' '}
              V, full, {readings.fullA.toFixed(2)} A. Rounded down to whole amperes: never above controller or type.
            </p>
          </>
        ) : (
          <p>Type the power; the class says which reading counts.</p>
        )
      }
    >
      <Figure label="Power, W" value={watts} onChange={setWatts} />
      <Figure label="Label, V" value={labelV} onChange={setLabel} />
      <Figure label="In series" value={cells} onChange={setCells} />
      <ChemistryField value={chemistry} onChange={setChemistry} />
    </Calculator>
  );
}

/** Which packs a meter reading may be, and which voltage class explains what a gauge shows. */
export function PackFromVoltage() {
  const [volts, setVolts] = useState<number | ''>('');
  const [gauge, setGauge] = useState<number | ''>('');
  const [chemistry, setChemistry] = useState<Chemistry>('liIon');
  const cell = CELL_VOLTS[chemistry];
  const checked = volts === '' ? null : checkPack({ chemistry, cellsInSeries: 1, labelV: 0, capacityAh: 1 }, volts);
  const counts = checked?.ok ? checked.value.countsThatFit : [];
  const explain = volts !== '' && gauge !== '' ? classesThatExplain(chemistry, volts, gauge) : [];
  return (
    <Calculator
      title="Pack from this voltage"
      asks="A meter between the terminals, at rest: how many cells may be in series, and what a gauge would make of it."
      follows={
        volts === '' || !(volts > 0) ? (
          <p>Type what the meter reads.</p>
        ) : counts.length === 0 ? (
          <p>
            No usual pack of these cells reads {volts} V. Another chemistry, or a pack that is not sound: it is not
            charged until somebody qualified has seen it.
          </p>
        ) : (
          <>
            <strong>{counts.join(' or ')} in series</strong>
            <p>
              {counts
                .map((n) => `${n}: ${(cell.floorV * n).toFixed(1)} to ${(cell.fullV * n).toFixed(1)} V`)
                .join('; ')}
              . {counts.length > 1 && 'A reading after a full charge with its own charger settles it. '}
              {gauge === ''
                ? `A gauge set for ${gaugeUnderEachClass(chemistry, volts)
                    .map(
                      ({ labelV, charge, says }) =>
                        `${labelV} V would show ${charge === null ? 'more than full' : says === 'empty' ? 'empty' : `${percentWords(charge)} %`}`,
                    )
                    .join(', for ')}.`
                : explain.length === 0
                  ? `No usual class makes ${gauge} % of it.`
                  : `A gauge that shows ${gauge} % is set for ${explain.join(' or ')} V.`}
            </p>
          </>
        )
      }
    >
      <Figure label="By meter, V" value={volts} onChange={setVolts} />
      <Figure label="Gauge, %" value={gauge} onChange={setGauge} />
      <ChemistryField value={chemistry} onChange={setChemistry} />
    </Calculator>
  );
}

/** How a pack is put away for the winter. */
export function Storage() {
  const [chemistry, setChemistry] = useState<Chemistry>('liIon');
  const [cells, setCells] = useState<number | ''>(10);
  const [volts, setVolts] = useState<number | ''>('');
  const all = known(cells, volts);
  const advice = all && storageAdvice({ chemistry, cellsInSeries: all[0], labelV: 1, capacityAh: 1 }, all[1]);
  return (
    <Calculator
      title="Put a pack away"
      asks="For more than a few weeks: lithium about half full, lead-acid full. By meter, at rest."
      follows={
        advice?.ok ? (
          <>
            <strong>
              {advice.value.fromV} to {advice.value.toV} V
            </strong>
            <p>
              {STORAGE_ACTS[advice.value.act]} Write date and volts on it, and measure it again every {STORAGE_DAYS}{' '}
              days.
            </p>
          </>
        ) : (
          <p>{advice && !advice.ok ? advice.problem.message : 'Type its cells in series and what a meter reads.'}</p>
        )
      }
    >
      <ChemistryField value={chemistry} onChange={setChemistry} />
      <Figure label="Cells in series" value={cells} onChange={setCells} />
      <Figure label="By meter, V" value={volts} onChange={setVolts} />
    </Calculator>
  );
}

/** How far a pack carries, as a span. */
export function Range() {
  const [labelV, setLabel] = useState<number | ''>(36);
  const [ah, setAh] = useState<number | ''>(13);
  const [share, setShare] = useState<number | ''>(80);
  const [least, setLeast] = useState<number | ''>(7);
  const [most, setMost] = useState<number | ''>(11);
  const all = known(labelV, ah, share, least, most);
  const worked =
    all &&
    rangeSpan({
      pack: { chemistry: 'liIon', cellsInSeries: 10, labelV: all[0], capacityAh: all[1] },
      usableShare: all[2] / 100,
      whPerKm: { least: all[3], most: all[4] },
    });
  const span = worked?.ok ? worked.value : null;
  return (
    <Calculator
      title="Range"
      asks="From the label, the share that is planned on, and what the type uses a kilometre."
      follows={
        span ? (
          <>
            <strong>
              {span.fromKm} to {span.toKm} km
            </strong>
            <p>
              {Math.round(span.usableWh)} Wh. {span.assumes.join(' ')}
            </p>
          </>
        ) : (
          <p>{worked && !worked.ok ? worked.problem.message : 'Type the pack, the share and the use.'}</p>
        )
      }
    >
      <Figure label="Label, V" value={labelV} onChange={setLabel} />
      <Figure label="Ah" value={ah} onChange={setAh} />
      <Figure label="Planned on, %" value={share} onChange={setShare} />
      <Figure label="Least Wh a km" value={least} onChange={setLeast} />
      <Figure label="Most Wh a km" value={most} onChange={setMost} />
    </Calculator>
  );
}
