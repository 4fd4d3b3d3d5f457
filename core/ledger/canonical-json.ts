import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/**
 * Canonical JSON after RFC 8785. What JSON cannot carry whole is refused, so that no two values have one text: a lone
 * surrogate, undefined, a hole in a list, a function, a figure that is none, an object that is more than its fields.
 * @throws TypeError on those, which is a bug of the caller; Error on a circle
 * @example
 * canonicalJson({ b: 4.5, a: '€' }); // '{"a":"€","b":4.5}'
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  refuseUnlessJson(value);
  if (text === undefined) throw new TypeError('nothing to write as canonical JSON');
  return text;
}

const HALF_A_LETTER = /\p{Surrogate}/u;

function refuseUnlessJson(value: unknown): void {
  switch (typeof value) {
    case 'boolean':
      return;
    case 'string':
      if (HALF_A_LETTER.test(value)) throw new TypeError('half a letter is no JSON text');
      return;
    case 'number':
      if (!Number.isFinite(value)) throw new TypeError(`${value} is no JSON number`);
      return;
    case 'object':
      return refuseUnlessPlain(value);
    default:
      throw new TypeError(`${typeof value} is no JSON`);
  }
}

function refuseUnlessPlain(value: object | null): void {
  if (value === null) return;
  if (Array.isArray(value)) {
    // Not `forEach`: that passes over holes.
    for (let i = 0; i < value.length; i++) refuseUnlessJson(value[i]);
    return;
  }
  const prototype: unknown = Object.getPrototypeOf(value);
  if (prototype !== Object.prototype && prototype !== null) throw new TypeError('no plain object is no JSON');
  if (Object.getOwnPropertySymbols(value).length > 0) throw new TypeError('a symbol names nothing in JSON');
  for (const [key, each] of Object.entries(value)) {
    refuseUnlessJson(key);
    refuseUnlessJson(each);
  }
}

/** Lower-case hex SHA-256 of the canonical JSON of a value. */
export const hashOf = (value: unknown): string => hashOfText(canonicalJson(value));

/** Lower-case hex SHA-256 of a text in UTF-8. */
export const hashOfText = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));
