import { dayIn, isTimeZone, timeIn } from '@decurio/core';

/** Until the server has said: where this device is. */
let zone = new Intl.DateTimeFormat().resolvedOptions().timeZone;

/** From now on times are shown in the house's zone, wherever the device is. */
export function beInZone(house: string): void {
  if (isTimeZone(house)) zone = house;
}

export const houseZone = (): string => zone;

/** Today in the house, as 2026-11-25. */
export const today = (nowMs: number = Date.now()): string => dayIn(zone, nowMs);

/** Day and time in the house, as due times are written. */
export const nowInHouse = (nowMs: number = Date.now()): string => timeIn(zone, nowMs);
