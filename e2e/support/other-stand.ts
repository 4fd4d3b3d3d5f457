import type { BenchView, UnitFound } from '@decurio/contract';
import type { Client } from '../../scripts/lib/api-client.mjs';

const TRIES = 20;

export async function viewOf(person: Client, serial: string): Promise<BenchView> {
  const { id } = (await person.get(`/api/units?serial=${serial}`)) as UnitFound;
  return (await person.get(`/api/units/${id}/bench`)) as BenchView;
}

/** Writes an entry as another stand would: where the page under test got in first, again after what it wrote. */
export async function writeFrom(person: Client, serial: string, kind: string, data: object): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    const { unit, evidence } = await viewOf(person, serial);
    try {
      await person.post(`/api/units/${unit.id}/visits/${evidence[0]?.visitId}/evidence`, {
        id: crypto.randomUUID(),
        seq: evidence.length + 1,
        kind,
        at: new Date().toISOString(),
        data,
      });
      return;
    } catch (error) {
      if (attempt === TRIES || !String(error).includes('staleSeq')) throw error;
    }
  }
}
