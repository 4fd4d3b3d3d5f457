import { createHash, timingSafeEqual } from 'node:crypto';
import type { FirstOwnerRequest } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { isCommon, passwordForOnce } from '../security/password-rules.js';
import { addAccount } from './accounts.js';
import { inTransaction } from './transaction.js';

const digest = (code: string): string => createHash('sha256').update(code.trim().toLowerCase()).digest('hex');

/** Whether nobody can sign in: a house that was only just set up. */
export async function needsOwner({ manager }: DataSource): Promise<boolean> {
  const [anybody] = await manager.query<unknown[]>('SELECT 1 FROM account LIMIT 1');
  return anybody === undefined;
}

/**
 * A code by which the first owner is made, while nobody is there; a server that starts later has another, and this one is
 * good no more.
 * @returns null where somebody is there
 */
export async function offerFirstOwner(source: DataSource): Promise<string | null> {
  if (!(await needsOwner(source))) return null;
  const code = passwordForOnce();
  await inTransaction(source, (manager) =>
    manager.query('REPLACE INTO first_owner (id, codeSha256) VALUES (1, ?)', [digest(code)]),
  );
  return code;
}

/**
 * Makes the first owner, once.
 * @returns null where the code is another, or somebody is there
 * @throws `badFields` where the name is none, or the password is among those that are tried first
 */
export async function makeFirstOwner(
  source: DataSource,
  { code, signInName, displayName, password }: FirstOwnerRequest,
): Promise<'made' | null> {
  const [row] = await source.query<{ codeSha256: string }[]>('SELECT codeSha256 FROM first_owner WHERE id = 1');
  if (!row || !timingSafeEqual(Buffer.from(row.codeSha256), Buffer.from(digest(code)))) return null;
  if (!(await needsOwner(source))) return null;
  if (await isCommon(password, [signInName, displayName]))
    throw new HttpProblem('badFields', {
      fields: { password: 'This is among the passwords that are tried first. Choose another; a few words do well.' },
    });
  // The code is used up by whoever is first: of two at once one makes the owner.
  const { affectedRows } = await inTransaction(source, (manager) =>
    manager.query<{ affectedRows: number }>('DELETE FROM first_owner WHERE id = 1 AND codeSha256 = ?', [digest(code)]),
  );
  if (affectedRows !== 1) return null;
  const made = await addAccount(source, { signInName, displayName, role: 'owner', password, isDemo: false });
  if (made.ok) return 'made';
  await inTransaction(source, (manager) =>
    manager.query('REPLACE INTO first_owner (id, codeSha256) VALUES (1, ?)', [digest(code)]),
  );
  throw new HttpProblem('badFields', { fields: { signInName: made.says } });
}
