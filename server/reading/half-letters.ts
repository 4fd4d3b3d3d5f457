const ESCAPED_BACKSLASH = /\\\\/g;
const WHOLE_PAIR = /\\u[dD][89abAB][0-9a-fA-F]{2}\\u[dD][c-fC-F][0-9a-fA-F]{2}/g;
const HALF = /\\u[dD][89a-fA-F][0-9a-fA-F]{2}/;

/**
 * Whether a JSON text writes half of a letter: a surrogate without its other half, which no UTF-8 can carry and no seal
 * can cover. A text that was read from UTF-8 holds none but by escape.
 */
export const hasHalfLetter = (json: string): boolean =>
  HALF.test(json) && HALF.test(json.replace(ESCAPED_BACKSLASH, '').replace(WHOLE_PAIR, ''));
