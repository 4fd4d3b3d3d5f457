import { createCipheriv, createDecipheriv, hkdfSync, randomBytes, randomInt } from 'node:crypto';

const VERSION = 'a1';

const keyFrom = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, 'decurio', 'pins', 32));

/** Seals digits with AES-256-GCM, bound to whose PIN it is: a sealed PIN moved to another row does not open. */
export function sealPin(digits: string, owner: string, secret: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyFrom(secret), nonce).setAAD(Buffer.from(owner));
  const body = Buffer.concat([cipher.update(digits, 'utf8'), cipher.final()]);
  return [VERSION, ...[nonce, cipher.getAuthTag(), body].map((part) => part.toString('base64url'))].join('.');
}

/** @throws where the key is another one, or the row was changed */
export function openPin(sealed: string, owner: string, secret: string): string {
  const [version, nonce, tag, body] = sealed.split('.');
  if (version !== VERSION || !nonce || !tag || !body) throw new Error('no sealed PIN');
  const decipher = createDecipheriv('aes-256-gcm', keyFrom(secret), Buffer.from(nonce, 'base64url')).setAAD(
    Buffer.from(owner),
  );
  decipher.setAuthTag(Buffer.from(tag, 'base64url'));
  return Buffer.concat([decipher.update(Buffer.from(body, 'base64url')), decipher.final()]).toString('utf8');
}

const MOST_TRIES = 10_000;

/**
 * Random digits that nobody tries first: no digit throughout, no run up or down, none of those in `not`.
 * @throws where as good as none is left of so few digits
 */
export function randomPin(length: number, not: readonly string[]): string {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const digits = Array.from({ length }, () => randomInt(10));
    const text = digits.join('');
    const steps = new Set(digits.slice(1).map((digit, i) => digit - (digits[i] ?? 0)));
    const isObvious = steps.size === 1 && [-1, 0, 1].includes([...steps][0] ?? 0);
    if (!isObvious && !not.includes(text)) return text;
  }
  throw new Error(`no PIN of ${length} digits is left`);
}
