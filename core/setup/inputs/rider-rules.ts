import { speedWords } from '../../speed/speed.js';
import { withPoint } from '../../text.js';
import type { Asked, VehicleClass } from './vehicle-class.js';

type OfTheRider = Pick<
  VehicleClass,
  'leastAge' | 'helmet' | 'licence' | 'plate' | 'insurance' | 'riderNote' | 'places' | 'ask'
>;

const asks = (asked: Asked, what: string): readonly string[] =>
  asked === 'no' ? [] : [asked === 'yes' ? what : `${what}: not sure`];

/** What a class asks of whoever rides, a few words each, as lists show it. */
export const riderRules = (c: OfTheRider): readonly string[] => [
  ...(c.leastAge === null ? [] : [`from ${c.leastAge} years`]),
  ...asks(c.helmet, 'helmet'),
  ...asks(c.licence, 'licence'),
  ...asks(c.plate, 'number plate'),
  ...asks(c.insurance, 'insurance'),
  ...(c.riderNote === '' ? [] : [c.riderNote]),
];

/** The same in sentences, as a paper tells a rider; with the places and hours that the rider keeps to. */
export function toldToRider(c: OfTheRider): readonly string[] {
  const rules = riderRules({ ...c, riderNote: '' });
  const unsure = [c.helmet, c.licence, c.plate, c.insurance].includes('decide');
  return [
    ...(rules.length > 0
      ? [
          `Whoever rides it: ${rules.join(', ')}.${unsure ? ` Ask ${c.ask === '' ? 'the authority' : c.ask} where it says "not sure".` : ''}`,
        ]
      : []),
    ...(c.riderNote === '' ? [] : [withPoint(c.riderNote)]),
    ...c.places.map(
      ({ where, limit, keptBy }) =>
        `${where}: at most ${speedWords(limit)}${keptBy === 'rider' ? '' : keptBy === 'code' ? ', in the slow mode' : ', kept by the module on it'}.`,
    ),
  ];
}
