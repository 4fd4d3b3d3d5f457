import { describe, expect, it } from 'vitest';
import { openPin, randomPin, sealPin } from './pin-cipher.js';

describe('a sealed PIN', () => {
  it('opens with its key for its owner, and shows no digits', () => {
    const sealed = sealPin('4711', 'unit-1', 'secret');
    expect(openPin(sealed, 'unit-1', 'secret')).toBe('4711');
    expect(sealed).not.toContain('4711');
    expect(sealPin('4711', 'unit-1', 'secret')).not.toBe(sealed);
  });

  it('does not open with another key, for another owner, or changed', () => {
    const sealed = sealPin('4711', 'unit-1', 'secret');
    expect(() => openPin(sealed, 'unit-1', 'other')).toThrow();
    expect(() => openPin(sealed, 'unit-2', 'secret')).toThrow();
    expect(() => openPin(`${sealed.slice(0, -2)}AA`, 'unit-1', 'secret')).toThrow();
    expect(() => openPin('4711', 'unit-1', 'secret')).toThrow();
  });
});

describe('a random PIN', () => {
  it('has its length, and is none that is tried first', () => {
    const pins = Array.from({ length: 2000 }, () => randomPin(3, ['127']));
    expect(pins.every((pin) => /^\d{3}$/.test(pin))).toBe(true);
    for (const obvious of ['000', '777', '123', '987', '127']) expect(pins).not.toContain(obvious);
    expect(new Set(pins).size).toBeGreaterThan(700);
  });
});
