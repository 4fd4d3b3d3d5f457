const DECIMAL = /^[+-]?\d+([.,]\d+)?$/;

/**
 * A decimal number as people and instruments write it, with a point or a comma. Nothing else is one: no hexadecimal, no
 * power of ten, no emptiness.
 * @returns null where it is none
 * @example
 * ['25', '24,9', '-0.5'].map(decimalIn); // [25, 24.9, -0.5]
 * ['', '0x10', '1e3', 'Infinity', '1.2.3', '25 km/h'].map(decimalIn); // [null, null, null, null, null, null]
 */
export function decimalIn(text: string): number | null {
  const trimmed = text.trim();
  return DECIMAL.test(trimmed) ? Number(trimmed.replace(',', '.')) : null;
}
