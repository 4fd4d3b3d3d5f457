import { afterEach, expect, it } from 'vitest';
import { beInZone, houseZone, nowInHouse, today } from './house-zone.js';
import { minutesBetween, whenClock, whenDay, whenFull } from './when.js';

const device = houseZone();
afterEach(() => beInZone(device));

it('shows a moment in the zone of the house, wherever the device is', () => {
  beInZone('Asia/Kathmandu');
  expect(whenFull('2026-11-24T23:30:00.000Z')).toBe('25 Nov 2026 05:15');
  beInZone('America/St_Johns');
  expect(whenFull('2026-11-24T23:30:00.000Z')).toBe('24 Nov 2026 20:00');
  expect(today(Date.UTC(2026, 0, 1, 2))).toBe('2025-12-31');
  expect(nowInHouse(Date.UTC(2026, 0, 1, 2))).toBe('2025-12-31T22:30');
});

it('leaves a due time as it was promised', () => {
  beInZone('Asia/Kathmandu');
  expect(whenDay('2026-11-26T08:00')).toBe('Thu 26 Nov 08:00');
});

it('names the day of a time that is not of today', () => {
  beInZone('UTC');
  expect(whenClock('2020-01-02T03:04:05.000Z')).toBe('2 Jan 03:04');
  expect(whenClock(new Date().toISOString())).toMatch(/^\d\d:\d\d$/);
});

it('keeps to what it knows where a zone is none', () => {
  beInZone('Asia/Kathmandu');
  beInZone('Nowhere');
  expect(houseZone()).toBe('Asia/Kathmandu');
});

it('counts minutes between wall-clock times', () => {
  expect(minutesBetween('2026-11-26T08:00', '2026-11-26T09:30')).toBe(90);
});
