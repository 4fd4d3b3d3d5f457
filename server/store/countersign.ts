import type { Evidence } from '@decurio/core';
import type { CountersignRequest } from '@decurio/contract';
import { plainName } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { authenticate } from './accounts.js';
import { oneTry } from './sign-in-tries.js';
import { inTransaction } from './transaction.js';
import { appendIn } from './append-entries.js';
import type { Writer } from './writer.js';

/**
 * A second person signs beside the first, on the same stand and with their own password. Whoever is signed in stays so.
 * @param address of the browser: a guess at a password counts as one at the door
 */
export async function countersign(
  source: DataSource,
  { unitId, visitId }: { readonly unitId: string; readonly visitId: string },
  { id, seq, at, name, password, words }: CountersignRequest,
  writer: Writer,
  address: string,
): Promise<Evidence> {
  const plain = plainName(name);
  const account = await oneTry(source, { name: plain, address }, () => authenticate(source, plain, password));
  // A password that somebody else gave signs for nobody.
  if (!account || account.lockedAt || account.isPasswordForOnce) throw new HttpProblem('wrongSecond');
  if (account.id === writer.by.userId) throw new HttpProblem('samePerson');
  const { displayName, nameSha256, role } = account;
  const second = { userId: account.id, name: displayName, nameSha256, role };
  const { entry } = await inTransaction(source, (manager) =>
    appendIn(
      manager,
      unitId,
      visitId,
      { id, seq, kind: 'countersigned', at, data: { words } },
      { ...writer, by: second },
    ),
  );
  return entry;
}
