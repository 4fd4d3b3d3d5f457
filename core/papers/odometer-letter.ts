import type { Evidence } from '../bench/evidence.js';
import { PARTS } from '../setup/inputs/parts.js';

/** One display that was changed for another. */
export interface DisplayChange {
  /** ISO 8601. */
  readonly at: string;
  readonly by: string;
  /** km that the old one showed; null where it could not be read. */
  readonly oldKm: number | null;
  /** km that the new one showed as it went on; null where it was not read. */
  readonly newKm: number | null;
  /** The number of the spare that went on; null for one as delivered. */
  readonly spare: string | null;
  readonly words: string;
}

/** What whoever owns a vehicle has to know once another display counts its kilometres. */
export interface OdometerLetter {
  readonly serial: string;
  readonly changes: readonly DisplayChange[];
  /** km to add to what its display shows; null where an old one could not be read. */
  readonly addKm: number | null;
}

/**
 * The letter of a vehicle whose display was changed, from its record.
 * @returns null where its display was never changed in this visit
 */
export function odometerLetter(evidence: readonly Evidence[]): OdometerLetter | null {
  const [first] = evidence;
  if (first?.kind !== 'opened') return null;
  const changes = evidence.flatMap((entry): DisplayChange[] => {
    if (entry.kind !== 'partReplaced' || entry.data.part !== 'display') return [];
    const { oldOdometerKm, newOdometerKm, spare, words } = entry.data;
    return [
      {
        at: entry.at,
        by: entry.by.name,
        oldKm: oldOdometerKm ?? null,
        newKm: newOdometerKm ?? null,
        spare: spare?.serial ?? null,
        words,
      },
    ];
  });
  if (changes.length === 0) return null;
  const isKnown = changes.every(({ oldKm }) => oldKm !== null);
  const sum = changes.reduce((km, { oldKm, newKm }) => km + Math.max(0, (oldKm ?? 0) - (newKm ?? 0)), 0);
  return { serial: first.data.serial, changes, addKm: isKnown ? Math.round(sum * 10) / 10 : null };
}

/** What the letter says of one change, in a sentence. `on` is its day as the house writes it. */
export function changeWords({ by, oldKm, newKm, spare, words }: DisplayChange, on: string): string {
  const old = oldKm === null ? 'The old one could not be read.' : `The old one showed ${oldKm} km.`;
  const fresh = newKm === null ? '' : ` The one that went on showed ${newKm} km.`;
  const which = spare === null ? '' : ` It is the spare ${spare}.`;
  return `${PARTS.display} changed on ${on} by ${by}: ${words} ${old}${fresh}${which}`;
}

/** How its kilometres are told from now on. */
export const kilometresNow = ({ addKm, serial }: OdometerLetter): string =>
  addKm === null
    ? `How far ${serial} ran before is not known: what its display shows counts from the change on.`
    : addKm === 0
      ? `What the display of ${serial} shows is what it has run.`
      : `${serial} has run what its display shows, and ${addKm} km more.`;
