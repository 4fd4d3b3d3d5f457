import dayjs from 'dayjs';
import { checkStanding, inKmh, mayBeOtherUnit, speedWords, type Speed, type VehicleClass } from '@decurio/core';
import type { NewOrderRequest, OrderPageView } from '@decurio/contract';

/** What is promised of an order, as its form edits it. */
export type Promised = Pick<
  NewOrderRequest,
  'customer' | 'rulePackId' | 'classId' | 'houseRulesId' | 'dueAt' | 'notes' | 'terms'
>;

/** Nothing yet, due in a week. */
export const nothingPromised = (): Promised => ({
  customer: '',
  rulePackId: '',
  classId: '',
  houseRulesId: '',
  dueAt: dayjs().add(7, 'day').hour(8).minute(0).format('YYYY-MM-DDTHH:mm'),
  notes: '',
  terms: { siteLimit: null, orderLimit: null, throttle: 'asClass', privateLand: null },
});

/** What an order promises now, to be amended. */
export function promisedOf({ order, terms, notes, rulePackId, classId, houseRulesId }: OrderPageView): Promised {
  const { siteLimit, orderLimit, throttle, privateLand } = terms;
  const land = privateLand && {
    acknowledgement: privateLand.acknowledgement,
    endsOn: privateLand.endsOn,
    label: privateLand.label,
    isUncapped: privateLand.isUncapped,
  };
  return {
    customer: order.customer,
    rulePackId,
    classId,
    houseRulesId,
    dueAt: order.dueAt,
    notes,
    terms: { siteLimit, orderLimit, throttle, privateLand: land },
  };
}

/** Something odd that may well be meant: asked once. A speed can be mended in one act. */
export interface Doubt {
  readonly id: string;
  readonly says: string;
  readonly mends?: { readonly words: string; readonly as: (promised: Promised) => Promised };
}

/** What is odd about a promise before it is taken. `now` is wall-clock time, 2026-11-25T08:00. */
export function doubtsAbout(promised: Promised, vehicleClass: VehicleClass | undefined, now: string): readonly Doubt[] {
  const doubts: Doubt[] = [];
  if (promised.dueAt < now)
    doubts.push({
      id: 'due',
      says: `It is due on ${dayjs(promised.dueAt).format('ddd D MMM YYYY HH:mm')}, which is past.`,
    });
  if (!vehicleClass) return doubts;
  const standing = checkStanding(vehicleClass.checked, now.slice(0, 10));
  if (standing !== 'checked')
    doubts.push({
      id: 'check',
      says:
        standing === 'expired'
          ? `The check of this class ran out on ${vehicleClass.checked?.expiresOn}. Units can be prepared; none is signed off until a lead checks it again.`
          : 'Nobody here has checked this class yet. Units can be prepared; none is signed off until a lead has.',
    });
  return [
    ...doubts,
    ...speedDoubt('siteLimit', 'site limit', promised, vehicleClass),
    ...speedDoubt('orderLimit', 'order limit', promised, vehicleClass),
  ];
}

function speedDoubt(
  name: 'siteLimit' | 'orderLimit',
  title: string,
  { terms }: Promised,
  { limit }: VehicleClass,
): readonly Doubt[] {
  const speed = terms[name];
  if (speed === null) return [];
  const other: Speed = { value: speed.value, unit: speed.unit === 'mph' ? 'km/h' : 'mph' };
  if (mayBeOtherUnit(speed, limit)) {
    const as = (promised: Promised): Promised => ({ ...promised, terms: { ...promised.terms, [name]: other } });
    return [
      {
        id: `${name} ${speed.value} ${speed.unit}`,
        says: `${speed.value} makes sense as km/h and as mph. The ${title} stands as ${speedWords(speed)}.`,
        mends: { words: `It is ${speedWords(other)}`, as },
      },
    ];
  }
  if (limit && inKmh(speed) > inKmh(limit) * (1 + 1e-9))
    return [
      {
        id: `${name} above`,
        says: `The ${title} of ${speedWords(speed)} lies above the class's ${speedWords(limit)}: the class goes first.`,
      },
    ];
  return [];
}
