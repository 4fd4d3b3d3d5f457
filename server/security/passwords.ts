import { hash, verify } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import pLimit from 'p-limit';
import { HttpProblem } from '../problems.js';

/** An argon2id hash takes 19 MB and a core for some tens of milliseconds: few run at once, some wait, the rest are told to. */
const AT_ONCE = 2;
const WAITING_AT_MOST = 40;
const limit = pLimit(AT_ONCE);

/** A hash to verify against where the name is unknown, so that time tells nothing about names. */
let nobody: Promise<string> | null = null;

/** Hashes a password with argon2id, alone or beside one other. */
export const hashPassword = (password: string): Promise<string> => limit(() => hash(password));

/**
 * Whether a password belongs to a hash; with no hash it does not, in the same time.
 * @throws `signInBusy` where too many wait already
 */
export async function passwordMatches(passwordHash: string | null, password: string): Promise<boolean> {
  if (limit.pendingCount >= WAITING_AT_MOST) throw new HttpProblem('signInBusy');
  nobody ??= hash(randomBytes(16).toString('hex'));
  const against = passwordHash ?? (await nobody);
  const matches = await limit(() => verify(against, password));
  return matches && passwordHash !== null;
}
