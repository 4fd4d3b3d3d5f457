import { ROLLER_SLIP } from '../speed/references/roller-bench.js';
import { placeFrom, type Place } from '../speed/track/wgs84.js';

/** The middle of the made-up yard: open water, where nobody rides. */
const YARD = { lat: 48.5, lon: -12 };
const STRAIGHT_M = 80;
const BEND_M = 18;
const LAP_M = 2 * STRAIGHT_M + 2 * Math.PI * BEND_M;

/** Where a unit is in the yard after so many metres along its lap, degrees on WGS84: two straights and two bends. */
export function positionInYard(rolledM: number): Place {
  const { east, north } = onLap(((rolledM % LAP_M) + LAP_M) % LAP_M);
  return placeFrom(YARD, east, north);
}

function onLap(m: number): { readonly east: number; readonly north: number } {
  const bend = Math.PI * BEND_M;
  if (m < STRAIGHT_M) return { east: m - STRAIGHT_M / 2, north: -BEND_M };
  if (m < STRAIGHT_M + bend) return around(STRAIGHT_M / 2, (m - STRAIGHT_M) / BEND_M - Math.PI / 2);
  if (m < 2 * STRAIGHT_M + bend) return { east: STRAIGHT_M / 2 - (m - STRAIGHT_M - bend), north: BEND_M };
  return around(-STRAIGHT_M / 2, (m - 2 * STRAIGHT_M - bend) / BEND_M + Math.PI / 2);
}

const around = (centre: number, angle: number) => ({
  east: centre + BEND_M * Math.cos(angle),
  north: BEND_M * Math.sin(angle),
});

/** Speed as a satellite receiver tells it: true, with a standard deviation of about 0.3 km/h. `noise`: a standard normal number. */
export const receiverKmh = (trueKmh: number, noise: number): number => Math.max(0, trueKmh + 0.3 * noise);

/** Turns a minute of a roller of this diameter under a tyre that would run so fast on the road, and slips on it as tyres do; on its counter's grid of 1. */
export const rollerRpm = (trueKmh: number, rollerMm: number): number =>
  Math.round((trueKmh * 1e6) / 60 / (Math.PI * rollerMm) / (1 + ROLLER_SLIP));
