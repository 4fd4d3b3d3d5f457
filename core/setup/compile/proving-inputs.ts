import { isForMode } from '../../display/map/pages-listing.js';
import type { ProvingInputs, ProvingRide } from '../../prove/proving-inputs.js';
import { mustUnplug } from './checks/throttle.js';
import { willShow, withFunction, type Draft, type Drafted } from './draft.js';
import { endsOf, ridesOf, firstCap, type Ride } from './rides.js';
import { throttlePermission } from './throttle-permission.js';
import { brakesLess } from './wishes/riding.js';

/** What a unit has to show, from what will stand on it. */
export function provingInputsOf(draft: Draft): ProvingInputs {
  const { map, type, vehicleClass, limit } = draft.work;
  const drafted = new Map(draft.codes.map((each) => [each.code.label, each]));
  const { allowed, toKmh } = throttlePermission(draft.work);
  const rides = ridesOf(draft);
  return {
    map,
    type,
    vehicleClass,
    limit: limit && { kmh: limit.kmh, words: limit.words },
    shows: (code) => {
      const own = drafted.get(code.label);
      return own ? willShow(draft, own) : draft.work.found(code);
    },
    throttle: { allowed, toKmh, unplug: mustUnplug(draft) },
    rides: {
      assist: rides.map((ride) => rideOf(draft, ride, ride.caps)),
      throttle: rides.map((ride) => rideOf(draft, ride, [...ride.caps, ...throttleCaps(draft, ride)])),
    },
    brakesLess: isBrakingLess(draft),
    pinLabels: draft.codes.filter(({ wish }) => wish.secret === true).map(({ code }) => code.label),
  };
}

const rideOf = (draft: Draft, { mode, turbo, act, turboCode }: Ride, caps: readonly Drafted[]): ProvingRide => ({
  mode,
  turbo,
  act,
  labels: caps.map(({ code }) => code.label),
  turboLabel: turboCode?.code.label ?? null,
  endsKmh: endsOf(draft, caps).kmh,
  cap: firstCap(draft, caps),
});

/** Caps of the throttle alone: the whole vehicle's, or the mode's own. */
function throttleCaps(draft: Draft, { mode }: Ride): readonly Drafted[] {
  return withFunction(draft, 'throttleCap').filter(({ code }) =>
    isForMode(draft.work.map, code.label, mode?.id ?? null),
  );
}

/** A lead had motor braking made weaker than it was delivered. */
const isBrakingLess = (draft: Draft): boolean =>
  [...withFunction(draft, 'regen'), ...withFunction(draft, 'modeRegen')].some((braking) =>
    brakesLess(braking.code, willShow(draft, braking), braking.code.factory),
  ) && draft.work.type.motors.some(({ freewheels }) => !freewheels);
