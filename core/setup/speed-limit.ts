import type { SetupInputs } from './setup-inputs.js';

/** The limit that holds and the sentence that says where it comes from. */
export interface SpeedLimit {
  readonly kmh: number;
  readonly because: string;
}

/** Lowest of the class's and the order's limit, true km/h. */
export function speedLimit({ vehicleClass, orderLimitKmh }: Pick<SetupInputs, 'vehicleClass' | 'orderLimitKmh'>): SpeedLimit {
  if (orderLimitKmh === null || orderLimitKmh === vehicleClass.capKmh) {
    return { kmh: vehicleClass.capKmh, because: `${vehicleClass.capKmh} km/h by class${orderLimitKmh === null ? '' : ' and by the order'}` };
  }
  return orderLimitKmh < vehicleClass.capKmh
    ? { kmh: orderLimitKmh, because: `Class allows ${vehicleClass.capKmh} km/h, the order ${orderLimitKmh}, so ${orderLimitKmh}` }
    : { kmh: vehicleClass.capKmh, because: `The order asks ${orderLimitKmh} km/h, the class allows ${vehicleClass.capKmh}` };
}
