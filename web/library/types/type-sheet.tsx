import { CELL_VOLTS, FITTINGS, motorWords, NUMBERS, parseTyreMarking, rollOutGuess, speedWords } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { Notice } from '../../ui/notice.js';
import { DocumentActs } from '../document-acts.js';
import { Facts } from '../facts.js';
import { PAPER_TITLES } from '../rules/class-words.js';
import { brakeWords, CHEMISTRY_TITLES, FACT_TITLES } from './type-words.js';

const yes = (value: boolean): string => (value ? 'yes' : 'no');

/** A vehicle type as a person reads it. */
export function TypeSheet({ entry }: { readonly entry: LibraryEntry<'vehicleType'> }) {
  const type = entry.document;
  const { pack, tyre } = type;
  const cell = CELL_VOLTS[pack.chemistry];
  const marking = parseTyreMarking(tyre.marking);
  const rolled =
    tyre.rolledMm !== null
      ? `rolled out ${tyre.rolledMm} mm a turn`
      : marking
        ? `about ${Math.round(rollOutGuess(marking).mm)} mm a turn by its marking, not measured`
        : 'not measured';
  return (
    <>
      <p className="cap">Type · version {entry.version}</p>
      <h1>{type.title}</h1>
      {type.cautions.map((caution) => (
        <Notice key={caution} kind="care" says={caution} />
      ))}
      {type.needsSource.length > 0 && (
        <Notice
          kind="note"
          title="Still without a source"
          says={type.needsSource.map((fact) => FACT_TITLES[fact]).join(', ')}
        />
      )}
      <Facts
        rows={[
          [
            'Motor',
            `${motorWords(type)}, rated ${type.ratedPowerW} W${type.motors.every((motor) => motor.freewheels) ? '; freewheels' : '; brakes when driven'}`,
          ],
          ['Current', `controller ${type.controllerLimitA} A, type allows ${type.typeLimitA} A`],
          [
            'Reaches',
            `${type.attainableKmh} km/h on a full pack without a cap${type.speedLimit ? `; the maker allows ${speedWords(type.speedLimit)}` : ''}`,
          ],
          [
            'Pack',
            `${CHEMISTRY_TITLES[pack.chemistry]}, ${pack.cellsInSeries} cells in series, labelled ${pack.labelV} V, ${pack.capacityAh} Ah; ${(cell.floorV * pack.cellsInSeries).toFixed(1)} to ${(cell.fullV * pack.cellsInSeries).toFixed(1)} V`,
          ],
          [
            'Cut-offs below',
            [
              pack.protectionTripsV !== null ? `the pack protects itself at ${pack.protectionTripsV} V` : null,
              type.controllerCutoffV !== null ? `the controller at ${type.controllerCutoffV} V` : null,
            ]
              .filter((words) => words !== null)
              .join(', ') || 'not known',
          ],
          [
            'Display stands',
            type.displayStandsV ? `${type.displayStandsV.from} to ${type.displayStandsV.to} V` : 'not known',
          ],
          [
            'Tyre',
            `${tyre.marking}, wheel ${tyre.wheelInch} in, ${rolled}${tyre.barFrom !== null && tyre.barTo !== null ? `, ${tyre.barFrom} to ${tyre.barTo} bar` : ''}`,
          ],
          [
            'Sensors',
            `${type.wheelPulses} wheel pulses a turn, ${type.pedalMagnets === null ? 'no pedals' : `${type.pedalMagnets} pedal magnets`}`,
          ],
          ['Throttle', type.throttleFitted ? 'fitted' : 'none fitted'],
          ['Brakes', type.brakes.map(brakeWords).join('; ') || 'none noted'],
          ['Fitted', type.fittings.map((each) => FITTINGS[each]).join(', ') || 'nothing noted'],
          ['Key switch', yes(type.keySwitch)],
          ['Weighs', type.massKg === null ? 'not known' : `${type.massKg} kg as it leaves`],
          ...(type.certificates.length > 0
            ? [
                [
                  'Papers seen',
                  type.certificates
                    .map(({ of, standard, paper }) => `${PAPER_TITLES[of]}, ${standard}: ${paper}`)
                    .join('; '),
                ] as const,
              ]
            : []),
          ['Numbers scanned', type.numbers.map((each) => NUMBERS[each].toLowerCase()).join(', ') || 'none'],
          ['Checks before delivery', type.checkList ?? 'no list'],
          ['Uses', type.whPerKm ? `${type.whPerKm.least} to ${type.whPerKm.most} Wh per km` : 'not known'],
          ['Displays', type.maps.join(', ')],
          ...(type.approved.length > 0
            ? [
                [
                  'Approved with',
                  type.approved.map(({ map, label, raw }) => `${label} ${raw} on ${map}`).join(', '),
                ] as const,
              ]
            : []),
          ['Cut power', type.cutPower],
        ]}
      />
      <DocumentActs entry={entry} />
    </>
  );
}
