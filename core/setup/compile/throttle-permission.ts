import { inKmh, speedWords } from '../../speed/speed.js';
import type { TrailStep } from '../setup.js';
import { step, type Work } from './wish.js';

export interface ThrottlePermission {
  readonly allowed: boolean;
  /** Speed to which the throttle may push, km/h; Infinity where only the cap ends it. */
  readonly toKmh: number;
  readonly why: TrailStep;
}

/** Whether a throttle may work on this vehicle, and to which speed: by class first, then by order, then by what is fitted. */
export function throttlePermission({
  vehicleClass,
  terms,
  type,
}: Pick<Work, 'vehicleClass' | 'terms' | 'type'>): ThrottlePermission {
  const none = (why: TrailStep): ThrottlePermission => ({ allowed: false, toKmh: 0, why });
  if (vehicleClass.throttle === 'none')
    return none(
      step(
        'class',
        `The class allows no throttle${vehicleClass.startAid ? ` beyond a start-up aid to ${speedWords(vehicleClass.startAid)}` : ''}`,
      ),
    );
  if (!type.throttleFitted) return none(step('type', 'No throttle is fitted'));
  if (terms.throttle === 'none') return none(step('order', 'The order wants no throttle'));
  const { throttleTo } = vehicleClass;
  if (vehicleClass.throttle === 'toSpeed' && throttleTo)
    return {
      allowed: true,
      toKmh: inKmh(throttleTo),
      why: step('class', `The class allows a throttle to ${speedWords(throttleTo)}`),
    };
  return {
    allowed: true,
    toKmh: Infinity,
    why: step(
      'class',
      vehicleClass.throttle === 'asApproved'
        ? 'The throttle belongs to the approved vehicle'
        : 'The class allows a throttle, and one is fitted',
    ),
  };
}
