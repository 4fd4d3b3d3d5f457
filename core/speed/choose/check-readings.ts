/** A check run is so many readings at least. */
export const CHECK_READINGS = 2;
