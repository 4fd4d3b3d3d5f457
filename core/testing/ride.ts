import type { TrackPoint } from '../speed/track/track.js';
import { positionInYard } from '../vehicle/receiver.js';
import { seeded } from '../statistics/seeded.js';

const START_MS = Date.UTC(2026, 10, 25, 10, 0, 0);

/** Part of a ride: so many seconds at a speed, reached over the first few of them. */
export interface RidePart {
  readonly kmh: number;
  readonly seconds: number;
}

export interface RiddenPoint extends TrackPoint {
  readonly trueKmh: number;
}

/** Laps of the yard with positions that scatter by `sigmaM`, one a second. The same seed gives the same ride. */
export function rideInYard(
  parts: readonly RidePart[],
  { seed = 1, sigmaM = 1.5, stepMs = 1000 } = {},
): readonly RiddenPoint[] {
  const { normal } = seeded(seed);
  const points: RiddenPoint[] = [];
  let [rolledM, kmh, ms] = [0, 0, START_MS];
  for (const part of parts) {
    for (let at = 0; at < part.seconds * 1000; at += stepMs) {
      const faster = Math.sign(part.kmh - kmh) * Math.min(Math.abs(part.kmh - kmh), (3.6 * stepMs) / 1000);
      kmh += faster;
      rolledM += (kmh / 3.6) * (stepMs / 1000);
      ms += stepMs;
      const { lat, lon } = positionInYard(rolledM);
      points.push({
        ms,
        trueKmh: kmh,
        lat: lat + (sigmaM * normal()) / 111_320,
        lon: lon + (sigmaM * normal()) / (111_320 * Math.cos((lat * Math.PI) / 180)),
      });
    }
  }
  return points;
}

export const gpxOf = (points: readonly TrackPoint[], name = 'Yard'): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Decurio" xmlns="http://www.topografix.com/GPX/1/1">\n  <trk><name>${name}</name><trkseg>\n${points
    .map(
      ({ lat, lon, ms }) =>
        `    <trkpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"><time>${new Date(ms).toISOString()}</time></trkpt>`,
    )
    .join('\n')}\n  </trkseg></trk>\n</gpx>\n`;
