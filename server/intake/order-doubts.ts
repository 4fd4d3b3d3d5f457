import {
  checkStanding,
  inKmh,
  mayBeOtherUnit,
  speedWords,
  type OrderTerms,
  type Speed,
  type VehicleClass,
} from '@decurio/core';

/**
 * What is odd about an order and may well be meant: named once, taken as it stands.
 * @param now  day and time in the house's zone, as 2026-11-25T16:30
 */
export function orderDoubts(
  { dueAt, terms }: { readonly dueAt: string; readonly terms: Pick<OrderTerms, 'siteLimit' | 'orderLimit'> },
  vehicleClass: VehicleClass,
  now: string,
): readonly string[] {
  const doubts: string[] = [];
  if (dueAt < now)
    doubts.push(`It is due on ${dueAt.replace('T', ' ')}, which is past. Look whether day and year are meant.`);
  const standing = checkStanding(vehicleClass.checked, now.slice(0, 10));
  if (standing === 'notChecked')
    doubts.push(
      'Nobody here has checked this class with the local authority. Units can be prepared; none is signed off until a lead has.',
    );
  if (standing === 'expired')
    doubts.push(
      `The check of this class ran out on ${vehicleClass.checked?.expiresOn}. None is signed off until a lead checks it again.`,
    );
  for (const [name, speed] of [
    ['order limit', terms.orderLimit],
    ['site limit', terms.siteLimit],
  ] as const)
    doubts.push(...speedDoubts(name, speed, vehicleClass.limit));
  return doubts;
}

function speedDoubts(name: string, speed: Speed | null, statute: Speed | null): readonly string[] {
  if (speed === null) return [];
  const other: Speed = { value: speed.value, unit: speed.unit === 'mph' ? 'km/h' : 'mph' };
  if (mayBeOtherUnit(speed, statute))
    return [
      `The ${name} of ${speed.value} reads as ${speed.unit}. If ${speedWords(other)} was meant, give it in ${other.unit}.`,
    ];
  return statute && inKmh(speed) > inKmh(statute)
    ? [`The ${name} of ${speedWords(speed)} lies above the class's ${speedWords(statute)}: the class goes first.`]
    : [];
}
