import type { VisitState } from './visit-state.js';

/** The newest value that each code was read back at, blind; without those that were never read or not shown. */
export function lastShown({ readings }: Pick<VisitState, 'readings'>): Readonly<Record<string, number>> {
  return Object.fromEntries(
    Object.entries(readings).flatMap(([label, own]) => {
      const last = own.at(-1);
      return last === undefined || last === null ? [] : [[label, last] as const];
    }),
  );
}

/** The values of these codes alone. */
const among = (values: Readonly<Record<string, number>>, labels: readonly string[]): Readonly<Record<string, number>> =>
  Object.fromEntries(Object.entries(values).filter(([label]) => labels.includes(label)));

/** These codes are read once more: what the glass showed of them is what they stand at, and no reading of them counts. */
export const readAnew = (
  state: Pick<VisitState, 'values' | 'readings'>,
  labels: readonly string[],
): Pick<VisitState, 'values' | 'readings' | 'toRead'> => ({
  values: { ...state.values, ...among(lastShown(state), labels) },
  readings: Object.fromEntries(Object.entries(state.readings).filter(([label]) => !labels.includes(label))),
  toRead: labels,
});
