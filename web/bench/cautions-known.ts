import type { CautionsGoneThrough } from '@decurio/core';

const PREFIX = 'decurio.cautions.';
const keyOf = (userId: string, station: string, typeId: string): string => `${PREFIX}${userId} ${station} ${typeId}`;

/** What this person went through one by one on this type at this stand; null where nothing is known of it. */
export function cautionsKnown(userId: string, station: string, typeId: string): CautionsGoneThrough | null {
  try {
    const kept = JSON.parse(
      localStorage.getItem(keyOf(userId, station, typeId)) ?? 'null',
    ) as Partial<CautionsGoneThrough> | null;
    return kept !== null && typeof kept.at === 'number' && Array.isArray(kept.cautions)
      ? (kept as CautionsGoneThrough)
      : null;
  } catch {
    return null;
  }
}

export function keepCautions(userId: string, station: string, typeId: string, cautions: readonly string[]): void {
  const known: CautionsGoneThrough = { at: Date.now(), cautions };
  localStorage.setItem(keyOf(userId, station, typeId), JSON.stringify(known));
}

/** After a surprise nobody on this device is taken to know them: the next unit is asked in full. */
export function forgetCautions(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
}
