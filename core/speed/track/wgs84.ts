import geographiclib from 'geographiclib-geodesic';

const { Geodesic } = geographiclib;

/** A place, degrees. */
export interface Place {
  readonly lat: number;
  readonly lon: number;
}

/**
 * Metres from one place to another along the WGS84 ellipsoid (C. F. F. Karney, J. Geodesy 87, 2013).
 * @example
 * distanceM({ lat: 0, lon: 0 }, { lat: 0, lon: 1 }).toFixed(1); // '111319.5'
 */
export const distanceM = (a: Place, b: Place): number =>
  Geodesic.WGS84.Inverse(a.lat, a.lon, b.lat, b.lon, Geodesic.DISTANCE).s12 ?? 0;

/** Where one comes to from a place, so many metres east and north. */
export function placeFrom(from: Place, eastM: number, northM: number): Place {
  const { lat2 = from.lat, lon2 = from.lon } = Geodesic.WGS84.Direct(
    from.lat,
    from.lon,
    (Math.atan2(eastM, northM) * 180) / Math.PI,
    Math.hypot(eastM, northM),
  );
  return { lat: lat2, lon: lon2 };
}
