import type { LibraryEntry } from '@decurio/contract';
import { Notice } from '../ui/notice.js';
import { Facts } from './facts.js';
import classes from './library-page.module.css';

const CHEMISTRY = { liIon: 'Li-ion', lfp: 'LFP', leadAcid: 'sealed lead-acid' } as const;

/** A vehicle type as a person reads it. */
export function TypeSheet({ entry }: { readonly entry: LibraryEntry<'vehicleType'> }) {
  const type = entry.document;
  return (
    <>
      <p className="cap">Type · version {entry.version}</p>
      <h1>{type.title}</h1>
      {type.cautions.map((caution) => (
        <Notice key={caution} kind="care" says={caution} />
      ))}
      <Facts
        rows={[
          ['Motor', `${type.motor}, rated ${type.ratedPowerW} W`],
          ['Current', `controller ${type.controllerLimitA} A, type allows ${type.typeLimitA} A`],
          ['Reaches', `${type.attainableKmh} km/h on a full pack without a cap`],
          ['Pack', `${CHEMISTRY[type.pack.chemistry]}, ${type.pack.cellsInSeries} cells in series, labelled ${type.pack.labelV} V, ${type.pack.capacityAh} Ah`],
          ['Tyre', `${type.tyre.marking}, wheel ${type.tyre.wheelInch} in`],
          ['Sensors', `${type.wheelPulses} wheel pulses a turn, ${type.pedalMagnets} pedal magnets`],
          ['Throttle', type.throttleFitted ? 'fitted' : 'none fitted'],
          ['Displays', type.maps.join(', ')],
          ['Cut power', type.cutPower],
        ]}
      />
    </>
  );
}

const POWER_BASIS = { rated: 'rated power on the label', nominal: 'nominal volts times current', full: 'full-pack volts times current' } as const;
const THROTTLE = { none: 'none beyond a start-up aid', asOrdered: 'as ordered', toCap: 'up to the cap' } as const;

/** A rule pack with its classes, and who checked it. */
export function ClassSheet({ entry, checked }: { readonly entry: LibraryEntry<'rulePack'>; readonly checked: string }) {
  const pack = entry.document;
  return (
    <>
      <p className="cap">Rule pack · version {entry.version}</p>
      <h1>
        {pack.name}, for {pack.place}
      </h1>
      <Notice kind={pack.checked ? 'done' : 'care'} title={`Legal values ${checked}`} says="They are starting points. The shop answers for them and checks them with its own authority." />
      {pack.classes.map((c) => (
        <div key={c.id}>
          <h2 className={classes['class']}>{c.title}</h2>
          <Facts
            rows={[
              ['Id in order files', c.id],
              ['Assist ends', `${c.capKmh} km/h`],
              ['Power', c.ratedPowerW === null ? 'no limit named' : `${c.ratedPowerW} W, ${POWER_BASIS[c.powerBasis]}`],
              ['Throttle', `${THROTTLE[c.throttle]}${c.throttleToKmh > 0 ? `, to ${c.throttleToKmh} km/h` : ''}`],
              ['Note', c.note],
              ['Source', c.source],
            ]}
          />
        </div>
      ))}
    </>
  );
}

/** The choices of a shop or customer among the schools. */
export function HouseRulesSheet({ entry }: { readonly entry: LibraryEntry<'houseRules'> }) {
  const { choices } = entry.document;
  const start = { rolling: 'only once rolling', live: 'live from standstill', pedalFirst: 'only once pedalling' }[choices.standstillStart];
  return (
    <>
      <p className="cap">House rules · version {entry.version}</p>
      <h1>{entry.document.name}</h1>
      <Facts
        rows={[
          ['Throttle from standstill', start],
          ['Walk assist', choices.walk],
          ['Cruise', choices.cruise],
          ['Assist start', choices.assistStart],
          ['Assist levels', String(choices.assistLevels)],
          ['Switches itself off', choices.autoOffMin === 0 ? 'never' : `after ${choices.autoOffMin} min`],
          ['Brightness', String(choices.brightness)],
          ['Cut-off margin', `${choices.cutoffMarginVPerCell} V a cell above the floor`],
          ['Units', choices.units === 'kmh' ? 'km/h' : 'mph'],
        ]}
      />
    </>
  );
}
