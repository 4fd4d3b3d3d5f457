/** What tells whether a delivery is late: wall-clock times such as 2026-11-26T08:00, at the depot and without a zone. */
export interface Due {
  readonly dueAt: string;
  readonly units: number;
  readonly sealed: number;
}

/**
 * Whether an order should have been out and is not: its time has come and a unit of it is not sealed. An order without
 * units waits for some and is late like any other.
 * @param now wall-clock time of the same place, to the minute
 */
export const isLate = ({ dueAt, units, sealed }: Due, now: string): boolean =>
  now >= dueAt && (units === 0 || sealed < units);
